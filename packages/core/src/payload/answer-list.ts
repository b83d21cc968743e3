import { isJsonObject, type JsonValue } from '../json';
import { trimWhere } from '../text';
import { asksByText, readItem, type AnswerItem } from './answer-item';

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
  /** What else stands beside the answer. */
  more: [property: string, value: JsonValue][];
}

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
  if (!list.length || !list.every(isJsonObject)) return null;
  const byText = asksByText(list);
  const items: AnswerItem[] = [];
  for (const [index, value] of list.entries()) {
    const item = readItem(value, byText);
    if (!item || (!item.label && !item.id)) return null;
    items.push({ ...item, way: [index, ...item.way] });
  }
  if (items.every(({ value }) => value === undefined)) return null;
  return withNames(merged(items));
}

/** Several items of one question are one answer with a list. */
function merged(items: readonly AnswerItem[]): AnswerItem[] {
  const byQuestion = new Map<string, AnswerItem>();
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

function withNames(items: readonly AnswerItem[]): ListedAnswer[] {
  const named = uniqueNames(items.map(({ label, id }) => nameFrom(label) || nameFrom(id)));
  return items.map(({ value = null, ...item }, index) => ({ ...item, name: named[index]!, value }));
}

/** Names that tell answers apart: blank ones by their place, those that stand twice by a number. */
export function uniqueNames(names: readonly string[]): string[] {
  const taken = new Map<string, number>();
  return names.map((name, index) => {
    const plain = name || `answer_${index + 1}`;
    const times = (taken.get(plain) ?? 0) + 1;
    taken.set(plain, times);
    return times === 1 ? plain : `${plain}_${times}`;
  });
}

/** Names are made of the beginning of a question. */
const LONGEST_LABEL = 1_000;

/** A question as a key: letters and digits in small letters, joined by `_`. */
export function nameFrom(text: string): string {
  const isJoint = (character: string) => character === '_';
  const words = text
    .slice(0, LONGEST_LABEL)
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{M}\p{Nd}]+/gu, '_');
  return trimWhere(trimWhere(words, isJoint).slice(0, 60), isJoint, 'end');
}
