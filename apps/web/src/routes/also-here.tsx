import type { PresenceShape } from '@haycart/api';
import { listInWords } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { Users } from 'lucide-react';
import { useEffect } from 'react';
import { call } from '../api/client';

/** How often the page says that it is open, in milliseconds. */
const SAID_MS = 10_000;

/** Who else has this route’s sheet open, so that nobody changes the same thing unknowingly. */
export function AlsoHere({ routeId }: { routeId: string }) {
  const path = `/routes/${routeId}/here`;
  const others =
    useQuery({
      queryKey: ['routes', 'here', routeId],
      queryFn: () => call<PresenceShape>('POST', path),
      refetchInterval: SAID_MS,
      retry: false,
    }).data?.others ?? [];
  useEffect(
    () => () => {
      void call('DELETE', path).catch(() => {});
    },
    [path],
  );
  if (!others.length) return null;
  return (
    <span role="status" className="flex items-center gap-1.5 rounded-sm bg-straw-soft px-1.5">
      <Users className="size-3.5" aria-hidden />
      {listInWords(others)} {others.length === 1 ? 'is' : 'are'} here too
    </span>
  );
}
