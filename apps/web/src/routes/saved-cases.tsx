import type { CaseResult, RouteCaseShape } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { routeCasesQuery } from '../api/queries';
import { Button, IconButton } from '../components/button';
import { StateShape } from '../components/state-shape';
import { Empty, Failed, Loading, messageOf } from '../components/status';
import { Change } from '../components/value';
import { useRested } from '../state/use-rested';
import { useDraft } from './draft';

const REST_MS = 400;

/** What the draft does with each saved case, against what was agreed on. */
export function useCaseResults(routeId: string): CaseResult[] | undefined {
  const cases = useQuery(routeCasesQuery(routeId)).data;
  const definition = useRested(
    useDraft(({ value }) => value),
    REST_MS,
  );
  return useQuery({
    queryKey: ['route-cases', routeId, 'check', definition, cases?.length],
    queryFn: () => call<CaseResult[]>('POST', `/routes/${routeId}/cases/check`, { definition }),
    enabled: Boolean(cases?.length && definition),
    placeholderData: (before) => before,
    retry: false,
  }).data;
}

/** Samples with an agreed outcome: which come out as agreed, and how the others differ. */
export function SavedCases({ routeId }: { routeId: string }) {
  const client = useQueryClient();
  const cases = useQuery(routeCasesQuery(routeId));
  const results = useCaseResults(routeId);
  const save = useDraft(({ save }) => save);
  const act = useMutation({
    mutationFn: async ({ id, what }: { id: string; what: 'agree' | 'remove' }) => {
      await save();
      return what === 'agree'
        ? call('POST', `/routes/${routeId}/cases/${id}/agree`)
        : call('DELETE', `/routes/${routeId}/cases/${id}`);
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ['route-cases', routeId] }),
    onError: (error) => toast.error(messageOf(error)),
  });
  if (cases.isPending) return <Loading lines={3} />;
  if (cases.isError) return <Failed error={cases.error} retry={() => void cases.refetch()} />;
  if (!cases.data.length)
    return (
      <Empty title="No case is saved">
        Step to a sample whose outcome is right, and save it. Before the route is published, every case must come out as
        agreed.
      </Empty>
    );
  return (
    <ul className="flex flex-col">
      {cases.data.map((one) => (
        <CaseLine
          key={one.id}
          one={one}
          result={results?.find(({ id }) => id === one.id)}
          agree={() => act.mutate({ id: one.id, what: 'agree' })}
          remove={() => act.mutate({ id: one.id, what: 'remove' })}
        />
      ))}
    </ul>
  );
}

function CaseLine({
  one,
  result,
  agree,
  remove,
}: {
  one: RouteCaseShape;
  result: CaseResult | undefined;
  agree: () => void;
  remove: () => void;
}) {
  const differs = (result?.differences.length ?? 0) > 0;
  return (
    <li className="border-b border-hair py-2 last:border-b-0">
      <div className="flex items-center gap-2">
        <StateShape state={differs ? 'failed' : 'written'} />
        <b className="min-w-0 flex-1 truncate font-semibold">{one.name}</b>
        <span className="text-small text-muted">{!result ? '…' : differs ? 'another result' : 'as expected'}</span>
        <IconButton label={`Remove the case ${one.name}`} className="!size-7 text-muted" onClick={remove}>
          <Trash2 className="size-3.5" aria-hidden />
        </IconButton>
      </div>
      {differs && (
        <div className="mt-1 flex flex-col gap-1 pl-6 text-small">
          {result!.differences.map(({ kind, text, before, after }) => (
            <p key={kind}>
              {text}: <Change before={before} after={after} />
            </p>
          ))}
          <Button className="!h-7 self-start" onClick={agree}>
            Agree on this instead
          </Button>
        </div>
      )}
    </li>
  );
}
