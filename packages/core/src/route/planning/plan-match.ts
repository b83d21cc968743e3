import type { ComparedRecord } from '../../identity/likeness/compared';
import { compareCompanies } from '../../identity/likeness/compare-firms';
import { compareNames } from '../../identity/likeness/compare-names';
import { verdictOn } from '../../identity/likeness/thresholds';
import { percent, shareInWords } from '../../identity/likeness/words';
import { counted, listInWords } from '../../text';
import type { MatchRule, Safeguard, WhenMatched, Write } from '../../definition/route-definition';
import type { KnownRecord } from '../../diff/known-record';
import {
  candidatesOf,
  namesFit,
  newcomerOf,
  oldestFirst,
  type Found,
  type MatchGround,
  type Newcomer,
} from './match-candidates';
import type { MatchCandidate, MatchTrace, Reason } from './plan';
import type { FilledValue } from './plan-fields';
import { recognitionOf } from '../checking/recognition';

/**
 * What a person answered who was asked which record is meant. `apartFrom`: those they were shown and said it is not, so that
 * nobody asks of them again.
 */
export type MatchAnswer = { record: string } | { create: true; apartFrom?: readonly string[] } | { skip: true };

/** Which existing record is meant, if any, and what is to be done. */
export interface Recognised {
  record?: KnownRecord | undefined;
  match: MatchTrace;
  then: WhenMatched | 'create';
  /** Why a person must decide. */
  ask?: Reason;
  /** Records that turn out to be the same one, by another key. */
  also: KnownRecord[];
}

/** How many candidates are shown to a person. */
const SHOWN = 8;

/** The existing record that a write means, by its match rules in their order. */
export function recognise(
  write: Write,
  filled: readonly FilledValue[],
  ground: MatchGround & { answer?: MatchAnswer | undefined },
): Recognised {
  const newcomer = newcomerOf(write, filled, ground);
  if (ground.answer) return withCame(answered(write, ground.answer, ground), newcomer);
  return withCame(byRules(write, newcomer, ground), newcomer);
}

function byRules(write: Write, newcomer: Newcomer, ground: MatchGround): Recognised {
  const notEnough: string[] = [];
  let lastKey: string | null = null;
  for (const rule of recognitionOf(write).rules) {
    const found = candidatesOf(write, rule, newcomer, ground);
    if (!found) continue;
    lastKey = found.key ?? lastKey;
    notEnough.push(...found.notEnough);
    const decided = decide(write, rule, found, newcomer, ground);
    if (decided) return withNotEnough(decided, notEnough);
    const { whenNone = 'next' } = rule;
    if (whenNone !== 'next') return withNotEnough(noneFound(whenNone, write, lastKey), notEnough);
  }
  return withNotEnough(noneFound(write.whenNone ?? 'create', write, lastKey), notEnough);
}

/** What a rule makes of the records it found; `null` where it found none. */
function decide(
  write: Write,
  rule: MatchRule,
  found: Found,
  newcomer: Newcomer,
  ground: MatchGround,
): Recognised | null {
  const { records } = found;
  if (!records.length) return null;
  const match: MatchTrace = { by: rule.by, key: found.key, found: records.length };
  const shown = (): MatchTrace => ({
    ...match,
    candidates: records.slice(0, SHOWN).map((record) => shownCandidate(record, found)),
  });
  const asked = (text: string): Recognised => ({
    match: shown(),
    then: 'ask',
    ask: { code: 'which-record', text },
    also: [],
  });

  let sure = records;
  if (rule.by === 'likeness') {
    sure = records.filter(({ id }) => verdictOn(found.likeness.get(id)!, write.record, rule) === 'accept');
    const [best] = records;
    if (!sure.length)
      return asked(
        `${counted(records.length, `${write.record}`)} ${records.length === 1 ? 'is' : 'are'} like this one, ${percent(found.likeness.get(best!.id)!.probability)} at most. Say whether it is the same.`,
      );
  }
  if (sure.length > 1) {
    const several = rule.whenSeveral ?? recognitionOf(write).whenSeveral;
    if (several === 'ask')
      return asked(
        `${counted(sure.length, write.record)} ${found.key ? `have ${found.key}` : 'are like this one'}. Say which is meant.`,
      );
    if (several === 'skip') return { match: shown(), then: 'skip', also: [] };
    sure = [chosenOf(several, sure)];
  }
  const record = sure[0]!;
  const against =
    rule.by !== 'likeness' && rule.askIf?.length
      ? speaksAgainst(rule.askIf, newcomer.compared, ground.known.compared(record))
      : [];
  if (against.length)
    return asked(`The ${write.record} with ${found.key} has ${listInWords(against)}. Say whether it is the same.`);
  const then = rule.whenMatched ?? write.whenMatched ?? 'update';
  if (then === 'ask')
    return asked(
      `One ${write.record} ${found.key ? `has ${found.key}` : 'is like this one'}. Say whether it is the same.`,
    );
  const also = then === 'leave' || then === 'skip' ? [] : alsoFound(write, rule, record, newcomer, ground);
  return {
    record,
    match: {
      ...(found.likeness.size ? shown() : match),
      ...(also.length ? { merged: also.map(({ id }) => id) } : {}),
    },
    then,
    also,
  };
}

/**
 * Other contacts that the further keys tell to be the same one: had this submission come first, what made them would have
 * been recognised as it. Names must fit between all of them, so that a chain is never closed blindly.
 */
function alsoFound(
  write: Write,
  by: MatchRule,
  record: KnownRecord,
  newcomer: Newcomer,
  ground: MatchGround,
): KnownRecord[] {
  if (write.record !== 'contact') return [];
  const joined = [record];
  for (const rule of write.match ?? []) {
    if (rule === by || rule.by === 'likeness' || rule.by === 'name') continue;
    const found = candidatesOf(write, rule, newcomer, ground);
    const others = found?.records.filter(({ id }) => joined.every((one) => one.id !== id)) ?? [];
    if (others.length !== 1) continue;
    const [other] = others;
    const form = ground.known.compared(other!);
    const fits = [newcomer.compared, ...joined.map((one) => ground.known.compared(one))].every((one) =>
      namesFit(one, form),
    );
    const named = form.name !== null && newcomer.compared.name !== null;
    if (fits && named && !speaksAgainst(rule.askIf ?? [], newcomer.compared, form).length) joined.push(other!);
  }
  return joined.slice(1);
}

function speaksAgainst(safeguards: readonly Safeguard[], one: ComparedRecord, other: ComparedRecord): string[] {
  const { given, family } = compareNames(one.name, other.name);
  return safeguards.flatMap((safeguard) => {
    switch (safeguard) {
      case 'other-surname':
        return family.level === 'far' ? ['another surname'] : [];
      case 'other-name':
        return given.level === 'far' ? ['another given name'] : [];
      case 'other-company':
        return compareCompanies(one, other).level === 'far' ? ['another company'] : [];
    }
  });
}

function chosenOf(several: 'oldest' | 'latest' | 'most-complete', records: readonly KnownRecord[]): KnownRecord {
  const sorted = oldestFirst(records);
  switch (several) {
    case 'oldest':
      return sorted[0]!;
    case 'latest':
      return sorted[sorted.length - 1]!;
    case 'most-complete':
      return sorted.reduce((best, record) =>
        Object.keys(record.values).length > Object.keys(best.values).length ? record : best,
      );
  }
}

function shownCandidate({ id }: KnownRecord, { likeness: scored }: Found): MatchCandidate {
  const like = scored.get(id);
  if (!like) return { id, probability: null };
  return {
    id,
    probability: like.probability,
    shares: like.shares.map((share) => ({
      of: share.of,
      label: share.label,
      bits: share.bits,
      words: shareInWords(share),
    })),
  };
}

function answered(write: Write, answer: MatchAnswer, ground: MatchGround): Recognised {
  const match = (found: number): MatchTrace => ({ by: 'person', key: null, found });
  if ('create' in answer) return { match: match(0), then: 'create', also: [] };
  if ('skip' in answer) return { match: match(0), then: 'skip', also: [] };
  const record = ground.known.get(answer.record);
  if (!record)
    return {
      match: match(0),
      then: 'ask',
      ask: {
        code: 'which-record',
        text: `The ${write.record} that was chosen is not there any more. Say which is meant.`,
      },
      also: [],
    };
  const then = write.whenMatched === 'ask' || write.whenMatched === 'skip' ? 'update' : (write.whenMatched ?? 'update');
  return { record, match: match(1), then, also: [] };
}

function noneFound(whenNone: 'create' | 'skip' | 'ask', write: Write, key: string | null): Recognised {
  const match: MatchTrace = { by: null, key, found: 0 };
  if (whenNone !== 'ask') return { match, then: whenNone, also: [] };
  const text = key ? `No ${write.record} has ${key}.` : `There is nothing to recognise the ${write.record} by.`;
  return {
    match,
    then: 'ask',
    ask: { code: 'which-record', text: `${text} Say which is meant, or have one made.` },
    also: [],
  };
}

/** Whoever is asked must see what came in. */
function withCame(recognised: Recognised, { values }: Newcomer): Recognised {
  if (!recognised.ask) return recognised;
  const came = Object.entries(values).map(([field, value]) => ({ field, value }));
  return { ...recognised, match: { ...recognised.match, came } };
}

function withNotEnough(recognised: Recognised, notEnough: readonly string[]): Recognised {
  return notEnough.length ? { ...recognised, match: { ...recognised.match, notEnough: [...notEnough] } } : recognised;
}
