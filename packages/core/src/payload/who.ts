import type { JsonObject } from '../json';
import { answerText } from '../mapping/value';
import { shorten } from '../text';
import { payloadFields } from './fields';

const NAME = /(^|[._])(full_?name|name|contact)$/i;
const FIRST = /(^|[._])(first|given|fore)(_?name)?$/i;
const LAST = /(^|[._])(last|family|sur)(_?name)?$/i;
const EMAIL = /e-?mail/i;

/** Who a payload seems to come from, for showing in lists; `''` where nothing tells. Routes never use this. */
export function whoSent(payload: JsonObject): { who: string; email: string } {
  const texts = payloadFields(payload)
    .slice(0, 500)
    .map(({ key, value }) => ({ key, text: answerText(value).trim() }))
    .filter(({ text }) => text !== '');
  const first = (pattern: RegExp) => texts.find(({ key }) => pattern.test(key))?.text;
  const email = texts.find(({ key, text }) => EMAIL.test(key) && text.includes('@'))?.text ?? '';
  const parts = [first(FIRST), first(LAST)].filter((part) => part !== undefined).join(' ');
  return { who: shorten(parts || first(NAME) || '', 120), email: shorten(email, 120) };
}
