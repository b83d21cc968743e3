import type { PassingShape, ProfileFieldShape } from '@haycart/api';
import type { RouteDefinition } from '@haycart/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { call } from '../api/client';
import { count } from '../components/format';
import { useRested } from '../state/use-rested';
import { ConditionOnAnswers } from './condition-on-answers';
import { useDraft } from './draft';

const REST_MS = 250;
/** Which submissions the route takes: the same condition builder as everywhere, upon answers and the visit. */
export function OnlyWhen({
  definition,
  incoming,
}: {
  definition: RouteDefinition;
  incoming: readonly ProfileFieldShape[];
}) {
  const change = useDraft(({ change }) => change);
  return (
    <div className="flex flex-col gap-3 pl-9">
      <ConditionOnAnswers
        lead="Takes a submission where"
        condition={definition.onlyWhen}
        incoming={incoming}
        change={(condition) =>
          change(({ onlyWhen: _, ...draft }) => (condition ? { ...draft, onlyWhen: condition } : draft))
        }
      />
      <Passing definition={definition} />
    </div>
  );
}

/** How many of the latest submissions would pass, and which fail by the writing of a value alone. */
function Passing({ definition }: { definition: RouteDefinition }) {
  const { from, onlyWhen } = definition;
  const body = useRested(
    useMemo(
      () =>
        JSON.stringify({
          definition: { format: 'haycart.route/1', name: 'a', from, writes: [], ...(onlyWhen ? { onlyWhen } : {}) },
        }),
      [from, onlyWhen],
    ),
    REST_MS,
  );
  const passing = useQuery({
    queryKey: ['passing', body],
    queryFn: () => call<PassingShape>('POST', '/rehearse/passing', JSON.parse(body)),
    placeholderData: keepPreviousData,
    retry: false,
  }).data;
  if (!passing?.looked) return null;
  return (
    <div role="status">
      <p>
        <b className="font-semibold">{count(passing.pass)}</b> of the last {count(passing.looked)} submissions would
        pass.
      </p>
      {passing.nearMisses.map(({ clause, differs, count: times, example }) => (
        <p key={`${differs} ${clause}`} className="text-small text-muted">
          {count(times)} {times === 1 ? 'differs' : 'differ'} only by{' '}
          {differs === 'capitals' ? 'capitals' : 'spaces, punctuation or accents'}: {clause}.{' '}
          <Link to={`/submissions?open=${example}`} className="text-slate underline">
            See one
          </Link>
        </p>
      ))}
    </div>
  );
}
