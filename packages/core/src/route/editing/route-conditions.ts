import { type Clause } from '../../condition/condition';
import type { ConditionSetting } from '../../condition/condition-test';
import { describeClause } from '../../condition/describe-condition';
import { evaluate, type ConditionReader } from '../../condition/evaluate';
import { testNamed } from '../../condition/registry';
import { fieldOf, recordWord, type Destination } from '../../destination/destination';
import type { FieldType } from '../../field/field-definition';
import type { FieldValue } from '../../diff/record';
import type { JsonValue } from '../../json';
import { readDate } from '../../reading/date-text';
import { oneNumberIn } from '../../reading/number-text';
import { yesOrNo } from '../../reading/yes-no-words';
import { type PartReader } from '../../value/work-out-value';
import { answerText } from '../../payload/answer-text';
import { listInWords } from '../../text';
import { answerKeys } from './answers';
import type { Condition, RouteDefinition } from '../../definition/route-definition';
import type { Part } from '../../value/value';
import type { Submission } from '../../payload/submission';

/** An answer has no type of its own: it is read as the test needs it, by the first of these that the test fits. */
const READ_AS: readonly FieldType[] = ['text', 'decimal', 'date', 'yes-no', 'several-of'];

/** As what a part is tested: a record's field as what it holds, the time of arrival as a time, an answer as the test needs. */
export function partType(
  part: Part,
  test: string,
  route: Pick<RouteDefinition, 'writes'>,
  destination: Destination,
): FieldType | undefined {
  if ('write' in part) {
    const write = route.writes.find(({ as }) => as === part.write);
    return write && fieldOf(destination, write.record, part.field)?.type;
  }
  const fits = testNamed(test)?.fits ?? [];
  if ('visit' in part && part.visit === 'receivedAt' && fits.includes('date-time')) return 'date-time';
  return READ_AS.find((type) => fits.includes(type)) ?? 'text';
}

/** Reads the parts of a route's conditions. White space at the ends of an answer does not count. */
export function conditionReader(
  read: PartReader,
  route: Pick<RouteDefinition, 'writes'>,
  destination: Destination,
): ConditionReader<Part> {
  const typeOf = (part: Part, test: string) => partType(part, test, route, destination);
  return {
    typeOf,
    valueOf: (part, test) =>
      'write' in part ? ((read(part) as FieldValue | undefined) ?? null) : readAs(read(part), typeOf(part, test)),
  };
}

function readAs(answer: JsonValue | undefined, type: FieldType | undefined): FieldValue | null {
  const texts = (Array.isArray(answer) ? answer : [answer])
    .map((one) => answerText(one).trim())
    .filter((text) => text !== '');
  const [first] = texts;
  if (first === undefined) return null;
  switch (type) {
    case 'decimal':
      return oneNumberIn(first);
    case 'date': {
      const read = readDate(first, 'day-first');
      return read.ok ? read.date : null;
    }
    case 'yes-no':
      return yesOrNo(first);
    case 'several-of':
      return texts;
    default:
      return texts.length > 1 ? texts : first;
  }
}

/** What tests of a route count from: the arrival of the submission, so that a run gives the same whenever it is done. */
export function conditionSetting(
  { receivedAt }: Pick<Submission, 'receivedAt'>,
  destination: Destination,
): ConditionSetting {
  return { now: receivedAt, defaultCurrency: destination.defaultCurrency, teams: {} };
}

/** Whether a condition lets a submission through; if not, the clauses that stand in the way, in words. */
export function conditionMet(
  condition: Condition,
  read: PartReader,
  route: RouteDefinition,
  submission: Submission,
  destination: Destination,
): { met: true } | { met: false; unmet: string } {
  const reader = conditionReader(read, route, destination);
  const { met, because } = evaluate(condition, reader, conditionSetting(submission, destination));
  if (met) return { met };
  const unmet = because.map(
    (clause) =>
      `${describeClause(clause, (part) => ({ label: partLabel(part, route, destination) }))}${isNow(clause, read)}`,
  );
  return { met, unmet: listInWords([...new Set(unmet)]) || 'nothing is wanted' };
}

function isNow({ of, test }: Clause<Part>, read: PartReader): string {
  if (test === 'blank' || test === 'filled') return '';
  const text = answerText(read(of)).trim().replace(/\s+/g, ' ');
  return text === '' ? ' (it is blank)' : ` (it is “${text.length > 60 ? `${text.slice(0, 59)}…` : text}”)`;
}

/** What people call a part: the key of an answer, `the page`, `the contact’s E-mail`. */
export function partLabel(part: Part, route: Pick<RouteDefinition, 'writes'>, destination: Destination): string {
  if ('answer' in part) return answerKeys(part).join(' or ');
  if ('visit' in part) return `the visit’s ${part.visit}`;
  if ('text' in part) return `“${part.text}”`;
  if ('decision' in part) return `${part.decision}, ${part.output}`;
  const write = route.writes.find(({ as }) => as === part.write);
  if (!write) return `${part.write}, ${part.field}`;
  const label = fieldOf(destination, write.record, part.field)?.label ?? part.field;
  return `the ${recordWord(destination, write.record)}’s ${label}`;
}
