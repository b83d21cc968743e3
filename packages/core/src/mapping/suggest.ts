import type { Destination } from '../destination/destination';
import type { FieldDefinition } from '../destination/field-definition';
import { optionFor } from '../destination/field-value';
import type { RecordKind } from '../diff/record';
import { foldKey } from '../payload/profile';
import type { ValueKind } from '../payload/value-kind';
import type { Fill, FinisherUse, RouteDefinition, Write } from '../route/definition';
import type { DateOrder } from './reading/date-text';
import { SYNONYMS } from './synonyms';

/** What suggesting knows of a field that arrives. */
export interface SeenField {
  key: string;
  label: string;
  kind: ValueKind;
  filled: number;
  values: readonly { value: string; count: number }[];
  dateOrder: DateOrder | null;
}

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

interface Answer {
  seen: SeenField;
  /** The words of its label and key; the last segment of the key by itself. */
  words: ReadonlySet<string>;
  /** The last segment of its key, as it is and without punctuation. */
  last: string;
  name: string;
  labelName: string;
  /** Its key, however it is written; see `foldKey`. */
  folded: string;
  /** What the objects around it are about, as in `business.name`. */
  about: 'company' | 'contact' | null;
}

function asAnswer(seen: SeenField): Answer {
  const path = seen.key.split('.');
  const last = path.pop()!.replace(/\[\d+\]$/, '');
  const around = path.flatMap(wordsOf);
  const isAbout = (words: ReadonlySet<string>) => around.some((word) => words.has(word));
  const about = isAbout(COMPANY_WORDS) ? 'company' : isAbout(CONTACT_WORDS) ? 'contact' : null;
  return {
    seen,
    words: new Set([...wordsOf(seen.label), ...wordsOf(last)]),
    last,
    name: plainName(last),
    labelName: plainName(seen.label),
    folded: foldKey(seen.key),
    about,
  };
}

/** A field with the names that it goes by. */
interface Wanted {
  field: FieldDefinition;
  names: readonly string[];
  words: readonly string[];
  also: readonly string[];
}

function asWanted(field: FieldDefinition): Wanted {
  return {
    field,
    names: [plainName(field.label), plainName(field.key)],
    words: wordsOf(field.label),
    also: SYNONYMS[`${field.record} ${field.key}`] ?? [],
  };
}

const COMPANY_WORDS = new Set(
  'company business organisation organization firm employer account bedrijf firma'.split(' '),
);
/** Words that stand in the names of many fields. */
const GENERIC_WORDS = new Set(['name', 'naam', 'contact', 'email', 'mail']);
const CONTACT_WORDS = new Set('contact person applicant customer people user respondent visitor'.split(' '));

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
    write.fills.flatMap(({ value }) => value.parts.flatMap((part) => ('answer' in part ? [foldKey(part.answer)] : []))),
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

/** Whether it stands among what belongs to the record, or to another. */
function belonging({ record }: FieldDefinition, { about }: Answer): number {
  if (about === null || (record !== 'company' && record !== 'contact')) return 0;
  return about === record ? 0.1 : -0.4;
}

function nameMatch(wanted: Wanted, answer: Answer): { weight: number; text: string } | null {
  const { field, names, also } = wanted;
  const { words, name, labelName, last, seen, about } = answer;
  // “Name” alone is a person’s, unless it stands among what belongs to a company.
  if (field.record === 'company' && field.key === 'name' && name === 'name' && about !== 'company') return null;
  if (names.includes(name) || names.includes(labelName)) return { weight: 0.6, text: 'it has the same name' };
  if (also.includes(name) || also.includes(labelName))
    return { weight: 0.55, text: `“${seen.label === seen.key ? last : seen.label}” is another word for it` };
  const shared = wanted.words.filter((word) => words.has(word));
  const synonym = also.find((one) => one.length > 3 && !GENERIC_WORDS.has(one) && words.has(one));
  if (synonym) return { weight: 0.4, text: `“${synonym}” stands in its name` };
  if (!shared.length) return null;
  const share = shared.length / Math.max(wanted.words.length, 1);
  return { weight: 0.25 + 0.25 * share, text: `both names have “${shared.join(' ')}”` };
}

const KIND_WORDS: Record<ValueKind, string> = {
  email: 'e-mail addresses',
  phone: 'phone numbers',
  web: 'web addresses',
  date: 'dates',
  'date-time': 'times',
  money: 'amounts of money',
  'whole-number': 'whole numbers',
  decimal: 'numbers',
  'yes-no': 'yes and no',
  country: 'countries',
  id: 'ids',
  list: 'lists',
  'long-text': 'messages',
  text: 'short texts',
};

/** How well what arrives fits the type of a field: `well` says something, `perhaps` nothing, `never` rules it out. */
function kindFits(field: FieldDefinition, { kind }: SeenField): 'well' | 'perhaps' | 'never' {
  if (field.key === 'domain') return kind === 'email' || kind === 'web' ? 'well' : 'never';
  if (field.key === 'country') return kind === 'country' ? 'well' : kind === 'text' ? 'perhaps' : 'never';
  switch (field.type) {
    case 'email':
    case 'web':
      return kind === field.type ? 'well' : 'never';
    case 'phone':
      return kind === 'phone' ? 'well' : kind === 'whole-number' || kind === 'text' ? 'perhaps' : 'never';
    case 'whole-number':
    case 'decimal':
      return kind === 'whole-number' || kind === 'decimal' ? 'well' : kind === 'text' ? 'perhaps' : 'never';
    case 'money':
      return kind === 'money' ? 'well' : kind === 'whole-number' || kind === 'decimal' ? 'perhaps' : 'never';
    case 'date':
    case 'date-time':
      return kind === 'date' || kind === 'date-time' ? 'well' : 'never';
    case 'yes-no':
      return kind === 'yes-no' ? 'well' : 'never';
    case 'long-text':
      return kind === 'long-text' ? 'well' : kind === 'text' || kind === 'list' ? 'perhaps' : 'never';
    case 'one-of':
    case 'several-of':
    case 'person':
      return kind === 'text' || kind === 'list' || kind === 'whole-number' ? 'perhaps' : 'never';
    case 'text':
      return kind === 'long-text' ? 'never' : 'perhaps';
  }
}

/** How many of the values that came name an option of the field. */
function optionOverlap(field: FieldDefinition, { values }: SeenField): { weight: number; text: string } | null {
  if (!field.options?.length || !values.length) return null;
  const matching = values.filter(({ value }) => optionFor(field.options!, value));
  if (matching.length < Math.min(2, values.length)) return null;
  const share = matching.length / values.length;
  return share < 0.5
    ? null
    : { weight: 0.5 * share, text: `${matching.length} of ${values.length} values name its options` };
}

/** The finishers that what arrives usually needs for a field. */
function finishing(
  field: FieldDefinition,
  answer: Answer,
  { defaultCountry }: Destination,
): { finishers?: FinisherUse[] } {
  const uses = usesFor(field, answer, defaultCountry);
  return uses.length ? { finishers: uses } : {};
}

function usesFor(field: FieldDefinition, { seen, name, labelName }: Answer, country: string): FinisherUse[] {
  if (field.key === 'domain') return [{ use: 'company-domain' }];
  if (field.key === 'country') return [{ use: 'country' }];
  if (field.key === 'first_name' || field.key === 'last_name') {
    const own = field.key === 'first_name' ? 'given' : 'family';
    const isWhole = WHOLE_NAMES.has(name) || WHOLE_NAMES.has(labelName);
    return [isWhole ? { use: 'split-name', with: { part: own } } : { use: 'trim' }, { use: 'name-case' }];
  }
  if (field.key === 'full_name') return [{ use: 'trim' }, { use: 'collapse' }, { use: 'name-case' }];
  switch (field.type) {
    case 'email':
      return [{ use: 'email' }];
    case 'phone':
      return [{ use: 'phone', with: { country } }];
    case 'web':
      return [{ use: 'web-address' }];
    case 'whole-number':
    case 'decimal':
      return seen.kind === 'text' ? [{ use: 'number' }] : [];
    case 'money':
      return [{ use: 'money' }];
    case 'date':
      return [
        {
          use: 'date',
          ...(seen.dateOrder ? { with: { order: seen.dateOrder === 'day-first' ? 'day first' : 'month first' } } : {}),
        },
      ];
    case 'yes-no':
      return [{ use: 'yes-no' }];
    case 'long-text':
      return [{ use: 'whole-text' }];
    case 'text':
      return [{ use: 'trim' }];
    default:
      return [];
  }
}

const WHOLE_NAMES = new Set([
  'name',
  'fullname',
  'yourname',
  'naam',
  'uwnaam',
  'contact',
  'contactname',
  'ihrname',
  'nom',
  'nombre',
]);

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

function wordsOf(text: string): string[] {
  return text
    .replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2')
    .toLowerCase()
    .split(/[^\p{L}\p{Nd}]+/u)
    .filter((word) => word.length > 1 && !EMPTY_WORDS.has(word));
}

const EMPTY_WORDS = new Set([
  'the',
  'your',
  'you',
  'of',
  'a',
  'an',
  'is',
  'are',
  'what',
  'which',
  'do',
  'for',
  'to',
  'in',
  'de',
  'het',
  'uw',
  'je',
  'van',
  'der',
  'die',
  'das',
  'ihr',
  'ihre',
  'le',
  'la',
  'votre',
  'please',
]);

function plainName(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{M}\p{Nd}]+/gu, '');
}
