import { isJsonObject, type JsonObject, type JsonValue } from '../json';
import { LIMITS } from '../limits';
import { counted, shorten } from '../text';
import { error, type Problem } from '../problem';
import { PAYLOAD_LIMITS, payloadSize } from './payload-size';
import { urlencodedPairs } from './urlencoded';

/** How a body is written down; multipart bodies are taken apart on arrival and kept as JSON. */
export type BodyFormat = 'json' | 'urlencoded';

/** A body that was read, or the reason why it cannot be. */
export type ReadBody = { ok: true; value: JsonValue } | { ok: false; problem: Problem };

/**
 * Reads the bytes of a body. JSON is RFC 8259 in UTF-8, with or without a byte order mark; urlencoded is
 * the WHATWG URL standard's `application/x-www-form-urlencoded`, where a name given several times becomes a list.
 */
export function readBody(format: BodyFormat, bytes: Uint8Array): ReadBody {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return {
      ok: false,
      problem: error('not-utf8', 'The body is not UTF-8 text, so it cannot be read. Send it as UTF-8.'),
    };
  }
  return format === 'json' ? readJson(text) : readUrlencoded(text);
}

/** The payload of one stored submission; a body that is no object cannot have been accepted. */
export function readPayload(
  format: BodyFormat,
  bytes: Uint8Array,
): { ok: true; payload: JsonObject } | { ok: false; problem: Problem } {
  const body = readBody(format, bytes);
  if (!body.ok) return body;
  const problem = checkPayload(body.value);
  return problem ? { ok: false, problem } : { ok: true, payload: body.value as JsonObject };
}

/** What stands in the way of taking a value as a payload, if anything. */
export function checkPayload(value: JsonValue): Problem | null {
  if (!isJsonObject(value)) {
    return error(
      'not-an-object',
      'A submission is a JSON object with one property for each answer; this is not an object.',
      '',
    );
  }
  const { depth, fields, tooLong } = payloadSize(value);
  if (depth > PAYLOAD_LIMITS.depth) {
    return error(
      'too-deep',
      `The payload is nested more than ${PAYLOAD_LIMITS.depth} levels deep. Send it flatter.`,
      '',
    );
  }
  if (fields > PAYLOAD_LIMITS.fields) {
    return error(
      'too-many-fields',
      `The payload has more than ${counted(PAYLOAD_LIMITS.fields, 'field')}. Send only what the form asks.`,
      '',
    );
  }
  if (tooLong) {
    const { name, part } = tooLong;
    const most = part === 'name' ? LIMITS.payloadKey.most : LIMITS.payloadValue.most;
    return error(
      'too-long',
      `The ${part} of the field “${shorten(name, 60)}” has more than ${counted(most, 'character')}. Send it shorter.`,
      '',
    );
  }
  return null;
}

function readJson(text: string): ReadBody {
  try {
    return { ok: true, value: JSON.parse(text) as JsonValue };
  } catch (cause) {
    const where =
      cause instanceof Error ? /position \d+(?: \(line \d+ column \d+\))?/.exec(cause.message)?.[0] : undefined;
    const place = where ? ` It stops making sense at ${where}.` : text.trim() === '' ? ' It is empty.' : '';
    return { ok: false, problem: error('not-json', `The body is not valid JSON.${place}`) };
  }
}

function readUrlencoded(text: string): ReadBody {
  const payload: JsonObject = Object.create(null) as JsonObject;
  for (const [name, value] of urlencodedPairs(text)) addAnswer(payload, name, value);
  return { ok: true, value: { ...payload } };
}

/** Adds one named answer as forms send it: a name that comes again turns into a list. */
export function addAnswer(payload: JsonObject, name: string, value: JsonValue): void {
  const known = payload[name];
  if (known === undefined) payload[name] = value;
  else if (Array.isArray(known)) known.push(value);
  else payload[name] = [known, value];
}
