import { setImmediate } from 'node:timers/promises';
import {
  couldNotWrite,
  heldByPause,
  lookupsFor,
  outcomeText,
  planRun,
  readPayload,
  unmappedAnswers,
  unreadable,
  type ComparingLookups,
  type Counters,
  type Destination,
  type KnownRecords,
  type MadeActivity,
  type NewOption,
  type Plan,
  type RecordKind,
  wayBefore,
  wayOf,
} from '@haycart/core';
import { newSecret } from '../platform/auth/secret';
import { newId } from '../platform/new-id';
import type { NewOutboxItem } from '../outbox/outbox.service';
import type { NewActivity } from '../records/activities/made-activities.service';
import type { NewAssignment } from '../records/assignments/assignments.service';
import type { CausedDiff } from '../records/history/caused-diff';
import type { RouteBook } from '../routes/route-book.service';
import type { QueuedSubmission } from '../submissions/submission-queue';
import { asksOf, givenBy, madeBy, outgoingOf } from './beside-records';
import type { DuePassage, MatchAnswers } from './due-passage';
import type { NewAsk } from './holds/asked.service';
import type { HoldAnswers } from './holds/hold-answers.service';
import type { EndedRun } from './run-store';
import type { RunOutcome } from '@haycart/api';

/** What people said about submissions, by `submission route`. */
export interface Said {
  answers?: ReadonlyMap<string, MatchAnswers>;
  answered?: ReadonlyMap<string, HoldAnswers>;
}

/** The passages that are due for a batch of submissions; those settled before are left out. */
export function duePassages(
  batch: readonly QueuedSubmission[],
  book: RouteBook,
  settled: ReadonlySet<string>,
  said: Said = {},
): DuePassage[] {
  return batch.flatMap((queued) => {
    const intake = book.intakes.get(queued.intake_id)?.key ?? '';
    const routes = book.routes.filter(
      ({ id, definition }) =>
        definition.from.includes(intake) &&
        (queued.due_routes === null || queued.due_routes.includes(id)) &&
        !settled.has(`${queued.id} ${id}`),
    );
    if (!routes.length) return [];
    const read = readSubmission(queued, intake);
    return routes.map((route) => {
      const key = `${queued.id} ${route.id}`;
      return { queued, route, read, answers: said.answers?.get(key), answered: said.answered?.get(key) };
    });
  });
}

/** What is read of a submission where it is kept, whatever it waits for. */
export type StoredSubmission = Pick<QueuedSubmission, 'id' | 'format' | 'body' | 'visit' | 'origin' | 'received_at'>;

/** A stored submission as the core reads it. */
export function readSubmission(queued: StoredSubmission, intake: string): DuePassage['read'] {
  const body = readPayload(queued.format, queued.body);
  if (!body.ok) return { ok: false, problem: body.problem };
  return {
    ok: true,
    submission: {
      id: queued.id,
      intake,
      receivedAt: queued.received_at.toISOString(),
      payload: body.payload,
      visit: queued.visit,
      origin: queued.origin,
    },
  };
}

/** What planning a passage will want to know; `ids` are the records that people chose. */
export type PassageLookups = ComparingLookups & { ids: string[] };

export function lookupsOf({ route, read, answers }: DuePassage, book: RouteBook): PassageLookups {
  if (!read.ok || route.state === 'paused') return lookupsTogether([]);
  return { ...lookupsFor(route.definition, read.submission, book.destination), ids: chosenRecords(answers) };
}

/** What planning several passages will want to know. */
export function lookupsTogether(lookups: readonly PassageLookups[]): PassageLookups {
  return {
    keys: lookups.flatMap(({ keys }) => keys),
    deals: lookups.some(({ deals }) => deals),
    blocks: lookups.flatMap(({ blocks }) => blocks),
    counters: [...new Set(lookups.flatMap(({ counters }) => counters))],
    sought: lookups.flatMap(({ sought }) => sought),
    ids: lookups.flatMap(({ ids }) => ids),
  };
}

/** The records that people chose who were asked which is meant. */
function chosenRecords(answers: MatchAnswers = {}): string[] {
  return Object.values(answers).flatMap((answer) => ('record' in answer ? answer.record : []));
}

/** A record that a person said is none of some others. */
export interface SaidApart {
  kind: RecordKind;
  record: string;
  from: readonly string[];
}

/** What passages come to: runs to keep and diffs to write. */
export interface PlannedPassages {
  runs: EndedRun[];
  diffs: CausedDiff[];
  newOptions: NewOption[];
  apart: SaidApart[];
  /** What is sent to the outside, by attempt. */
  outgoing: Omit<NewOutboxItem, 'run'>[];
  /** Who is asked by mail before anything is written. */
  asks: NewAsk[];
  /** What is made for records beside their values. */
  made: NewActivity[];
  /** Who is given what. */
  given: NewAssignment[];
  /** By how much counters go on. */
  advance: Record<string, number>;
}

/** So many are planned before others get their turn on this thread. */
const TURN = 10;

/**
 * What passages come to. `known` and `counters` learn what each does; links by which somebody answers begin with `askAt`.
 *
 * @param now When they were taken out of the queue, by the clock of the database.
 */
export async function planPassages(
  passages: readonly DuePassage[],
  book: RouteBook,
  known: KnownRecords,
  counters: Counters,
  askAt: string,
  now: Date,
): Promise<PlannedPassages> {
  const runs: EndedRun[] = [];
  const newOptions: NewOption[] = [];
  const diffs: CausedDiff[] = [];
  const apart: SaidApart[] = [];
  const outgoing: PlannedPassages['outgoing'] = [];
  const asks: NewAsk[] = [];
  const made: NewActivity[] = [];
  const given: NewAssignment[] = [];
  const advance: Record<string, number> = {};
  for (const [index, passage] of passages.entries()) {
    if (index % TURN === TURN - 1) await setImmediate();
    const id = newId();
    const startedAt = new Date().toISOString();
    const secrets: string[] = [];
    const link = (ask: number) => `${askAt}${(secrets[ask] ??= newSecret())}`;
    const plan = planPassage(passage, book, known, counters, link);
    const at = passage.queued.received_at.toISOString();
    known.learn(plan.diff, at);
    counters.advance(plan.advance);
    for (const [name, by] of Object.entries(plan.advance ?? {})) advance[name] = (advance[name] ?? 0) + by;
    newOptions.push(...(plan.newOptions ?? []));
    if (plan.outcome === 'write' || plan.outcome === 'skip') outgoing.push(...outgoingOf(id, passage, plan));
    if (plan.outcome === 'write') {
      apart.push(...saidApart(plan, passage.answers));
      given.push(...givenBy(id, passage, plan, book.destination, now));
      made.push(...madeBy({ attempt: id, route: passage.route.definition.name, at: passage.queued.received_at }, plan));
    }
    if (plan.outcome === 'write')
      diffs.push({
        diff: plan.diff,
        at,
        cause: { kind: 'run', id },
        touches: touchesBy(passage, plan, book),
        ...(plan.merges ? { merges: plan.merges, by: `the route ${passage.route.definition.name}` } : {}),
      });
    asks.push(...asksOf(id, passage, plan, secrets));
    runs.push(endedRun(id, passage, plan, startedAt, book.destination));
  }
  return { runs, diffs, newOptions, apart, outgoing, asks, made, given, advance };
}

function touchesBy({ queued, read }: DuePassage, { touches }: Plan, { destination }: RouteBook): CausedDiff['touches'] {
  const way = read.ok ? wayOf(read.submission, destination.intakeSources) : {};
  const before = new Map((queued.visit.earlier ?? []).map((earlier) => [earlier.id, wayBefore(earlier)]));
  return { submission: queued.id, way, before, records: touches };
}

function saidApart({ writes }: Plan, answers: MatchAnswers = {}): SaidApart[] {
  return writes.flatMap(({ as, record: kind, id }) => {
    const answer = answers[as];
    return id && answer && 'create' in answer ? [{ kind, record: id, from: answer.apartFrom ?? [] }] : [];
  });
}

const OUTCOMES: Record<Plan['outcome'], RunOutcome> = {
  write: 'written',
  hold: 'held',
  skip: 'skipped',
  fail: 'failed',
};

function planPassage(
  { route, read, answers, answered }: DuePassage,
  book: RouteBook,
  known: KnownRecords,
  counters: Counters,
  link: (ask: number) => string,
): Plan {
  if (!read.ok) return unreadable(read.problem);
  if (route.state === 'paused') return heldByPause();
  const newIds = Object.fromEntries(route.definition.writes.map(({ as }) => [as, newId()]));
  return planRun(route.definition, read.submission, known, {
    destination: book.destination,
    newIds,
    answers,
    answered,
    counters,
    link,
  });
}

function endedRun(
  id: string,
  { queued, route }: DuePassage,
  plan: Plan,
  startedAt: string,
  destination?: Destination,
): EndedRun {
  const { diff: _, ...kept } = withoutBodies(plan);
  const unmapped = destination ? unmappedAnswers(plan, destination) : [];
  return {
    id,
    submissionId: queued.id,
    routeId: route.id,
    version: route.version,
    outcome: OUTCOMES[plan.outcome],
    reasonCode: plan.reason?.code ?? null,
    summary: outcomeText(plan, destination ?? {}),
    plan: kept,
    unmapped: unmapped.length ? unmapped : null,
    startedAt,
  };
}

/** What is sent stands in the outbox, and who was given what beside the records: neither is kept twice. */
function withoutBodies({ effects, asks, given: _, ...plan }: Plan): Plan {
  return {
    ...plan,
    ...(effects && {
      effects: effects.map(({ out, made, ...effect }) => ({
        ...effect,
        ...(made && { made: withoutRows(made) }),
        ...(out && { out: { kind: out.kind, to: out.to } }),
      })),
    }),
    ...(asks && { asks: asks.map(({ mail: _, reminder: __, ...ask }) => ask) }),
  };
}

function withoutRows(made: MadeActivity): MadeActivity {
  if (made.make !== 'document') return made;
  const { rows: _, ...document } = made;
  return document;
}

/** The runs of a submission that could not be written however often it was tried. */
export function givenUp(passages: readonly DuePassage[], cause: string): EndedRun[] {
  return passages.map((passage) => endedRun(newId(), passage, couldNotWrite(cause), new Date().toISOString()));
}
