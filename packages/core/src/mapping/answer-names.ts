import type { FieldDefinition } from '../field/field-definition';
import { foldKey, parseKey } from '../payload/key';
import type { ValueKind } from '../payload/value-kind';
import type { DateOrder } from '../reading/date-text';
import { plainName, plainWords } from '../reading/plain-name';
import { FILLERS, SYNONYMS } from '../reading/synonyms';

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
  /** The words of its label and key. */
  words: ReadonlySet<string>;
  /** The last segment of its key, as it is. */
  last: string;
  /** All that it may be called, plain: its key and label, each also without what stands around the name. */
  names: ReadonlySet<string>;
  /** What its label, or else its key, asks for, without filling words. */
  content: readonly string[];
  /** Its key, however it is written; see `foldKey`. */
  folded: string;
  /** What the objects around it are about, as in `business.name`; a thing is neither. */
  about: 'company' | 'contact' | 'thing' | null;
}

/** The fields that arrive, with the names that they go by. */
export function asAnswers(seen: readonly SeenField[]): Answer[] {
  const first = seen.map(({ key }) => plainWords(lastOf(key))[0]);
  const shared = (word: string) =>
    seen.length >= LEAST_SHARING && first.filter((other) => other === word).length >= seen.length * MOSTLY_SHARED;
  return seen.map((field) => asAnswer(field, shared));
}

/** From how many fields on, and in what share of them, the same first word is no part of their names. */
const [LEAST_SHARING, MOSTLY_SHARED] = [4, 0.6];

function asAnswer(seen: SeenField, isShared: (word: string) => boolean): Answer {
  const path = (parseKey(seen.key) ?? [seen.key]).filter((segment) => typeof segment === 'string');
  const last = path.pop() ?? seen.key;
  const around = path.flatMap(plainWords);
  const isAbout = (wanted: ReadonlySet<string>) => around.some((word) => wanted.has(word));
  const own = plainWords(last);
  // `FRM_EMAIL` among others that begin so, and `q4_email`, are called `email`.
  while (own.length > 1 && (isShared(own[0]!) || isNumbering(own[0]!))) own.shift();
  const ofLabel = plainWords(seen.label === seen.key ? '' : seen.label);
  const contents = [own, ofLabel].map((all) => all.filter((word) => !FILLERS.has(word)));
  const names = [plainName(last), plainName(seen.label), own.join(''), ...contents.map((all) => all.join(''))];
  const about = isAbout(COMPANY_WORDS)
    ? 'company'
    : isAbout(CONTACT_WORDS)
      ? 'contact'
      : !ofLabel.length && isAbout(THING_WORDS)
        ? 'thing'
        : null;
  return {
    seen,
    words: new Set([...own, ...ofLabel].filter((word) => word.length > 1 && !FILLERS.has(word))),
    last,
    names: new Set(names.filter(Boolean)),
    content: ofLabel.length ? contents[1]! : contents[0]!,
    folded: foldKey(seen.key),
    about,
  };
}

function lastOf(key: string): string {
  return (parseKey(key) ?? [key]).filter((segment) => typeof segment === 'string').at(-1) ?? key;
}

/** `q4`, `field_12`, `input3` and the like before a name. */
function isNumbering(word: string): boolean {
  return /^(?:q|f|field|input|box|col|question)?\d+$/.test(word);
}

/** A field with the names that it goes by. */
export interface Wanted {
  field: FieldDefinition;
  names: readonly string[];
  words: readonly string[];
  also: ReadonlySet<string>;
}

export function asWanted(field: FieldDefinition): Wanted {
  return {
    field,
    names: [plainName(field.label), plainName(field.key)],
    words: plainWords(field.label).filter((word) => word.length > 1 && !FILLERS.has(word)),
    also: synonymsOf(field),
  };
}

const synonymsOf = ({ record, key }: FieldDefinition): ReadonlySet<string> => SETS.get(`${record} ${key}`) ?? NONE;
const SETS = new Map(Object.entries(SYNONYMS).map(([field, words]) => [field, new Set(words)]));
const NONE: ReadonlySet<string> = new Set();

const COMPANY_WORDS = new Set(
  'company business organisation organization firm employer bedrijf firma unternehmen entreprise empresa azienda works'.split(
    ' ',
  ),
);
/** Words that stand in the names of many fields. */
const GENERIC_WORDS = new Set(['name', 'naam', 'contact', 'email', 'mail']);
const CONTACT_WORDS = new Set(
  'contact person applicant customer people user respondent visitor guest client lead attendee'.split(' '),
);
/** What has a name and a title too, and is nobody. */
const THING_WORDS = new Set(
  'form event campaign product items line lines page file definition meta plan workspace structure site advert booking included'.split(
    ' ',
  ),
);

/** Whether it stands among what belongs to the record, or to another. */
export function belonging({ record, key, type }: FieldDefinition, { about, names }: Answer): number {
  if (about === 'thing') return type === 'text' ? -0.6 : 0;
  if (about === null || (record !== 'company' && record !== 'contact')) return 0;
  if (about === record) return 0.1;
  // `contact.company` and `business.role` say by themselves whose they are.
  const isOwn = key === 'job_title' || (record === 'company' && key === 'name' && !names.has('name'));
  return isOwn ? 0 : -0.4;
}

/** How much the names of a field and of an answer say for each other, and why; `null` where they say nothing. */
export function nameMatch(wanted: Wanted, answer: Answer): { weight: number; text: string } | null {
  const { field, names, also } = wanted;
  const { words, content, last, seen, about } = answer;
  const called = seen.label === seen.key ? last : seen.label;
  const isCalled = (name: string) => answer.names.has(name);
  // “Name” alone is a person’s, unless it stands among what belongs to a company.
  if (field.record === 'company' && field.key === 'name' && isCalled('name') && about !== 'company') return null;
  if (names.some(isCalled)) return { weight: 0.6, text: 'it has the same name' };
  if ([...answer.names].some((name) => also.has(name)))
    return { weight: 0.55, text: `“${called}” is another word for it` };
  // `Which school or company do you work for?` asks for nothing else.
  if (content.length > 0 && content.every((word) => also.has(word) && !GENERIC_WORDS.has(word)))
    return { weight: 0.55, text: `“${called}” asks for it` };
  const shared = wanted.words.filter((word) => words.has(word));
  if (shared.length > 1 && shared.length === wanted.words.length)
    return { weight: 0.55, text: `“${called}” asks for it` };
  const synonym = [...words].find((word) => word.length > 3 && !GENERIC_WORDS.has(word) && also.has(word));
  if (synonym) return { weight: 0.4, text: `“${synonym}” is in its name` };
  if (!shared.length) return null;
  const share = shared.length / Math.max(wanted.words.length, 1);
  return { weight: 0.25 + 0.25 * share, text: `both names have “${shared.join(' ')}”` };
}
