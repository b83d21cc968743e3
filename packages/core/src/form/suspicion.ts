import type { JsonObject } from '../json';
import { answerAsText } from './check-answers';
import { questionsOf, type FormDefinition } from './definition';

/** The question that no person sees: what answers it is a program. */
export const TRAP = '_leave_blank';
/** When the page was opened, in milliseconds since 1970, as its form tells. */
export const OPENED = '_opened';

/** What a submission was found to be suspicious for. */
export interface Suspicion {
  score: number;
  reasons: string[];
}

/** From this score on a submission is set aside for a person. */
export const SET_ASIDE_FROM = 100;
const FEWEST_SECONDS = 3;
/** From one address in a minute: more than colleagues who enter what they hear, or a show stand, can bring. */
export const MOST_OF_ONE_VISITOR = 30;

/** What a workspace never wants routed by itself. */
export interface Blocked {
  words: readonly string[];
  domains: readonly string[];
}

/** How a form was sent, as far as that tells a person from a program. */
export interface Manner {
  /** ISO 8601 */
  receivedAt: string;
  /** How many came from the same address in this minute, this one among them. */
  fromVisitor: number;
}

const LINK = /https?:\/\/|www\.[a-z]|\[url|<a\s/gi;
const TAG_BEGIN = /<\/?[a-z]/i;
const FORUM_CODE = /\[\/?(url|b|img|link)\b/i;

/**
 * How suspicious a form's answers are, with a sentence for each reason. Nothing is refused or dropped for it: from
 * `SET_ASIDE_FROM` on a person decides. No outside service is asked.
 */
export function suspicionOf(form: FormDefinition, payload: JsonObject, blocked: Blocked, manner: Manner): Suspicion {
  const found: [points: number, reason: string][] = [
    ...trapped(payload),
    ...tooFast(payload, manner),
    ...tooMany(manner),
    ...suspiciousTexts(form, payload),
    ...blockedThings(form, payload, blocked),
  ];
  return {
    score: found.reduce((sum, [points]) => sum + points, 0),
    reasons: found.sort((a, b) => b[0] - a[0]).map(([, reason]) => reason),
  };
}

function trapped(payload: JsonObject): [number, string][] {
  return answerAsText(payload[TRAP]) === '' ? [] : [[100, 'It answers a question that no person sees.']];
}

function tooFast(payload: JsonObject, { receivedAt }: Manner): [number, string][] {
  const opened = Number(payload[OPENED]);
  if (!Number.isFinite(opened) || opened <= 0) return [];
  const seconds = (Date.parse(receivedAt) - opened) / 1_000;
  return seconds < FEWEST_SECONDS
    ? [[60, `It was sent ${Math.max(0, seconds).toFixed(1)} seconds after the form was opened.`]]
    : [];
}

function tooMany({ fromVisitor }: Manner): [number, string][] {
  return fromVisitor > MOST_OF_ONE_VISITOR
    ? [[100, `It is number ${fromVisitor} from the same address within a minute.`]]
    : [];
}

function suspiciousTexts(form: FormDefinition, payload: JsonObject): [number, string][] {
  const texts = typedTexts(form, payload);
  const found: [number, string][] = [];
  const links = texts.reduce((sum, { text }) => sum + (text.match(LINK)?.length ?? 0), 0);
  if (links > 1) found.push([Math.min(100, 20 + links * 15), `It holds ${links} links.`]);
  const named = texts.find(({ name, text }) => /name/.test(name) && (text.match(LINK)?.length ?? 0) > 0);
  if (named) found.push([100, 'The name contains a link.']);
  if (texts.some(({ text }) => hasMarkup(text))) found.push([60, 'It holds code for web pages or forums.']);
  const long = texts.map(({ text }) => text.toLowerCase()).filter((text) => text.length > 3);
  if (long.length >= 3 && new Set(long).size === 1) found.push([60, 'Every answer is the same.']);
  const shouted = texts.find(({ text }) => text.length > 40 && text === text.toUpperCase() && /\p{Lu}/u.test(text));
  if (shouted) found.push([20, 'It is written in capitals.']);
  return found;
}

function hasMarkup(text: string): boolean {
  const tag = text.search(TAG_BEGIN);
  return (tag !== -1 && text.indexOf('>', tag) !== -1) || FORUM_CODE.test(text);
}

function blockedThings(form: FormDefinition, payload: JsonObject, { words, domains }: Blocked): [number, string][] {
  const all = typedTexts(form, payload)
    .map(({ text }) => text.toLowerCase())
    .join('\n');
  const word = words.find((one) => holdsWord(all, one.toLowerCase()));
  const domain = domains.find((one) => holdsWord(all, one.toLowerCase()));
  return [
    ...(word ? [[100, `It holds the blocked word “${word}”.`] as [number, string]] : []),
    ...(domain ? [[100, `It names the blocked domain ${domain}.`] as [number, string]] : []),
  ];
}

/** Whether a text holds a word by itself, not as a part of another. */
function holdsWord(text: string, word: string): boolean {
  for (let at = text.indexOf(word); word !== '' && at !== -1; at = text.indexOf(word, at + 1)) {
    const before = text[at - 1] ?? ' ';
    const after = text[at + word.length] ?? ' ';
    if (!/[\p{L}\p{Nd}]/u.test(before) && !/[\p{L}\p{Nd}]/u.test(after)) return true;
  }
  return false;
}

/** The answers that somebody typed, not those that were chosen. */
function typedTexts(form: FormDefinition, payload: JsonObject): { name: string; text: string }[] {
  const typed = new Set(['text', 'long-text', 'email', 'web', 'address', 'phone']);
  return questionsOf(form)
    .filter(({ type }) => typed.has(type))
    .map(({ name }) => ({ name, text: answerAsText(payload[name]) }))
    .filter(({ text }) => text !== '');
}
