import { isJsonObject, type JsonObject, type JsonValue } from '../json';
import { listedAnswer } from './answer-list';
import { remembered } from '../remembered';
import { foldKey, foldSegment, parseKey } from './key';
import { readingOf, type PayloadField } from './reading';

/**
 * Every field of a payload in the order it was sent, however deep and however it is written down; reserved names are
 * left out, and so are definitions of questions that are answered elsewhere in the payload.
 */
export function payloadFields(payload: JsonObject): PayloadField[] {
  return readingOf(payload).fields;
}

/**
 * What stands under a key, or `undefined` when nothing does. Only what the payload itself holds is found. A name that is
 * not there as it is written is found where it differs only in capitals, spaces or punctuation.
 */
export function answerAt(payload: JsonObject, key: string): JsonValue | undefined {
  if (Object.hasOwn(payload, key) && isPlain(key, payload[key]!)) return payload[key];
  const reading = readingOf(payload);
  const read = reading.byKey.get(key);
  if (read) return read.value;
  const alike = folded(key);
  const written = reading.fields.find((field) => folded(field.key) === alike);
  if (written) return written.value;
  const way = parseKey(key);
  if (!way) return undefined;
  return valueAt(payload, way) ?? (reading.document === payload ? undefined : valueAt(reading.document, way));
}

/** Remembered, since the same keys come with every submission. */
const folded = remembered(foldKey);

/** Whether a property is a field of its own by its name: no key of something deeper, and nothing to read in its value. */
function isPlain(key: string, value: JsonValue): boolean {
  return !/[.[\]"]/.test(key) && (typeof value !== 'object' || value === null) && !/^[[{]/.test(String(value));
}

function valueAt(document: JsonObject, way: readonly (string | number)[]): JsonValue | undefined {
  let value: JsonValue | undefined = document;
  for (const segment of way) {
    if (typeof segment === 'number') value = Array.isArray(value) ? value[segment] : undefined;
    else if (Array.isArray(value)) value = listedAnswer(value, segment)?.value;
    else value = isJsonObject(value) ? ownValue(value, segment) : undefined;
    if (value === undefined) return undefined;
  }
  return value;
}

function ownValue(object: JsonObject, name: string): JsonValue | undefined {
  if (Object.hasOwn(object, name)) return object[name];
  const wanted = foldSegment(name);
  const alike = wanted && Object.keys(object).find((other) => foldSegment(other) === wanted);
  return alike ? object[alike] : undefined;
}
