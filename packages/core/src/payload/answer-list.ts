import { isJsonObject, type JsonObject, type JsonValue } from '../json';
import { foldSegment } from './key';

/**
 * One answer of a list of answers, such as `[{"id": "q1", "title": "Your name", "value": "Ada"}]`: senders write the
 * question beside the answer, so the list is no list of things but a form.
 */
export interface ListedAnswer {
  /** What the answer is called within its list: the question in letters that need no quotes, or its id. */
  name: string;
  /** The question as the sender words it; `''` where it gives only ids. */
  label: string;
  id: string;
  value: JsonValue;
  /** From the list to the value; to the first, where one question was answered several times. */
  way: (string | number)[];
}

/** How the properties of an answer are called, without capitals and punctuation. */
const LABELS = nameSet(
  'label title question name caption prompt heading questiontext questiontitle fieldlabel fieldname',
);
const IDS = nameSet('id key ref slug code fieldid questionid qid uuid uid identifier variable fieldkey');
const VALUES = nameSet(
  'value values answer answers response responses text content selected choice choices selection data result reply val',
);
/** What holds the question where it is an object of its own. */
const QUESTIONS = nameSet('question field element property control item prompt q');
/** What says something about the answer and is none. */
const ABOUT = nameSet(
  'type kind required position order index sort page section description hint help options score points format datatype',
  'createdat updatedat answeredat timestamp status visible category group other',
);
/** What stands for the whole of an answer that is an object, the first that is there. */
const INNER = nameSet(
  'text value values label labels answer answers content title name url fileurl email number boolean date phonenumber',
);

const read = new WeakMap<readonly JsonValue[], ListedAnswer[] | null>();

/** The answers of a list that is one of answers, by question; `null` for any other list. */
export function listedAnswers(list: readonly JsonValue[]): ListedAnswer[] | null {
  const known = read.get(list);
  if (known !== undefined) return known;
  const answers = readList(list);
  read.set(list, answers);
  return answers;
}

/** The answer of a list that a key names: by its name, or by its id. */
export function listedAnswer(list: readonly JsonValue[], name: string): ListedAnswer | undefined {
  const answers = listedAnswers(list);
  return (
    answers?.find((answer) => answer.name === name) ?? answers?.find(({ id }) => id !== '' && nameFrom(id) === name)
  );
}

function readList(list: readonly JsonValue[]): ListedAnswer[] | null {
  if (!list.length) return null;
  const items: Item[] = [];
  for (const [index, value] of list.entries()) {
    const item = isJsonObject(value) ? readItem(value) : null;
    if (!item) return null;
    items.push({ ...item, way: [index, ...item.way] });
  }
  if (items.every(({ value }) => value === undefined)) return null;
  return withNames(merged(items));
}

interface Item {
  label: string;
  id: string;
  value: JsonValue | undefined;
  way: (string | number)[];
}

/** One item of a list as question and answer; `null` where it has properties that belong to neither. */
function readItem(item: JsonObject): Item | null {
  const found: Item = { label: '', id: '', value: undefined, way: [] };
  const type = typeof item.type === 'string' ? folded(item.type) : undefined;
  let name = '';
  for (const [property, value] of Object.entries(item)) {
    const word = folded(property);
    if (QUESTIONS.has(word) && isJsonObject(value)) {
      const question = questionOf(value);
      found.label ||= question.label;
      found.id ||= question.id;
    } else if (word === 'name' && isScalar(value)) name = scalarText(value);
    else if (LABELS.has(word) && isScalar(value)) found.label ||= scalarText(value);
    else if (IDS.has(word) && isScalar(value)) found.id ||= scalarText(value);
    else if (VALUES.has(word) || word === type) {
      if (found.value === undefined || found.value === null) {
        const inner = unwrapped(value, type);
        found.value = inner.value;
        found.way = [property, ...inner.way];
      }
    } else if (!ABOUT.has(word)) return null;
  }
  if (!found.label) found.label = name;
  else if (!found.id) found.id = name;
  return found.label || found.id ? found : null;
}

/** The question that an object is about, and its id; `''` where it has none. */
export function questionOf(question: JsonObject): { label: string; id: string } {
  const texts = Object.entries(question)
    .filter(([, value]) => isScalar(value))
    .map(([property, value]) => [folded(property), scalarText(value as string)] as const);
  const first = (wanted: ReadonlySet<string>) =>
    texts.find(([word, text]) => wanted.has(word) && text !== '')?.[1] ?? '';
  return { label: first(LABELS) || (texts.find(([word]) => word === 'text')?.[1] ?? ''), id: first(IDS) };
}

/** What an answer says where the sender wraps it, as in `{"text": "Ada"}` or `[{"label": "Moss"}, {"label": "Fern"}]`. */
function unwrapped(value: JsonValue, type: string | undefined): { value: JsonValue; way: (string | number)[] } {
  if (Array.isArray(value)) {
    if (holdsQuestions(value)) return { value, way: [] };
    const inner = value.map((item) => (isJsonObject(item) ? unwrapped(item, type).value : item));
    return { value: inner.every(isScalarOrNull) ? inner : value, way: [] };
  }
  if (!isJsonObject(value)) return { value, way: [] };
  const words = Object.keys(value).map((property) => [property, folded(property)] as const);
  const isWrapper = words.every(([, word]) => INNER.has(word) || ABOUT.has(word) || IDS.has(word) || word === type);
  if (!isWrapper) return { value, way: [] };
  for (const wanted of [...INNER, ...(type ? [type] : [])]) {
    const property = words.find(([, word]) => word === wanted)?.[0];
    const inner = property === undefined ? null : (value[property] ?? null);
    if (inner === null || inner === '') continue;
    const within = unwrapped(inner, type);
    return { value: within.value, way: [property!, ...within.way] };
  }
  return { value: words.length ? null : value, way: [] };
}

/** Whether a list inside an answer has questions of its own, and is not the choices that were made. */
function holdsQuestions(list: readonly JsonValue[]): boolean {
  const answers = listedAnswers(list);
  return answers?.some(({ label, value }) => foldSegment(label) !== foldSegment(String(value))) ?? false;
}

/** Several items of one question are one answer with a list. */
function merged(items: readonly Item[]): Item[] {
  const byQuestion = new Map<string, Item>();
  for (const item of items) {
    const question = item.id === '' ? `label ${item.label}` : `id ${item.id}`;
    const before = byQuestion.get(question);
    if (!before) byQuestion.set(question, item);
    else if (item.value !== undefined && item.value !== null)
      byQuestion.set(question, { ...before, value: [...listOf(before.value), ...listOf(item.value)] });
  }
  return [...byQuestion.values()];
}

function listOf(value: JsonValue | undefined): JsonValue[] {
  return value === undefined || value === null ? [] : [value].flat();
}

function withNames(items: readonly Item[]): ListedAnswer[] {
  const taken = new Map<string, number>();
  return items.map(({ label, id, value = null, way }, index) => {
    const plain = nameFrom(label) || nameFrom(id) || `answer_${index + 1}`;
    const times = (taken.get(plain) ?? 0) + 1;
    taken.set(plain, times);
    return { name: times === 1 ? plain : `${plain}_${times}`, label, id, value, way };
  });
}

/** A question as a key: letters and digits in small letters, joined by `_`. */
function nameFrom(text: string): string {
  return text
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{M}\p{Nd}]+/gu, '_')
    .replace(/^_+|_+$/g, '')
    .slice(0, 60)
    .replace(/_+$/, '');
}

function folded(property: string): string {
  return property.toLowerCase().replace(/[^a-z0-9]/g, '');
}

function isScalar(value: JsonValue): value is string | number | boolean {
  return value !== null && typeof value !== 'object';
}

function isScalarOrNull(value: JsonValue): boolean {
  return value === null || isScalar(value);
}

function scalarText(value: string | number | boolean): string {
  return String(value).trim();
}

function nameSet(...lists: string[]): ReadonlySet<string> {
  return new Set(lists.flatMap((list) => list.split(' ')));
}
