import { counted, type RenderedMail } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { outboxItemQuery } from '../api/queries';
import { Dialog } from '../components/dialog';
import { OutboxActions } from '../components/outbox-actions';
import { OutboxAbout, OutboxStateWord } from '../components/outbox-state';
import { RenderedMailView } from '../components/rendered-mail';
import { Mono } from '../components/sheet';
import { Failed, Loading } from '../components/status';

const KINDS: Readonly<Record<string, string>> = { post: 'A post', mail: 'A mail' };

/** One thing in the outbox: where it goes, how far it came, and what it says. */
export function OutboxItem({ id, close }: { id: string; close: () => void }) {
  const item = useQuery(outboxItemQuery(id));
  return (
    <Dialog wide open close={close} title={KINDS[item.data?.kind ?? ''] ?? 'A message'}>
      {item.isPending ? (
        <Loading lines={6} />
      ) : item.isError ? (
        <Failed error={item.error} retry={() => void item.refetch()} />
      ) : (
        <div className="flex flex-col gap-3">
          <dl className="grid grid-cols-[104px_minmax(0,1fr)] gap-x-3 gap-y-1">
            <dt className="text-muted">State</dt>
            <dd>
              <OutboxStateWord state={item.data.state} />
            </dd>
            <dt className="text-muted">{item.data.state === 'done' ? 'Sent' : 'About it'}</dt>
            <dd className="[overflow-wrap:anywhere]">
              <OutboxAbout line={item.data} />
            </dd>
            <dt className="text-muted">To</dt>
            <dd className="[overflow-wrap:anywhere]">
              <Mono>{item.data.to}</Mono>
            </dd>
            <dt className="text-muted">Tries</dt>
            <dd>{item.data.attempts}</dd>
            {item.data.together > 0 && (
              <>
                <dt className="text-muted">Together</dt>
                <dd>as one with {counted(item.data.together, 'other')}</dd>
              </>
            )}
            <dt className="text-muted">Route</dt>
            <dd>
              <Link to={`/routes/${item.data.route.id}`} className="text-slate underline">
                {item.data.route.name}
              </Link>
              , for{' '}
              <Link to={`/submissions?open=${item.data.submission}`} className="text-slate underline">
                this submission
              </Link>
            </dd>
            <dt className="text-muted" title="The same for each try">
              Key
            </dt>
            <dd className="[overflow-wrap:anywhere]">
              <Mono>{item.data.key}</Mono>
            </dd>
          </dl>
          <section>
            <h3 className="mb-1 text-[14px]">What it says</h3>
            {item.data.kind === 'mail' ? (
              <RenderedMailView mail={item.data.body as unknown as RenderedMail} />
            ) : (
              <pre
                tabIndex={0}
                aria-label="What it says"
                className="max-h-[300px] overflow-auto rounded border border-line bg-raised p-2.5 font-mono text-[12px] leading-[17px] whitespace-pre-wrap [overflow-wrap:anywhere]"
              >
                {JSON.stringify(item.data.body, null, 2)}
              </pre>
            )}
          </section>
          <div className="flex justify-end">
            <OutboxActions line={item.data} />
          </div>
        </div>
      )}
    </Dialog>
  );
}
