import type { Destination } from '../destination/destination';
import type { FieldDefinition } from '../destination/field-definition';
import type { RecordKind } from '../diff/record';
import { foldKey } from '../payload/key';
import { answerKeys } from '../route/answers';
import type { Fill, RouteDefinition, Write } from '../route/definition';
import { asAnswer, asWanted, belonging, nameMatch, type Answer, type SeenField, type Wanted } from './answer-names';
import { finishing } from './suggested-finishers';
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
  const answers = seen.filter(({ filled }) => filled > 0).map(asAnswer);
  const elsewhere = fedElsewhere(others);
  return route.writes.flatMap((write) => {
    const elsewhereFed = new Set(route.writes.flatMap((other) => (other === write ? [] : [...usedAnswers(other)])));
    const found: Suggestion[] = [];
    for (const wanted of unfedFields(write, destination).map(asWanted))
      for (const answer of answers) {
        const suggestion = weigh(write, wanted, answer, elsewhere, destination);
        // What feeds another record already most likely belongs there alone.
        const least = elsewhereFed.has(answer.folded) && wanted.field.key !== 'domain' ? CERTAIN : WORTH;
        if (suggestion && suggestion.certainty >= least) found.push(suggestion);
      }
    return bestOfEach(found, usedAnswers(write));
  });
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
  elsewhere: ReadonlyMap<string, { fill: Fill; route: string }>,
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
  if (!named && !options && !other) return null;
  const certainty = Math.min(1, reasons.reduce((sum, { weight }) => sum + weight, 0) + belonging(field, answer));
  const fill = other?.fill ?? {
    field: field.key,
    value: { parts: [{ answer: seen.key }], ...finishing(field, answer, destination) },
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
