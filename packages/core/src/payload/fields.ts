import { isJsonObject, jsonPointer, type JsonObject, type JsonValue } from '../json';
import { listedAnswer, listedAnswers } from './answer-list';
import { extendKey, foldSegment, parseKey } from './key';

/**
 * One value found in a payload. Objects and lists are walked into, so a value is a scalar, or a list of them where it
 * answers one question of a list of answers.
 */
export interface PayloadField {
  /** How a route names it; see `fieldKey`. */
  key: string;
  /** The question in the sender's words, where it came with the answer. */
  label?: string;
  /** Where it stands, as a JSON Pointer (RFC 6901). */
  pointer: string;
  value: string | number | boolean | null | (string | number | boolean | null)[];
}

/** Names that carry something about the visit or the posting, not an answer. */
export const RESERVED_NAMES: ReadonlySet<string> = new Set([
  '_visit',
  '_once',
  '_not_asked',
  '_opened',
  '_leave_blank',
]);

/** The most levels and fields a payload may have; more is refused on arrival. */
export const PAYLOAD_LIMITS = { depth: 200, fields: 10_000 } as const;

/** Every field of a payload in the order it was sent, however deep; reserved names are left out. */
export function payloadFields(payload: JsonObject): PayloadField[] {
  const fields: PayloadField[] = [];
  const walk = (value: JsonValue, key: string, way: readonly (string | number)[], label?: string): void => {
    const named = label ? { label } : {};
    if (Array.isArray(value)) {
      const answers = listedAnswers(value);
      if (answers)
        for (const one of answers) walk(one.value, extendKey(key, one.name), [...way, ...one.way], one.label);
      else if (label !== undefined && value.every(isScalar))
        fields.push({ key, ...named, pointer: jsonPointer(way), value });
      else value.forEach((item, index) => walk(item, extendKey(key, index), [...way, index]));
    } else if (isJsonObject(value)) {
      for (const name of Object.keys(value)) {
        if (way.length === 0 && RESERVED_NAMES.has(name)) continue;
        walk(value[name]!, extendKey(key, name), [...way, name]);
      }
    } else {
      fields.push({ key, ...named, pointer: jsonPointer(way), value });
    }
  };
  walk(payload, '', []);
  return fields;
}

/**
 * What stands under a key, or `undefined` when nothing does. Only what the payload itself holds is found. A name that is
 * not there as it is written is found where it differs only in capitals, spaces or punctuation.
 */
export function answerAt(payload: JsonObject, key: string): JsonValue | undefined {
  if (Object.hasOwn(payload, key) && !/[.[\]"]/.test(key)) return payload[key];
  const way = parseKey(key);
  if (!way) return undefined;
  let value: JsonValue | undefined = payload;
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

function isScalar(value: JsonValue): value is string | number | boolean | null {
  return value === null || typeof value !== 'object';
}

/** How large a payload is, without recursion, so that no depth can hurt: stops counting at the limits. */
export function payloadSize(payload: JsonValue): { depth: number; fields: number } {
  let depth = 0;
  let fields = 0;
  let level: JsonValue[] = [payload];
  while (level.length && depth <= PAYLOAD_LIMITS.depth && fields <= PAYLOAD_LIMITS.fields) {
    const next: JsonValue[] = [];
    for (const value of level) {
      if (value === null || typeof value !== 'object') fields += 1;
      else for (const child of Object.values(value)) next.push(child);
    }
    if (next.length) depth += 1;
    level = next;
  }
  return { depth, fields };
}
