import { likelyRenamed } from './field-likeness';
import type { Profile, ProfileField } from './profile';
import { fieldKind, kindFamily, type KindCounts, type ValueKind } from './value-kind';

/**
 * A change in what a sender sends that nobody announced. `field` and `became` are keys of the intake’s profile; times
 * are ISO 8601, UTC.
 */
export type Drift =
  | { kind: 'renamed'; field: string; became: string; since: string; because: string[] }
  | { kind: 'stopped'; field: string; since: string; missed: number }
  | { kind: 'appeared'; field: string; since: string; filled: number }
  | { kind: 'changed'; field: string; since: string; from: ValueKind; to: ValueKind };

export const DRIFT_LIMITS = {
  /** How likely it may be that a field which still comes was absent by chance, before it is said to have stopped. */
  chance: 0.001,
  /** The same where another field took its place. */
  chanceRenamed: 0.5,
  /** How often a field was filled, and was missed, before it can stop. */
  filled: 5,
  missed: 3,
  /** How many submissions an intake has before a field can appear in it, and how often that field comes. */
  settled: 20,
  appeared: 3,
  /** Former answers, and the latest ones, that tell a changed kind. */
  former: 10,
  latest: 5,
  /** Of each side at most so many are compared, the most filled. */
  compared: 200,
} as const;

/** How a sender’s fields changed, worked out from what arrived. Renamed first, then by key. */
export function driftOf(profile: Profile): Drift[] {
  const fields = Object.values(profile.fields);
  const ended = mostFilled(fields.filter((field) => chanceOfAbsence(field, profile) < DRIFT_LIMITS.chanceRenamed));
  const began = mostFilled(fields.filter((field) => field.firstIn > 1 && isComing(field, profile)));
  const renamed = likelyRenamed(ended, began);
  const told = new Set(renamed.flatMap(({ from, to }) => [from.key, to.key]));
  const left = fields.filter(({ key }) => !told.has(key) && !isItem(key));
  return [
    ...renamed.map(({ from, to, because }): Drift => ({
      kind: 'renamed',
      field: from.key,
      became: to.key,
      since: to.firstSeen,
      because,
    })),
    ...left.flatMap((field) => stopped(field, profile) ?? appeared(field, profile) ?? changed(field) ?? []),
  ];
}

/** Whether a field that began later comes with a fair share of what arrives since. */
function isComing({ firstIn, filled }: ProfileField, { submissions }: Profile): boolean {
  return filled > 0 && filled >= 0.2 * (submissions - firstIn + 1);
}

/**
 * How likely it is that a field was absent from the last submissions by chance, if it still came as often as it did:
 * one minus its share (by the rule of succession), to the power of how many it is missing from.
 */
function chanceOfAbsence({ filled, firstIn, lastFilledIn }: ProfileField, { submissions }: Profile): number {
  if (!filled) return 1;
  const share = (filled + 1) / (lastFilledIn - firstIn + 3);
  return (1 - share) ** (submissions - lastFilledIn);
}

function stopped(field: ProfileField, profile: Profile): Drift | null {
  const missed = profile.submissions - field.lastFilledIn;
  if (field.filled < DRIFT_LIMITS.filled || missed < DRIFT_LIMITS.missed) return null;
  if (chanceOfAbsence(field, profile) >= DRIFT_LIMITS.chance) return null;
  return { kind: 'stopped', field: field.key, since: field.lastFilled!, missed };
}

function appeared(field: ProfileField, profile: Profile): Drift | null {
  const { key, firstIn, filled, firstSeen } = field;
  if (firstIn <= DRIFT_LIMITS.settled || filled < DRIFT_LIMITS.appeared || !isComing(field, profile)) return null;
  return { kind: 'appeared', field: key, since: firstSeen, filled };
}

/** A field whose latest answers look otherwise than all before. Texts may hold anything, so they do not change. */
function changed({ key, kinds, recent, lastSeen }: ProfileField): Drift | null {
  const latest = recent.slice(-DRIFT_LIMITS.latest);
  const former: KindCounts = { ...kinds };
  for (const kind of latest) former[kind] = (former[kind] ?? 0) - 1;
  const total = Object.values(former).reduce((sum, count) => sum + count, 0);
  if (latest.length < DRIFT_LIMITS.latest || total < DRIFT_LIMITS.former) return null;
  const from = fieldKind(former);
  const family = kindFamily(from);
  if (family === 'text' || latest.some((kind) => kindFamily(kind) === family)) return null;
  const to = fieldKind(Object.fromEntries(latest.map((kind) => [kind, latest.filter((one) => one === kind).length])));
  return { kind: 'changed', field: key, since: lastSeen, from, to };
}

/** A single item of a list: what happens to it happens to the list. */
function isItem(key: string): boolean {
  return /\[\d+\]$/.test(key);
}

function mostFilled(fields: readonly ProfileField[]): ProfileField[] {
  return fields
    .filter(({ key }) => !isItem(key))
    .sort((a, b) => b.filled - a.filled)
    .slice(0, DRIFT_LIMITS.compared);
}
