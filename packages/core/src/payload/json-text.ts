import type { JsonObject, JsonValue } from '../json';
import { PAYLOAD_LIMITS, payloadSize } from './payload-size';

/** The object or list that a text holds as JSON (RFC 8259), as forms send it in one field; `null` for any other text. */
export function jsonInText(text: string): JsonObject | JsonValue[] | null {
  const [first, last] = [text.trimStart()[0], text.trimEnd().at(-1)];
  if (!(first === '{' && last === '}') && !(first === '[' && last === ']')) return null;
  try {
    const value = JSON.parse(text) as JsonValue;
    if (typeof value !== 'object' || value === null) return null;
    const { depth, fields } = payloadSize(value);
    return depth <= PAYLOAD_LIMITS.depth && fields <= PAYLOAD_LIMITS.fields ? value : null;
  } catch {
    return null;
  }
}
