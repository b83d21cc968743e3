import { enquiriesGiven, type PlannedAssignment } from '../../assignment/planned-assignments';
import { REASON_CODES } from '../../codes';
import type { Destination } from '../../destination/destination';
import { recordWord } from '../../destination/destination';
import {
  changesBetween,
  emptyDiff,
  isEmptyDiff,
  squashAll,
  squashDiffs,
  type RecordsDiff,
} from '../../diff/records-diff';
import { Decisions } from '../../decision/decisions';
import { factsAbout } from '../../decision/facts';
import type { EffectRecord } from '../../effect/effect';
import { sourceOf, sourceOfWay } from '../../channel/source-of';
import { wayBefore } from '../../channel/way';
import { visitsBefore } from '../../source/earlier-visit';
import { pathOf } from '../../source/site';
import type { Touch } from '../../source/source';
import type { FieldValues } from '../../diff/record';
import type { RouteDefinition } from '../../definition/route-definition';
import type { KnownRecords } from '../../identity/known-records';
import { finisherContext, submissionReader, withEarlierWrites } from './part-reader';
import type { FieldTrace, Plan, PlannedWrite, Reason } from './plan';
import { planHolds } from './plan-holds';
import { planEffects } from './plan-effects';
import { conditionMet } from '../editing/route-conditions';
import { whyNothing } from '../telling/why';
import { wouldDo } from '../telling/would-do';
import type { Submission } from '../../payload/submission';
import type { Setting } from './write-context';
import { NO_COUNTERS, nothingOf, planWrite, type WriteStep } from './plan-write';

/**
 * Everything that a submission would do, without doing any of it: the one place that decides. The same input always
 * gives the same plan. The route must have passed `checkRoute`; names that are gone since end the run failed.
 */
export function planRun(route: RouteDefinition, submission: Submission, known: KnownRecords, setting: Setting): Plan {
  const written = new Map<string, FieldValues>();
  const facts = new Map<string, FieldValues>();
  const { destination } = setting;
  const decisions = new Decisions(
    route.decisions ?? [],
    { destination, writes: route.writes },
    {
      read: withEarlierWrites(submissionReader(submission, destination), written, facts),
      finishing: finisherContext(submission, destination),
      now: submission.receivedAt,
    },
  );
  const plan = planned(route, submission, known, setting, { decisions, written, facts });
  if (setting.allTables && plan.reason?.code !== 'only-when') decisions.decideAll();
  return decisions.traces.length ? { ...plan, decided: decisions.traces } : plan;
}

/** What writes have told so far, and what tables made of it. */
interface Told {
  decisions: Decisions;
  written: Map<string, FieldValues>;
  facts: Map<string, FieldValues>;
}

function planned(
  route: RouteDefinition,
  submission: Submission,
  known: KnownRecords,
  setting: Setting,
  { decisions, written, facts }: Told,
): Plan {
  const plan: Plan = { outcome: 'write', reason: null, writes: [], diff: emptyDiff(), touches: [], problems: [] };
  const records: EffectRecord[] = [];
  const advance: Record<string, number> = {};
  const given: PlannedAssignment[] = [];
  const { destination } = setting;
  const finishing = finisherContext(submission, destination);
  const { read } = decisions;
  const ownerOf = decisions.ownerOf.bind(decisions);
  const undecided = (): Reason | null => (decisions.problem ? { code: 'undecided', text: decisions.problem } : null);
  if (route.onlyWhen) {
    const verdict = conditionMet(route.onlyWhen, read, route, submission, destination);
    const stop = undecided();
    if (stop) return stopped(plan, stop);
    if (!verdict.met)
      return stopped(plan, { code: 'only-when', text: `The route takes this only when ${verdict.unmet}.` });
  }
  for (const write of route.writes) {
    const unmet = write.when && conditionMet(write.when, read, route, submission, destination);
    const stop = undecided();
    if (stop) return stopped(plan, stop);
    if (unmet && !unmet.met) {
      plan.writes.push({ ...nothingOf(write), unmet: unmet.unmet });
      continue;
    }
    const step = planWrite(write, {
      submission,
      known,
      setting,
      read,
      ownerOf,
      finishing,
      earlier: plan.writes,
      written,
    });
    plan.problems.push(...step.problems);
    plan.writes.push(step.planned);
    const failed = undecided();
    if (failed) return stopped(plan, failed);
    if (step.stop) return stopped(plan, step.stop);
    if (step.newOptions?.length) plan.newOptions = [...(plan.newOptions ?? []), ...step.newOptions];
    // Two records of one run are one turn.
    Object.assign(advance, step.advance);
    if (step.given) given.push(step.given);
    if (step.values) {
      written.set(write.as, step.values);
      if (route.decisions?.length) facts.set(write.as, factsAbout(write.record, step.before?.id ?? null, known));
    }
    records.push(...recordOf(step));
    if (step.merges?.length) plan.merges = [...(plan.merges ?? []), ...step.merges];
    addStep(plan.diff, step);
  }
  if (route.followUps?.length) {
    const planned = planEffects(records, {
      route,
      submission,
      destination,
      read,
      finishing,
      counters: setting.counters ?? NO_COUNTERS,
      ownerOf,
    });
    const failed = undecided();
    if (failed) return stopped(plan, failed);
    plan.problems.push(...planned.problems);
    if (planned.hold) return stopped(plan, planned.hold);
    Object.assign(advance, planned.advance);
    plan.effects = planned.effects;
    plan.diff = squashDiffs(plan.diff, planned.diff);
    plan.writes = plan.writes.map((write) => withMarks(write, planned.fields.get(write.as)));
  }
  const would = () => wouldDo(plan, destination);
  const { answered, held } = planHolds({ route, submission, records, read, ownerOf, setting, would });
  const failed = undecided();
  if (failed) return stopped(plan, failed);
  if (answered.length) plan.answered = answered;
  if (held) {
    const { code, text, hold, asks, effects } = held;
    const waits = REASON_CODES[code].outcome === 'hold';
    return {
      ...stopped(plan, { code, text, ...(waits ? { hold } : {}) }),
      ...(waits && plan.effects ? { effects: plan.effects } : {}),
      ...(effects ? { effects } : {}),
      ...(asks?.length ? { asks } : {}),
    };
  }
  if (given.length) plan.given = enquiriesGiven(given);
  if (Object.keys(advance).length) plan.advance = advance;
  plan.touches = touchesOf(plan, submission, destination);
  if (isEmptyDiff(plan.diff) && !plan.touches.length && !plan.effects?.some(({ made, out }) => made ?? out)) {
    return stopped(plan, {
      code: 'nothing-to-write',
      text: nothingToWrite(plan.writes, destination),
    });
  }
  return plan;
}

/** Why nothing at all is written: where the writes have reasons of their own, those. */
function nothingToWrite(writes: readonly PlannedWrite[], destination: Destination): string {
  const reasons = writes
    .filter(({ unmet, leftOut }) => unmet !== undefined || leftOut)
    .map((write) => `No ${recordWord(destination, write.record)} was written: ${whyNothing(write, destination)}.`);
  return reasons.join(' ') || 'The submission gave nothing that the route could write.';
}

/** What follow-ups may know of a write: its record, where there is one. */
function recordOf({ planned: { as, record: kind, id, did }, values, left = false }: WriteStep): EffectRecord[] {
  return id && values && did !== 'none' ? [{ as, kind, id, did, left, values }] : [];
}

/** A write with what the follow-ups change on its record. */
function withMarks(write: PlannedWrite, fields: readonly FieldTrace[] = []): PlannedWrite {
  if (!fields.length) return write;
  return { ...write, did: write.did === 'keep' ? 'change' : write.did, fields: [...write.fields, ...fields] };
}

function addStep(diff: RecordsDiff, { planned, before, values, merges = [] }: WriteStep): void {
  if (!planned.id || !values) return;
  const joined = squashAll(merges.map((merge) => merge.diff));
  Object.assign(diff.removed, joined.removed);
  diff.linked.push(...joined.linked);
  diff.unlinked.push(...joined.unlinked);
  if (!before) diff.created[planned.id] = { kind: planned.record, values };
  else if (planned.did === 'change')
    diff.changed[planned.id] = { kind: planned.record, fields: changesBetween(before.values, values) };
  for (const to of planned.linked) diff.linked.push({ from: planned.id, to });
}

function touchesOf(plan: Plan, submission: Submission, destination: Destination): Touch[] {
  const { visit, receivedAt } = submission;
  const own = { ...sourceOf(submission, destination), page: pathOf(visit.page), at: receivedAt };
  const before = visitsBefore(visit.earlier ?? [], receivedAt).map((earlier) => ({
    ...sourceOfWay(wayBefore(earlier), destination),
    page: pathOf(earlier.visit.page),
    at: earlier.at,
    earlier: earlier.id,
  }));
  return plan.writes.flatMap(({ id }) =>
    id === null ? [] : [own, ...before].map((touch) => ({ record: id, ...touch })),
  );
}

function stopped(plan: Plan, reason: Reason): Plan {
  const { newOptions: _, merges: __, effects: ___, advance: ____, ...rest } = plan;
  return { ...rest, outcome: REASON_CODES[reason.code].outcome, reason, diff: emptyDiff(), touches: [] };
}
