/** Anything that JSON (RFC 8259) can say. */
export type JsonValue = string | number | boolean | null | JsonValue[] | JsonObject;
export interface JsonObject {
  [key: string]: JsonValue;
}

/** Whether a value is a JSON object: not a list, not null. */
export function isJsonObject(value: unknown): value is JsonObject {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/**
 * A JSON Pointer (RFC 6901) from its segments.
 *
 * @example jsonPointer(['a/b', 0]) // '/a~1b/0'
 */
export function jsonPointer(segments: readonly (string | number)[]): string {
  return segments.map((segment) => `/${String(segment).replace(/~/g, '~0').replace(/\//g, '~1')}`).join('');
}

/** Whether two JSON values say the same; the order of an object's keys does not count. */
export function sameJson(a: JsonValue | undefined, b: JsonValue | undefined): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) {
    return a.length === b.length && a.every((item, index) => sameJson(item, b[index]));
  }
  if (isJsonObject(a) && isJsonObject(b)) {
    const keys = Object.keys(a);
    return keys.length === Object.keys(b).length && keys.every((key) => key in b && sameJson(a[key], b[key]));
  }
  return false;
}

/** A value as JSON text in which the keys of each object stand in their order, so that the same is written the same. */
export function orderedJson(value: JsonValue): string {
  return JSON.stringify(value, (_, one: JsonValue) =>
    isJsonObject(one) ? Object.fromEntries(Object.entries(one).sort(([a], [b]) => (a < b ? -1 : 1))) : one,
  );
}

/** Returns whether a value nests deeper than so many levels. Walks level by level, so that no depth can hurt. */
export function isDeeper(value: unknown, most: number): boolean {
  let level = [value];
  for (let depth = 0; level.length; depth += 1) {
    if (depth > most) return true;
    level = level.flatMap((one) => (typeof one === 'object' && one !== null ? Object.values(one) : []));
  }
  return false;
}
