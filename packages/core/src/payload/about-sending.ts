import { plainWords } from '../reading/plain-name';
import { parseKey } from './key';
import type { ValueKind } from './value-kind';

/** What a field that says something about the sending is called at its end. */
const ENDINGS = new Set(
  'id ids uuid guid token signature nonce hash ip agent referer referrer version revision'.split(' '),
);
/** When something was sent. */
const SENDING = new Set('submitted created updated received landed sent delivered completed'.split(' '));
const TIMES: readonly ValueKind[] = ['date', 'date-time', 'whole-number'];
/** What is described by a name, a title or a type, and is nobody. */
const DESCRIBED = new Set('form definition meta page hook webhook schema'.split(' '));
const DESCRIBING = new Set('name title type kind status slug language locale'.split(' '));

/**
 * Whether a field tells of the sending and is no answer: ids, when it was sent, what the form is called. A field whose
 * question came with it is an answer.
 */
export function isAboutSending({ key, label, kind }: { key: string; label: string; kind: ValueKind }): boolean {
  if (label !== '' && label !== key) return false;
  const way = (parseKey(key) ?? [key]).filter((segment) => typeof segment === 'string');
  const own = plainWords(way.at(-1) ?? key);
  const last = own.at(-1) ?? '';
  const around = [...(way.at(-2) === undefined ? [] : plainWords(way.at(-2)!)), ...own.slice(0, -1)];
  if (ENDINGS.has(last) || kind === 'id') return true;
  if (TIMES.includes(kind) && own.some((word) => SENDING.has(word))) return true;
  return DESCRIBING.has(last) && around.some((word) => DESCRIBED.has(word));
}
