import type { RunShape } from '@haycart/api';
import { hostOf } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { outboxOfRunQuery } from '../api/queries';
import { OutboxActions } from '../components/outbox-actions';
import { OutboxAbout, OutboxStateWord } from '../components/outbox-state';
import { Failed } from '../components/status';

/** What the follow-ups of a run send, and how far each came. */
export function SentOn({ run: { id, plan } }: { run: RunShape }) {
  const sends = plan?.effects?.some(({ out }) => out) ?? false;
  const items = useQuery({ ...outboxOfRunQuery(id), enabled: sends });
  if (!sends || items.isPending) return null;
  if (items.isError) return <Failed error={items.error} retry={() => void items.refetch()} />;
  return (
    <section className="mt-3 border-t border-line pt-3">
      <h3 className="mb-1 text-[14px]">Sent on</h3>
      <ul className="flex flex-col gap-2">
        {items.data.items.map((line) => (
          <li key={line.id} className="flex flex-wrap items-start gap-x-3 gap-y-1">
            <div className="min-w-0 flex-1">
              <p className="flex flex-wrap items-center gap-x-2">
                <OutboxStateWord state={line.state} />
                <span className="min-w-0 [overflow-wrap:anywhere]" title={line.to}>
                  to {hostOf(line.to) ?? line.to}
                </span>
              </p>
              <p className="text-small text-muted [overflow-wrap:anywhere]">
                <OutboxAbout line={line} />
              </p>
            </div>
            {line.state !== 'done' && <OutboxActions line={line} />}
          </li>
        ))}
      </ul>
    </section>
  );
}
