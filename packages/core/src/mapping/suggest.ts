import type { Destination } from '../destination/destination';
import type { FieldDefinition } from '../field/field-definition';
import type { RecordKind } from '../diff/record';
import { foldKey } from '../payload/key';
import { answerKeys } from '../route/editing/answers';
import type { Fill, RouteDefinition, Write } from '../definition/route-definition';
import { asAnswers, asWanted, belonging, nameMatch, type Answer, type SeenField, type Wanted } from './answer-names';
import { finishing, type Beside } from './suggested-finishers';
import { KIND_WORDS, kindFits, optionOverlap } from './value-fit';

/** A fill that a person may take, with the reasons for it. */
export interface Suggestion {
  /** The name of the write, and the field that is fed. */
  as: string;
  record: RecordKind;
  fill: Fill;
  /** The key of the answer that feeds it. */
  answer: string;
  /** Sentences without a full stop, the strongest first. */
  reasons: string[];
  /** 0 to 1. */
  certainty: number;
}

/** From how much on a suggestion is worth a look. */
const WORTH = 0.45;
const CERTAIN = 0.95;
/** From how much on a name is the same, or another word for it. */
const SAME_NAME = 0.55;

/**
 * Which answers could feed the fields of a route that nothing feeds yet, and why: by names in several languages, by what
 * the values look like, by options that they name, and by what other routes of the workspace do. Each answer is suggested
 * for one field of a record, and each field gets its best. Nothing is changed.
 */
export function suggestFills(
  route: RouteDefinition,
  seen: readonly SeenField[],
  destination: Destination,
  others: readonly RouteDefinition[] = [],
): Suggestion[] {
  const answers = asAnswers(seen.filter(({ filled, key }) => filled > 0 && !isOfFile(key, seen)));
  const elsewhere = fedElsewhere(others);
  const alone = onlyOfTheirKind(answers);
  const beside = besideOf(answers, destination);
  return route.writes.flatMap((write) => {
    const elsewhereFed = new Set(route.writes.flatMap((other) => (other === write ? [] : [...usedAnswers(other)])));
    const found: Suggestion[] = [];
    for (const wanted of unfedFields(write, destination).map(asWanted))
      for (const answer of answers) {
        const suggestion = weigh(write, wanted, answer, { elsewhere, alone, beside }, destination);
        // What feeds another record already most likely belongs there alone.
        const least = elsewhereFed.has(answer.folded) && wanted.field.key !== 'domain' ? CERTAIN : WORTH;
        if (suggestion && suggestion.certainty >= least) found.push(suggestion);
      }
    return bestOfEach(found, usedAnswers(write));
  });
}

/**
 * A fill that takes one answer for one field, finished as a suggestion would be: what somebody means who says no more than
 * that.
 */
export function fillFrom(
  answer: string,
  field: FieldDefinition,
  seen: readonly SeenField[],
  destination: Destination,
): Fill {
  const answers = asAnswers(seen);
  const known = answers.find((one) => one.seen.key === answer);
  const value = { parts: [{ answer }] };
  return {
    field: field.key,
    value: known ? { ...value, ...finishing(field, known, destination, besideOf(answers, destination)) } : value,
  };
}

/** What is known of all answers while one is weighed. */
interface Ground {
  elsewhere: ReadonlyMap<string, { fill: Fill; route: string }>;
  alone: ReadonlySet<Answer>;
  beside: Beside;
}

/** Whether it tells of a file that was sent: its name is nobody’s. */
function isOfFile(key: string, seen: readonly SeenField[]): boolean {
  const around = key.slice(0, key.lastIndexOf('.') + 1);
  return (
    around !== '' && ['file', 'name', 'type', 'size'].every((part) => seen.some((one) => one.key === around + part))
  );
}

/** What of the other answers says how an answer is read. */
function besideOf(answers: readonly Answer[], { fields }: Destination): Beside {
  const named = (key: string) => {
    const field = fields.find((one) => one.record === 'contact' && one.key === key && one.builtIn);
    const wanted = field && asWanted(field);
    return wanted ? answers.filter((answer) => (nameMatch(wanted, answer)?.weight ?? 0) >= SAME_NAME) : [];
  };
  const countries = answers.filter(({ seen }) => seen.kind === 'country');
  const country = named('country').find(({ seen }) => seen.kind === 'country') ?? countries[0] ?? named('country')[0];
  // A name alone is another word for a given name too.
  const given = named('first_name').filter((answer) => !named('last_name').includes(answer));
  return { country: country?.seen.key ?? null, givenName: given.length > 0 };
}

function unfedFields(write: Write, { fields }: Destination): FieldDefinition[] {
  const fed = new Set(write.fills.filter(({ value }) => value.parts.length).map(({ field }) => field));
  return fields.filter(
    ({ record, key, kept }) =>
      record === write.record && !kept && !fed.has(key) && !NEVER.has(key) && !(record === 'deal' && key === 'name'),
  );
}

/** What comes from the visit or the route itself. */
const NEVER = new Set([
  'source',
  'owner',
  'tags',
  'lists',
  'pipeline',
  'stage',
  'status',
  'reason',
  'emails',
  'phones',
]);

function usedAnswers(write: Write): Set<string> {
  return new Set(
    write.fills.flatMap(({ value }) =>
      value.parts.flatMap((part) => ('answer' in part ? answerKeys(part).map(foldKey) : [])),
    ),
  );
}

function weigh(
  write: Write,
  wanted: Wanted,
  answer: Answer,
  { elsewhere, alone, beside }: Ground,
  destination: Destination,
): Suggestion | null {
  const { field } = wanted;
  const { seen } = answer;
  const fits = kindFits(field, seen);
  if (fits === 'never') return null;
  const reasons: { weight: number; text: string }[] = [];
  const named = nameMatch(wanted, answer);
  if (named) reasons.push(named);
  if (fits === 'well') reasons.push({ weight: 0.3, text: `its values look like ${KIND_WORDS[seen.kind]}` });
  const options = optionOverlap(field, seen);
  if (options) reasons.push(options);
  const other = elsewhere.get(`${write.record} ${field.key} ${answer.folded}`);
  if (other) reasons.push({ weight: 0.55, text: `“${other.route}” feeds it so` });
  const only =
    field.builtIn && ONLY_OF_KIND[write.record]?.includes(field.type) && field.type === seen.kind && alone.has(answer);
  if (only) reasons.push({ weight: 0.4, text: `nothing else that arrives holds ${KIND_WORDS[seen.kind]}` });
  if (!named && !options && !other && !only) return null;
  const certainty = Math.min(1, reasons.reduce((sum, { weight }) => sum + weight, 0) + belonging(field, answer));
  const fill = other?.fill ?? {
    field: field.key,
    value: { parts: [{ answer: seen.key }], ...finishing(field, answer, destination, beside) },
  };
  return {
    as: write.as,
    record: write.record,
    fill,
    answer: seen.key,
    reasons: reasons.sort((a, b) => b.weight - a.weight).map(({ text }) => text),
    certainty,
  };
}

/** Of what kinds an answer is fed to a record where no other is of its kind. */
const ONLY_OF_KIND: Partial<Record<RecordKind, readonly string[]>> = {
  contact: ['email', 'phone'],
  lead: ['email', 'phone', 'long-text'],
  deal: ['long-text'],
};

/** Answers that alone hold their kind: whatever they are called, there is little else that they can be. */
function onlyOfTheirKind(answers: readonly Answer[]): Set<Answer> {
  return new Set(
    (['email', 'phone', 'long-text'] as const).flatMap((kind) => {
      const holding = answers.filter(({ seen }) => seen.kind === kind);
      return holding.length === 1 ? holding : [];
    }),
  );
}

/** How the other routes feed a field from an answer of that key. */
function fedElsewhere(routes: readonly RouteDefinition[]): Map<string, { fill: Fill; route: string }> {
  const fed = new Map<string, { fill: Fill; route: string }>();
  for (const { name, writes } of routes)
    for (const { record, fills } of writes)
      for (const fill of fills) {
        const [only] = fill.value.parts;
        if (fill.value.parts.length !== 1 || !only || !('answer' in only)) continue;
        const key = `${record} ${fill.field} ${foldKey(only.answer)}`;
        if (!fed.has(key)) fed.set(key, { fill, route: name });
      }
  return fed;
}

/** The best answer for each field; an answer that feeds a field of the record already, or a better one, is not suggested again. */
function bestOfEach(found: readonly Suggestion[], used: Set<string>): Suggestion[] {
  const taken = new Set(used);
  const fed = new Set<string>();
  const best: Suggestion[] = [];
  for (const suggestion of [...found].sort((a, b) => b.certainty - a.certainty)) {
    const answer = foldKey(suggestion.answer);
    // One answer may give both parts of a name, and an e-mail its domain.
    const shared = suggestion.fill.value.finishers?.some(({ use }) => use === 'split-name' || use === 'company-domain');
    if (fed.has(suggestion.fill.field) || (taken.has(answer) && !shared)) continue;
    if (suggestion.fill.field === 'full_name' && fed.has('first_name') && fed.has('last_name')) continue;
    fed.add(suggestion.fill.field);
    if (!shared) taken.add(answer);
    best.push(suggestion);
  }
  return best;
}
