import { isJsonObject, type JsonObject, type JsonValue } from '../json';
import { asksByText, readItem, type AnswerItem } from './answer-item';
import { folded, IDS, isScalar, VALUES } from './answer-words';

/**
 * The answers of an object that holds one answer to a property, such as `{"q1": {"label": "Your name", "value": "Ada"}}`
 * or `{"name": {"S": "Ada"}, "mail": {"S": "ada@weir.example"}}`; `null` for any other. Properties that are no objects
 * are left as they are.
 */
export function mappedAnswers(object: JsonObject): Map<string, AnswerItem> | null {
  const entries = Object.entries(object).filter((entry): entry is [string, JsonObject] => isJsonObject(entry[1]));
  if (!entries.length) return null;
  return byOneTag(entries) ?? byItems(entries);
}

function byItems(entries: readonly [string, JsonObject][]): Map<string, AnswerItem> | null {
  const byText = asksByText(entries.map(([, value]) => value));
  const answers = new Map<string, AnswerItem>();
  let answered = 0;
  let labelled = false;
  for (const [property, value] of entries) {
    const item = readItem(value, byText);
    if (!item) return null;
    const isSimple = isScalar(item.value) || isListOfScalars(item.value);
    if (!isSimple && !item.label) return null;
    if (item.value !== undefined) answered += 1;
    if (item.label) labelled = true;
    answers.set(property, item);
  }
  return answered >= 2 || (answered === 1 && labelled) ? answers : null;
}

/** Each holds its value under one and the same short name or word for values. */
function byOneTag(entries: readonly [string, JsonObject][]): Map<string, AnswerItem> | null {
  if (entries.length < 2) return null;
  const answers = new Map<string, AnswerItem>();
  for (const [property, value] of entries) {
    const [only, second] = Object.keys(value);
    if (only === undefined || second !== undefined || !isTag(only) || !isScalar(value[only])) return null;
    answers.set(property, { label: '', id: '', value: value[only], way: [only], more: [] });
  }
  return answers;
}

function isTag(name: string): boolean {
  const word = folded(name);
  return VALUES.has(word) || (/^[A-Z]{1,2}$/.test(name) && !IDS.has(word));
}

function isListOfScalars(value: JsonValue | undefined): boolean {
  return Array.isArray(value) && value.every(isScalar);
}
