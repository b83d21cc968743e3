import type { JsonObject } from '../json';
import { SYNONYMS } from '../mapping/synonyms';
import { answerText } from '../mapping/value';
import { remembered } from '../remembered';
import { shorten } from '../text';
import { payloadFields } from './fields';
import { foldSegment, parseKey } from './key';

const WHOLE = new Set([...SYNONYMS['contact full_name']!, ...SYNONYMS['lead name']!]);
const FIRST = partsOf('contact first_name');
const LAST = partsOf('contact last_name');
/** What has a name too, and is no person. */
const THINGS = new Set([...SYNONYMS['company name']!, 'file', 'event', 'product', 'form']);
const EMAIL = /e-?mail/i;
/** Fields that are looked at. */
const MOST = 500;

/** What a field is called: whole, and by its last words alone, as in `applicant_first_name`. */
interface Called {
  name: string;
  endings: readonly string[];
  /** Whether it is the name of something: `company.name`, `file_name`. */
  ofThing: boolean;
}

/** Who a payload seems to come from, for showing in lists; `''` where nothing tells. Routes never use this. */
export function whoSent(payload: JsonObject): { who: string; email: string } {
  const told = payloadFields(payload)
    .slice(0, MOST)
    .map(({ key, value }) => ({ key, text: answerText(value).trim(), ...called(key) }))
    .filter(({ text }) => text !== '');
  const first = (names: ReadonlySet<string>, among = told) =>
    (among.find(({ name }) => names.has(name)) ?? among.find(({ endings }) => endings.some((end) => names.has(end))))
      ?.text;
  const email = told.find(({ key, text }) => EMAIL.test(key) && text.includes('@'))?.text ?? '';
  const parts = [first(FIRST), first(LAST)].filter((part) => part !== undefined).join(' ');
  const whole = () =>
    first(
      WHOLE,
      told.filter(({ ofThing }) => !ofThing),
    );
  return { who: shorten(parts || whole() || '', 120), email: shorten(email, 120) };
}

/** Words for a part of a name alone. */
function partsOf(field: string): Set<string> {
  return new Set(SYNONYMS[field]!.filter((word) => !SYNONYMS['contact full_name']!.includes(word)));
}

/** Remembered, since the same few fields come with every submission. */
const called = remembered((key): Called => {
  const way = (parseKey(key) ?? [key]).filter((segment) => typeof segment === 'string');
  const last = way[way.length - 1] ?? '';
  const own = wordsOf(last);
  // `preferred_contact` and `size_of_family` end in words for names, and are none.
  const endings = own.map((_, from) => own.slice(from).join('')).filter((ending) => /name|naam/.test(ending));
  const before = way.flatMap(wordsOf).at(-2) ?? '';
  return { name: foldSegment(last), endings, ofThing: THINGS.has(before) };
});

/** `applicantFirst_name` is `applicant`, `first`, `name`. */
function wordsOf(name: string): string[] {
  return name
    .replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2')
    .split(/[^\p{L}\p{M}\p{Nd}]+/u)
    .map(foldSegment)
    .filter(Boolean);
}
