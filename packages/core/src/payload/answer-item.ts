import { isJsonObject, type JsonObject, type JsonValue } from '../json';
import {
  ABOUT,
  ANSWERS,
  folded,
  IDS,
  INNER,
  isScalar,
  isScalarOrNull,
  LABELS,
  OPTIONS,
  QUESTIONS,
  scalarText,
  VALUES,
} from './answer-words';
import { optionsOf, withOptionLabels } from './option-labels';

/** A question with what was answered to it, as one object says it. */
export interface AnswerItem {
  /** `''` where it gives only an id. */
  label: string;
  id: string;
  /** `undefined` where the object asks and answers nothing. */
  value: JsonValue | undefined;
  /** From the object to the value. */
  way: (string | number)[];
  /** What else it holds. */
  more: [property: string, value: JsonValue][];
}

/** Whether the objects of a list or map hold both a text and an answer: then the text is the question. */
export function asksByText(items: readonly JsonObject[]): boolean {
  return items.some((item) => {
    const words = Object.keys(item).map(folded);
    return words.includes('text') && words.some((word) => ANSWERS.has(word));
  });
}

/**
 * One object as question and answer. `null` where it has properties that belong to neither, unless it holds a question
 * and an answer by their very names.
 *
 * @param byText See `asksByText`.
 */
export function readItem(item: JsonObject, byText = false): AnswerItem | null {
  if (byText) return readItemAnew(item, true);
  let read = items.get(item);
  if (read === undefined) {
    read = readItemAnew(item, false);
    items.set(item, read);
  }
  return read;
}

/** Remembered, since each object is asked for from the list, the object and the answer around it. */
const items = new WeakMap<JsonObject, AnswerItem | null>();

function readItemAnew(item: JsonObject, byText: boolean): AnswerItem | null {
  const found: AnswerItem = { label: '', id: '', value: undefined, way: [], more: [] };
  const type = typeOf(item);
  let name = '';
  let [asks, answers] = [false, false];
  const answered = (property: string, value: JsonValue) => {
    if (found.value !== undefined && found.value !== null) return;
    const inner = unwrapped(value, type);
    found.value = inner.value;
    found.way = [property, ...inner.way];
  };
  const properties = Object.entries(item).map(([property, value]) => ({ property, value, word: folded(property) }));
  // What is an answer by its very name goes before what may be one.
  for (const { property, value, word } of properties)
    if (ANSWERS.has(word) || word === type) {
      answered(property, value);
      answers = true;
    }
  for (const { property, value, word } of properties) {
    if (ANSWERS.has(word) || word === type) continue;
    if (QUESTIONS.has(word) && isJsonObject(value)) {
      const question = questionOf(value);
      found.label ||= question.label;
      found.id ||= question.id;
      asks = true;
    } else if (word === 'name' && isScalar(value)) name = scalarText(value);
    else if ((LABELS.has(word) || (byText && word === 'text')) && isScalar(value)) {
      found.label ||= scalarText(value);
      asks = true;
    } else if (IDS.has(word) && isScalar(value)) found.id ||= scalarText(value);
    else if (OPTIONS.has(word) && answers && typeof value === 'object') continue;
    else if (VALUES.has(word)) answered(property, value);
    else if (!ABOUT.has(word)) found.more.push([property, value]);
  }
  if (found.more.length && !(asks && answers)) return null;
  if (!found.label) found.label = name;
  else if (!found.id) found.id = name;
  if (found.value !== undefined) found.value = withOptionLabels(found.value, optionsOf(item));
  return found.label || found.id || found.value !== undefined ? found : null;
}

function typeOf(item: JsonObject): string | undefined {
  const type = item.type ?? item.kind;
  return typeof type === 'string' ? folded(type) : undefined;
}

/** The question that an object is about, and its id; `''` where it has none. */
export function questionOf(question: JsonObject): { label: string; id: string } {
  let [label, id, text] = ['', '', ''];
  for (const property in question) {
    const value = question[property];
    if (!isScalar(value)) continue;
    const word = folded(property);
    if (LABELS.has(word)) label ||= scalarText(value);
    else if (IDS.has(word)) id ||= scalarText(value);
    else if (word === 'text') text ||= scalarText(value);
  }
  return { label: label || text, id };
}

/** A value without what the sender wraps it in, and the way to it. */
interface Unwrapped {
  value: JsonValue;
  way: (string | number)[];
}

/** What an answer says where the sender wraps it, as in `{"text": "Ada"}` or `[{"label": "Moss"}, {"label": "Fern"}]`. */
export function unwrapped(value: JsonValue, type = ''): Unwrapped {
  if (value === null || typeof value !== 'object') return { value, way: [] };
  let byType = inner.get(value);
  if (!byType) inner.set(value, (byType = new Map()));
  let found = byType.get(type);
  if (!found) byType.set(type, (found = Array.isArray(value) ? itemsOf(value, type) : innerOf(value, type)));
  return found;
}

/** Remembered, since what is wrapped in wrappers is asked for from each of them. */
const inner = new WeakMap<JsonValue[] | JsonObject, Map<string, Unwrapped>>();

function itemsOf(list: JsonValue[], type: string): Unwrapped {
  if (holdsQuestions(list)) return { value: list, way: [] };
  const plain = list.map((item) => (isJsonObject(item) ? unwrapped(item, type).value : item));
  return { value: plain.every(isScalarOrNull) ? plain : list, way: [] };
}

function innerOf(object: JsonObject, type: string): Unwrapped {
  const byWord = new Map<string, string>();
  for (const property in object) {
    const word = folded(property);
    if (!INNER.has(word) && !ABOUT.has(word) && !IDS.has(word) && word !== type) return { value: object, way: [] };
    if (!byWord.has(word)) byWord.set(word, property);
  }
  for (const wanted of INNER) {
    const found = innerAt(object, byWord.get(wanted), type);
    if (found) return found;
  }
  return innerAt(object, byWord.get(type), type) ?? { value: byWord.size ? null : object, way: [] };
}

function innerAt(object: JsonObject, property: string | undefined, type: string): Unwrapped | null {
  const value = property === undefined ? null : (object[property] ?? null);
  if (value === null || value === '') return null;
  const within = unwrapped(value, type);
  return { value: within.value, way: [property!, ...within.way] };
}

/** Whether a list inside an answer has questions of its own, and is not the choices that were made. */
function holdsQuestions(list: readonly JsonValue[]): boolean {
  const known = asked.get(list);
  if (known !== undefined) return known;
  const holds = looksAsking(list);
  asked.set(list, holds);
  return holds;
}

/** Remembered, since each list within lists is asked for from all that are around it. */
const asked = new WeakMap<readonly JsonValue[], boolean>();

function looksAsking(list: readonly JsonValue[]): boolean {
  const items = list.map((item) => (isJsonObject(item) ? readItem(item) : null));
  return (
    items.every((item) => item !== null) &&
    items.some((item) => item.value !== undefined && folded(item.label) !== folded(String(item.value)))
  );
}
