import type { JsonObject, JsonValue } from '../json';
import { RESERVED_NAMES } from '../payload/reading';
import { phoneFrom } from '../reading/phone';
import { answerAsText } from './check-answers';
import { arrivesInParts, questionsOf, type FormDefinition } from './definition';

/** The entry link of the colleague who fills a form in. It is read on arrival and not kept. */
export const ENTRY = '_entry';
/** Where what a form did not ask is kept, unread by routes. */
export const NOT_ASKED = '_not_asked';

/**
 * The version of a form that was answered: the one that the page tells, which may have been opened before the latest was
 * published; the latest where it tells none that there was.
 */
export function answeredVersion(told: unknown, latest: number): number {
  const version = typeof told === 'string' && /^\d{1,9}$/.test(told) ? Number(told) : 0;
  return version >= 1 && version <= latest ? version : latest;
}

/**
 * A form's post with the answers put together that arrive in parts, as `name[]`: the lines of a postal address, and the
 * country and number of a phone.
 */
export function joinedAnswers(form: FormDefinition, payload: JsonObject): JsonObject {
  let joined = payload;
  for (const question of questionsOf(form)) {
    const { name } = question;
    const sent = payload[`${name}[]`];
    if (!arrivesInParts(question) || sent === undefined) continue;
    const { [`${name}[]`]: _, ...rest } = joined;
    const parts = [sent].flat().map(answerAsText);
    const text = question.type === 'phone' ? phoneFrom(parts.at(-2) ?? '', parts.at(-1)!) : parts.join('\n').trim();
    joined = { ...rest, ...(rest[name] === undefined ? { [name]: text } : {}) };
  }
  return joined;
}

/**
 * A form's post as it is kept: the answers to the questions that were asked. Whatever else was sent, an answer to a
 * question that was hidden or that the form does not have, stands apart under `_not_asked`: kept, but read by no route.
 * A fixed hidden value is the form's, not the sender's.
 */
export function answeredPayload(form: FormDefinition, payload: JsonObject, shown: ReadonlySet<string>): JsonObject {
  const kept: JsonObject = {};
  const notAsked: JsonObject = {};
  const questions = new Map(questionsOf(form).map((question) => [question.name, question]));
  for (const [name, answer] of Object.entries(payload)) {
    if (RESERVED_NAMES.has(name)) kept[name] = answer;
    else if (questions.has(name) && shown.has(name)) kept[name] = answer;
    else notAsked[name] = answer;
  }
  for (const { name, type, value, from } of questions.values()) {
    if (type !== 'hidden' || !shown.has(name)) continue;
    const fixed: JsonValue | undefined = from ? (kept[name] ?? value) : value;
    if (fixed === undefined || fixed === '') continue;
    if (kept[name] !== undefined && kept[name] !== fixed) notAsked[name] = kept[name];
    kept[name] = fixed;
  }
  return Object.keys(notAsked).length ? { ...kept, [NOT_ASKED]: notAsked } : kept;
}
