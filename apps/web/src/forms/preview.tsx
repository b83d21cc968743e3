import type { FormDefinition } from '@haycart/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useRef } from 'react';
import { call } from '../api/client';
import { Failed, Loading } from '../components/status';
import { useRested } from '../state/use-rested';
import type { Chosen } from './chosen';

/** The widths at which a form is looked at, in pixels; desktop is the room there is. */
export const WIDTHS = { Phone: 390, Tablet: 768, Desktop: null } as const;
export type Width = keyof typeof WIDTHS;

const REST_MS = 200;

/** The real page of the draft, made by the code that makes it for visitors, in a frame that can reach nothing. */
export function Preview({
  form,
  language,
  width,
  chosen,
  choose,
}: {
  form: FormDefinition;
  language: string;
  width: Width;
  chosen: Chosen;
  choose: (item: string) => void;
}) {
  const frame = useRef<HTMLIFrameElement>(null);
  const rested = useRested(form, REST_MS);
  const page = useQuery({
    queryKey: ['form-preview', language, rested],
    queryFn: () => call<{ page: string }>('POST', '/forms/preview', { form: rested, language }),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  });
  const item = chosen && 'item' in chosen ? chosen.item : null;
  const show = useCallback(() => frame.current?.contentWindow?.postMessage({ haycart: 'show', item }, '*'), [item]);
  useEffect(show, [show]);
  useEffect(() => {
    const hear = ({ source, data }: MessageEvent<{ haycart?: string; item?: string } | null>) => {
      if (source !== frame.current?.contentWindow) return;
      if (data?.haycart === 'chosen' && data.item) choose(data.item);
      // Each page that comes into the frame asks what is chosen once it can show it.
      if (data?.haycart === 'ready') show();
    };
    window.addEventListener('message', hear);
    return () => window.removeEventListener('message', hear);
  }, [choose, show]);
  if (page.isError && !page.data) return <Failed error={page.error} retry={() => void page.refetch()} />;
  // A frame that begins empty and is given its page a moment later stays blank in Chromium at times.
  if (!page.data) return <Loading />;
  return (
    <iframe
      ref={frame}
      title="Preview of the form"
      sandbox="allow-scripts"
      srcDoc={page.data.page}
      className="min-h-[640px] max-w-full flex-1 self-center border border-line bg-raised"
      style={{ width: WIDTHS[width] ?? '100%' }}
    />
  );
}
