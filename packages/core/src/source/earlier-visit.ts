import { isJsonObject, type JsonValue } from '../json';

/** The most earlier visits that are read; the latest ones. */
export const MOST_EARLIER = 20;
/** Older visits are ignored: the visitor's clock must be wrong. */
const LONGEST_AGO_MS = 2 * 365 * 86_400_000;
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** Reads earlier visits, a list or its JSON text. Entries without a valid id or time are left out. */
export function readEarlierVisits<Visit>(
  given: JsonValue | undefined,
  readOne: (handedOver: JsonValue) => Visit,
): { id: string; at: string; visit: Visit }[] {
  const list = typeof given === 'string' ? parsed(given) : given;
  if (!Array.isArray(list)) return [];
  return list.slice(-MOST_EARLIER).flatMap((one) => {
    if (!isJsonObject(one)) return [];
    const { id, at } = one;
    if (typeof id !== 'string' || !UUID.test(id) || typeof at !== 'string' || Number.isNaN(Date.parse(at))) return [];
    return [{ id: id.toLowerCase(), at: new Date(at).toISOString(), visit: readOne(one) }];
  });
}

/** The visits with a time before a moment and not too long ago. A visitor's clock may be wrong. */
export function visitsBefore<One extends { at: string }>(earlier: readonly One[], moment: string): One[] {
  const end = Date.parse(moment);
  return earlier.filter(({ at }) => Date.parse(at) < end && Date.parse(at) > end - LONGEST_AGO_MS);
}

function parsed(text: string): JsonValue {
  try {
    return JSON.parse(text) as JsonValue;
  } catch {
    return null;
  }
}
