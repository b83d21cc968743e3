import { distance } from 'fastest-levenshtein';
import { plainName } from '../reading/plain-name';
import { SYNONYMS } from '../reading/synonyms';
import { shorten } from '../text';
import { parseKey } from './key';
import type { ProfileField } from './profile';
import { fieldKind, kindFamily } from './value-kind';

/** Two fields of an intake that are probably one under two names. */
export interface Renamed {
  from: ProfileField;
  to: ProfileField;
  /** 0 to 1. */
  likeness: number;
  /** Why, the strongest reason first. */
  because: string[];
}

/** From what likeness on two fields are said to be one. */
const LIKE = 0.5;
/** Kinds of values that few fields of an intake have. */
const TELLING = ['email', 'phone', 'web', 'money', 'date', 'country'];

/** Which fields that ended go on under another name; each goes on as one at most. */
export function likelyRenamed(ended: readonly ProfileField[], began: readonly ProfileField[]): Renamed[] {
  const pairs = ended.flatMap((from) => {
    const next = began.filter((to) => takesOver(from, to));
    return next.flatMap((to) => alike(from, to, next.length === 1) ?? []);
  });
  const taken = new Set<string>();
  return pairs
    .sort((a, b) => b.likeness - a.likeness)
    .filter(({ from, to }) => {
      if (taken.has(from.key) || taken.has(to.key)) return false;
      taken.add(from.key).add(to.key);
      return true;
    });
}

/** Whether one begins when the other ends, and holds what that one held. */
function takesOver(from: ProfileField, to: ProfileField): boolean {
  const usualGap = (from.lastFilledIn - from.firstIn + 1) / from.filled;
  const gap = to.firstIn - from.lastFilledIn;
  return gap > 0 && gap <= Math.max(3, 3 * usualGap) && sameFamily(from, to);
}

function alike(from: ProfileField, to: ProfileField, alone: boolean): Renamed | null {
  const kind = fieldKind(to.kinds);
  const named = nameLikeness(from, to);
  const shared = sharedValues(from, to);
  const reasons: { weight: number; text: string }[] = [
    named,
    { weight: 0.4 * shared, text: 'they have values in common' },
    { weight: around(from.key) === around(to.key) ? 0.15 : 0, text: 'it is in the same place' },
    { weight: TELLING.includes(kind) ? 0.2 : 0, text: 'both hold the same kind of values' },
    { weight: alone ? 0.2 : 0, text: 'no other field began when it ended' },
  ];
  const likeness = Math.min(
    1,
    reasons.reduce((sum, { weight }) => sum + weight, 0),
  );
  if (likeness < LIKE) return null;
  const because = reasons
    .filter(({ weight }) => weight >= 0.1)
    .sort((a, b) => b.weight - a.weight)
    .map(({ text }) => text);
  return { from, to, likeness, because };
}

/** Whether both hold values of one family. Among texts, a few may all be words for yes and no by accident. */
function sameFamily(from: ProfileField, to: ProfileField): boolean {
  const [before, after] = [from, to].map(({ kinds }) => kindFamily(fieldKind(kinds)));
  return before === after || (['text', 'yes-no'].includes(before!) && ['text', 'yes-no'].includes(after!));
}

/** How much the names of two fields say for each other. */
function nameLikeness(from: ProfileField, to: ProfileField): { weight: number; text: string } {
  const [before, after] = [namesOf(from), namesOf(to)];
  if (from.label && before.includes(plainName(to.label))) return { weight: 0.55, text: 'it asks the same question' };
  const meaning = Object.values(SYNONYMS).some(
    (words) => before.some((name) => words.includes(name)) && after.some((name) => words.includes(name)),
  );
  const [old, now] = [shorten(lastOf(from.key), 40), shorten(lastOf(to.key), 40)];
  if (meaning) return { weight: 0.45, text: `“${now}” is another word for “${old}”` };
  const nearest = Math.max(...before.flatMap((one) => after.map((other) => spelling(one, other))));
  return { weight: 0.5 * nearest, text: `“${now}” is written nearly like “${old}”` };
}

/** How alike two names are written, 0 to 1: by edits, or by the one standing inside the other. */
function spelling(one: string, other: string): number {
  const [short, long] = one.length < other.length ? [one, other] : [other, one];
  const byEdits = 1 - distance(short, long) / Math.max(1, long.length);
  const inside = short.length >= 4 && long.includes(short) ? 0.8 : 0;
  return Math.max(byEdits > 0.5 ? byEdits : 0, inside);
}

/** The share of the later field’s values that the earlier one had too, where there are few enough to tell. */
function sharedValues(from: ProfileField, to: ProfileField): number {
  const values = Object.keys(to.values);
  if (from.more || to.more || !values.length) return 0;
  return values.filter((value) => Object.hasOwn(from.values, value)).length / values.length;
}

function namesOf({ key, label }: ProfileField): string[] {
  return [lastOf(key), label].map(plainName).filter(Boolean);
}

function lastOf(key: string): string {
  return (parseKey(key) ?? [key]).map(String).at(-1)!;
}

function around(key: string): string {
  return JSON.stringify((parseKey(key) ?? [key]).slice(0, -1));
}
