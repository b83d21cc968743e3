import type { PassingShape, ProfileFieldShape } from '@haycart/api';
import {
  answerKeys,
  clausesOf,
  fieldTypeOf,
  mapCondition,
  VISIT_NAMES,
  VISIT_PART_NAMES_DERIVED,
  type Condition,
  type FieldDefinition,
  type FieldType,
  type Part,
  type RecordCondition,
  type RouteDefinition,
} from '@haycart/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { call } from '../api/client';
import { asGroup, ConditionBuilder, finished } from '../components/condition-builder';
import { count } from '../components/format';
import { useRested } from '../state/use-rested';
import { useDraft } from './draft';

const REST_MS = 250;
/** As what an answer can be tested: the builder has no options to offer for it. */
const TESTED_AS: readonly FieldType[] = ['text', 'decimal', 'date', 'yes-no'];

/** Which submissions the route takes: the same condition builder as everywhere, upon answers and the visit. */
export function OnlyWhen({
  definition,
  incoming,
}: {
  definition: RouteDefinition;
  incoming: readonly ProfileFieldShape[];
}) {
  const change = useDraft(({ change }) => change);
  const [typed, setTyped] = useState<RecordCondition | null>(null);
  const shown = typed ?? asGroup(definition.onlyWhen ? onTerms(definition.onlyWhen) : { all: [] });
  const known = useMemo(() => terms(incoming), [incoming]);
  // What is tested stays to be seen, also when it never came.
  const unseen = clausesOf(shown).flatMap(({ of: { field } }) =>
    known.some(({ key }) => key === field) ? [] : [term(field, wordsOf(partOf(field)), 'text')],
  );
  const fields = unseen.length ? [...known, ...unseen] : known;
  return (
    <div className="flex flex-col gap-3 pl-9">
      <ConditionBuilder
        lead="Takes a submission where"
        condition={shown}
        terms={{ fields, teams: [] }}
        change={(next) => {
          setTyped(next);
          const whole = finished(next);
          change(({ onlyWhen: _, ...draft }) => (whole ? { ...draft, onlyWhen: onParts(whole) } : draft));
        }}
      />
      <p className="text-small text-muted">Capitals do not count, unless Aa is chosen beside a test.</p>
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

function term(key: string, label: string, type: FieldType): FieldDefinition {
  return { record: 'contact', key, label, type, builtIn: false, required: false };
}

function terms(incoming: readonly ProfileFieldShape[]): FieldDefinition[] {
  const answers = incoming.map(({ key, label, kind }) => {
    const type = fieldTypeOf(kind);
    return term(
      `answer ${key}`,
      label,
      type === 'whole-number' || type === 'money' ? 'decimal' : TESTED_AS.includes(type) ? type : 'text',
    );
  });
  const visits = [...VISIT_PART_NAMES_DERIVED, ...VISIT_NAMES].map((name) =>
    term(`visit ${name}`, `visit: ${name}`, name === 'receivedAt' ? 'date-time' : 'text'),
  );
  return [...answers, ...visits];
}

function keyOf(part: Part): string {
  if ('answer' in part && !part.or) return `answer ${part.answer}`;
  if ('visit' in part) return `visit ${part.visit}`;
  return JSON.stringify(part);
}

function partOf(key: string): Part {
  if (key.startsWith('answer ')) return { answer: key.slice(7) };
  return key.startsWith('visit ') ? { visit: key.slice(6) } : (JSON.parse(key) as Part);
}

function wordsOf(part: Part): string {
  if ('answer' in part) return answerKeys(part).join(' or ');
  return 'visit' in part ? part.visit : keyOf(part);
}

const onTerms = (condition: Condition): RecordCondition => mapCondition(condition, (part) => ({ field: keyOf(part) }));
const onParts = (condition: RecordCondition): Condition => mapCondition(condition, ({ field }) => partOf(field));
