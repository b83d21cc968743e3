import type { SourceChange } from '@haycart/api';
import { counted, type ChannelRules } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from '../../api/client';
import { sourceChangesQuery, sourceMovesQuery } from '../../api/queries';
import { Button } from '../../components/button';
import { count } from '../../components/format';
import { Sheet } from '../../components/sheet';
import { messageOf } from '../../components/status';
import { Time } from '../../components/time';
import { useRested } from '../../state/use-rested';

const REST_MS = 500;

/** What the rules would change in the last year, and the changes made to past visits so far. */
export function PastSources({ rules, isSaved }: { rules: ChannelRules; isSaved: boolean }) {
  const client = useQueryClient();
  const moves = useQuery(sourceMovesQuery(useRested(rules, REST_MS)));
  const changes = useQuery(sourceChangesQuery);
  const told = () => client.invalidateQueries({ queryKey: ['sources'] });
  const apply = useMutation({
    mutationFn: () => call<{ change: SourceChange | null }>('POST', '/source-changes'),
    onSuccess: async ({ change }) => {
      await told();
      toast(change ? `${change.text}. It can be taken back below.` : 'All of the past goes by these rules already.');
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  const takeBack = useMutation({
    mutationFn: (id: string) => call<SourceChange>('POST', `/source-changes/${id}/take-back`),
    onSuccess: async ({ touches = 0 }) => {
      await told();
      toast(`${counted(touches, 'touch', 'touches')} have their earlier source again.`);
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  const found = moves.data;
  return (
    <Sheet>
      <section aria-label="The past" className="flex flex-col gap-3 p-4">
        <div className="flex flex-wrap items-start justify-between gap-3">
          <div>
            <h2 className="text-lg leading-6">The past</h2>
            <p className="text-muted" role="status">
              {moves.isError
                ? messageOf(moves.error)
                : !found
                  ? 'looking at the last year'
                  : found.touches
                    ? `${count(found.touches)} of the last year’s ${counted(found.looked, 'touch', 'touches')} would come from elsewhere`
                    : `None of the last year’s ${counted(found.looked, 'touch', 'touches')} would come from elsewhere`}
            </p>
          </div>
          <Button
            disabled={!isSaved || !found?.touches || apply.isPending}
            title={isSaved ? undefined : 'Save the rules first'}
            onClick={() => apply.mutate()}
          >
            Apply to the past
          </Button>
        </div>
        {found && found.moves.length > 0 && (
          <table className="w-full table-fixed text-left">
            <thead>
              <tr className="h-8 border-b border-line text-small text-muted">
                <th scope="col" className="pr-3 font-semibold">
                  From
                </th>
                <th scope="col" className="px-3 font-semibold">
                  To
                </th>
                <th scope="col" className="w-20 pl-3 text-right font-semibold">
                  Touches
                </th>
              </tr>
            </thead>
            <tbody>
              {found.moves.slice(0, 8).map(({ from, to, touches }) => (
                <tr key={`${placeOf(from)} ${placeOf(to)}`} className="h-9 border-b border-hair last:border-0">
                  <td className="truncate pr-3" title={placeOf(from)}>
                    {placeOf(from)}
                  </td>
                  <td className="truncate px-3" title={placeOf(to)}>
                    {placeOf(to)}
                  </td>
                  <td className="pl-3 text-right tabular-nums">{count(touches)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {found && found.moves.length + found.more > 8 && (
          <p className="text-small text-muted">
            and {counted(found.moves.length + found.more - 8, 'more kind')} of moves
          </p>
        )}
        {!!changes.data?.length && (
          <ul aria-label="Changes of the past" className="divide-y divide-hair border-t border-line">
            {changes.data.map(({ id, at, by, text, takenBack }) => (
              <li key={id} className="flex items-center gap-3 py-2">
                <p className={`min-w-0 flex-1 break-words ${takenBack ? 'text-muted line-through' : ''}`}>{text}</p>
                <span className="flex-none text-small text-muted">
                  {by}, <Time at={at} />
                </span>
                {takenBack ? (
                  <span className="flex-none text-small text-muted">taken back</span>
                ) : (
                  <Button disabled={takeBack.isPending} onClick={() => takeBack.mutate(id)}>
                    Take back
                  </Button>
                )}
              </li>
            ))}
          </ul>
        )}
      </section>
    </Sheet>
  );
}

function placeOf({ channel, source }: { channel: string; source: string }): string {
  return channel === source ? channel : `${channel}, ${source}`;
}
