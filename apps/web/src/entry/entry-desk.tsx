import type { EntryShape } from '@haycart/api';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { entryQuery } from '../api/queries';
import { PageHead, Sheet } from '../components/sheet';
import { StateShape, stateOf } from '../components/state-shape';
import { Empty, Failed, Loading } from '../components/status';
import { TextField } from '../components/text-field';
import { Time } from '../components/time';
import { useAddress } from '../state/use-address';

/**
 * A form for colleagues, one enquiry after the other: its address can be kept as a bookmark, with the source and other
 * presets in it; after sending it is empty and ready again, and what became of the one before is told beside it.
 */
export function EntryDesk({ secret, signedIn, actions }: { secret: string; signedIn: boolean; actions?: ReactNode }) {
  const entry = useQuery(entryQuery(secret));
  const client = useQueryClient();
  const [params, set] = useAddress();
  const frame = useRef<HTMLIFrameElement>(null);
  const [sent, setSent] = useState(0);
  const [height, setHeight] = useState(480);
  const [source, setSource] = useState(params.get('utm_source') ?? '');
  useEffect(() => {
    const hear = ({ source, data }: MessageEvent<{ haycart?: string; height?: number } | null>) => {
      if (source !== frame.current?.contentWindow) return;
      if (data?.haycart === 'height' && data.height) setHeight(data.height);
      if (data?.haycart === 'sent') {
        setSent((before) => before + 1);
        void client.invalidateQueries({ queryKey: ['entry', secret] });
      }
    };
    window.addEventListener('message', hear);
    return () => window.removeEventListener('message', hear);
  }, [client, secret]);
  if (entry.isPending) return <Loading />;
  if (entry.isError) return <Failed error={entry.error} retry={() => void entry.refetch()} />;
  const { form, person, latest } = entry.data;
  if (form.state !== 'live') return <Empty title="There is nothing to fill in">This form is not open.</Empty>;
  const query = new URLSearchParams(params);
  query.set('embed', '1');
  query.set('entry', secret);
  if (!query.get('utm_source')) query.set('utm_source', 'quick-entry');
  const keepSource = () => set('utm_source', source.trim());
  return (
    <div className="grid h-full content-start gap-x-5 gap-y-0 overflow-y-auto p-5 lg:grid-cols-[minmax(0,1fr)_380px]">
      <div className="lg:col-span-2">
        <PageHead title={form.name} aside={`quick entry by ${person.name}`}>
          <span className="flex items-center gap-2">
            <span aria-hidden className="text-muted">
              Source
            </span>
            <TextField
              label="Source of what is entered"
              hideLabel
              placeholder="partner call"
              title="Recorded as the source of each enquiry; it stays in the address, so that it can be bookmarked"
              value={source}
              onChange={({ target }) => setSource(target.value)}
              onBlur={keepSource}
              onKeyDown={({ key }) => key === 'Enter' && keepSource()}
            />
          </span>
          {actions}
        </PageHead>
      </div>
      <iframe
        // A new frame for each: empty, and with the first question ready to be typed in.
        key={sent}
        ref={frame}
        title={form.title}
        src={`${form.address}?${query.toString()}`}
        // Whoever types elsewhere on this page goes on there.
        onLoad={() => document.activeElement === document.body && frame.current?.focus()}
        className="mb-5 w-full border border-line bg-raised"
        style={{ height }}
      />
      <Became latest={latest} signedIn={signedIn} />
    </div>
  );
}

/** What became of the latest, newest first. */
function Became({ latest, signedIn }: { latest: EntryShape['latest']; signedIn: boolean }) {
  return (
    <Sheet className="self-start">
      <h2 className="border-b border-line px-4 py-2.5 text-base">What became of yours</h2>
      <ol aria-live="polite" aria-label="What became of yours">
        {latest.map((one) => {
          const told = (
            <>
              <b className="block truncate">{one.who || 'unnamed'}</b>
              <span className="text-small text-muted">
                {one.runs.map(({ summary }) => summary).join('; ') ||
                  {
                    waiting: 'on its way',
                    routed: 'routed',
                    unrouted: 'no route takes it',
                    'set-aside': 'set aside',
                    cancelled: 'cancelled',
                  }[one.state]}
              </span>
            </>
          );
          return (
            <li key={one.id} className="flex items-start gap-2 border-b border-hair px-4 py-2 last:border-b-0">
              <span className="pt-1">
                <StateShape state={stateOf(one)} word />
              </span>
              {signedIn ? (
                <Link to={`/submissions?open=${one.id}`} className="min-w-0 flex-1 hover:underline">
                  {told}
                </Link>
              ) : (
                <span className="min-w-0 flex-1">{told}</span>
              )}
              <span className="flex-none text-small text-muted">
                <Time at={one.receivedAt} />
              </span>
            </li>
          );
        })}
        {!latest.length && <li className="px-4 py-3 text-muted">Nothing was entered yet.</li>}
      </ol>
    </Sheet>
  );
}
