import type { FieldDefinition } from '../destination/field-definition';
import { foldKey } from '../payload/key';
import type { ValueKind } from '../payload/value-kind';
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

/** A field that arrives, with the names that it goes by. */
export interface Answer {
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

export function asAnswer(seen: SeenField): Answer {
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
export interface Wanted {
  field: FieldDefinition;
  names: readonly string[];
  words: readonly string[];
  also: readonly string[];
}

export function asWanted(field: FieldDefinition): Wanted {
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

/** Whether it stands among what belongs to the record, or to another. */
export function belonging({ record }: FieldDefinition, { about }: Answer): number {
  if (about === null || (record !== 'company' && record !== 'contact')) return 0;
  return about === record ? 0.1 : -0.4;
}

/** How much the names of a field and of an answer say for each other, and why; `null` where they say nothing. */
export function nameMatch(wanted: Wanted, answer: Answer): { weight: number; text: string } | null {
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
