import type { JsonObject } from '../json';
import { plainName, plainWords } from '../reading/plain-name';
import { FILLERS, NAME_WORDS, SYNONYMS } from '../reading/synonyms';
import { answerText } from './answer-text';
import { remembered } from '../remembered';
import { shorten } from '../text';
import { payloadFields } from './fields';
import { foldKey, parseKey } from './key';
import { valueKind } from './value-kind';

const COMPANY = SYNONYMS['company name']!;
const WHOLE = new Set([...NAME_WORDS.whole, ...SYNONYMS['lead name']!]);
const EMAIL = new Set(SYNONYMS['contact email']!);
/** What has a name too, and is no person. */
const THINGS = new Set([...COMPANY, 'file', 'event', 'product', 'form', 'page', 'campaign', 'works']);
/** Fields that are looked at. */
const MOST = 500;

/** What a field is called: whole, and by its last words alone, as in `applicant_first_name`. */
interface Called {
  names: readonly string[];
  endings: readonly string[];
  /** Whether it is the name of something: `company.name`, `file_name`. */
  ofThing: boolean;
}

/**
 * Who a payload seems to come from, for showing in lists: by what its fields are called and ask for, and by what looks
 * like an address; `''` where nothing tells. Routes never use this.
 *
 * @param names What some fields are known to be, by their keys: as people named them, or as a route takes them. They go first.
 */
export function whoSent(
  payload: JsonObject,
  names: Readonly<Record<string, string>> = {},
): { who: string; email: string } {
  const known = new Map(Object.entries(names).map(([key, name]) => [foldKey(key), name]));
  const fields = payloadFields(payload)
    .slice(0, MOST)
    .map((field) => ({ ...field, known: known.size ? known.get(foldKey(field.key)) : undefined }));
  const told = [...fields.filter((field) => field.known), ...fields.filter((field) => !field.known)]
    .map(({ key, label = '', value, known: name }) => ({
      text: answerText(value).trim(),
      value,
      isKnown: name !== undefined,
      ...called(name ? `\n${name}` : `${key}\n${label}`),
    }))
    .filter(({ text }) => text !== '');
  const first = (wanted: ReadonlySet<string>, among = told) =>
    (
      among.find(({ names }) => names.some((name) => wanted.has(name))) ??
      among.find(({ endings }) => endings.some((end) => wanted.has(end)))
    )?.text;
  const people = told.filter(({ ofThing }) => !ofThing);
  const addresses = told.filter(({ value }) => valueKind(value) === 'email');
  const email = first(EMAIL, addresses) ?? addresses[0]?.text ?? '';
  const given = first(NAME_WORDS.first, people);
  const family = first(NAME_WORDS.last, people);
  // A part of a name that is known goes before a whole one that only seems to be one.
  const sure = people.filter(({ isKnown }) => isKnown);
  const hasPart = first(NAME_WORDS.first, sure) !== undefined || first(NAME_WORDS.last, sure) !== undefined;
  const whole = first(WHOLE, hasPart ? sure : people);
  const parts = given !== undefined && family !== undefined ? `${given} ${family}` : (whole ?? given ?? family ?? '');
  return { who: shorten(parts, 120), email: shorten(email, 120) };
}

/** Longer keys and questions are known by their beginning. */
const LONGEST = 200;

/** Remembered, since the same few fields come with every submission. */
const called = remembered((keyAndLabel): Called => {
  const [key, label] = keyAndLabel.split('\n').map((text) => text.slice(0, LONGEST)) as [string, string];
  const way = (parseKey(key) ?? [key]).filter((segment) => typeof segment === 'string');
  const last = way.at(-1) ?? '';
  const own = plainWords(last);
  const asked = plainWords(label).filter((word) => !FILLERS.has(word));
  // `preferred_contact` and `size_of_family` end in words for names, and are none.
  const endings = own.map((_, from) => own.slice(from).join('')).filter((ending) => /name|naam/.test(ending));
  const before = way.flatMap(plainWords).at(-2) ?? '';
  return {
    names: [
      plainName(last),
      plainName(label),
      asked.join(''),
      own.filter((word) => !FILLERS.has(word)).join(''),
    ].filter(Boolean),
    endings,
    ofThing: label === '' && THINGS.has(before),
  };
});
