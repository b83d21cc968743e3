import type { ProfileFieldShape } from '@haycart/api';
import {
  answerKeys,
  clausesOf,
  fieldTypeOf,
  mapCondition,
  VISIT_NAMES,
  VISIT_PART_NAMES_DERIVED,
  type Condition,
  type DecisionTable,
  type FieldDefinition,
  type FieldType,
  type Part,
  type RecordCondition,
} from '@haycart/core';
import { useMemo, useState } from 'react';
import { asGroup, ConditionBuilder, finished } from '../components/condition-builder';
import { useTables } from './draft';

/** As what an answer can be tested: the builder has no options to offer for it. */
const TESTED_AS: readonly FieldType[] = ['text', 'decimal', 'date', 'yes-no'];

/** The condition builder of every list, upon answers and the visit. A condition without a finished test is none. */
export function ConditionOnAnswers({
  condition,
  change,
  incoming,
  lead,
}: {
  condition: Condition | undefined;
  change: (condition: Condition | undefined) => void;
  incoming: readonly ProfileFieldShape[];
  lead: string;
}) {
  const [typed, setTyped] = useState<RecordCondition | null>(null);
  const shown = typed ?? asGroup(condition ? onTerms(condition) : { all: [] });
  const tables = useTables();
  const known = useMemo(() => [...terms(incoming), ...decidedTerms(tables)], [incoming, tables]);
  // What is tested stays to be seen, also when it never came.
  const unseen = clausesOf(shown).flatMap(({ of: { field } }) =>
    known.some(({ key }) => key === field) ? [] : [term(field, wordsOf(partOf(field)), 'text')],
  );
  return (
    <>
      <ConditionBuilder
        lead={lead}
        condition={shown}
        terms={{ fields: unseen.length ? [...known, ...unseen] : known, teams: [] }}
        change={(next) => {
          setTyped(next);
          const whole = finished(next);
          change(whole ? onParts(whole) : undefined);
        }}
      />
      <p className="text-small text-muted">Capitals do not count, unless Aa is chosen beside a test.</p>
    </>
  );
}

function term(key: string, label: string, type: FieldType): FieldDefinition {
  return { record: 'contact', key, label, type, builtIn: false, required: false };
}

/** What tables decide can be asked for as answers are. */
function decidedTerms(tables: readonly DecisionTable[]): FieldDefinition[] {
  return tables.flatMap(({ name, outputs }) =>
    outputs
      .filter(({ type }) => type !== 'owner')
      .map(({ name: output, type }) =>
        term(
          keyOf({ decision: name, output }),
          `${name}: ${output}`,
          type === 'number' ? 'decimal' : type === 'yes-no' ? 'yes-no' : 'text',
        ),
      ),
  );
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
  if ('decision' in part) return `${part.decision}: ${part.output}`;
  return 'visit' in part ? part.visit : keyOf(part);
}

const onTerms = (condition: Condition): RecordCondition => mapCondition(condition, (part) => ({ field: keyOf(part) }));
const onParts = (condition: RecordCondition): Condition => mapCondition(condition, ({ field }) => partOf(field));
