import { Counters } from '../../assignment/counters';
import { REASON_CODES } from '../../codes';
import type { Destination, Pipeline, Stage } from '../../destination/destination';
import { fieldOf, recordWord } from '../../destination/destination';
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
import { sourceOf, type Touch } from '../../source/source';
import type { FieldValues } from '../../diff/record';
import type { RouteDefinition, Write } from '../../definition/route-definition';
import type { KnownRecords } from '../../identity/known-records';
import type { KnownRecord } from '../../diff/known-record';
import { finisherContext, submissionReader, withEarlierWrites } from './part-reader';
import type { FieldTrace, NewOption, Plan, PlannedRunMerge, PlannedWrite, PlaceTrace, Reason } from './plan';
import { givenFor, planFields, valuesAfter, workOutFills } from './plan-fields';
import { existingRecord, mergedRecord } from './existing-record';
import type { Recognised } from './plan-match';
import { planHolds } from './plan-holds';
import { planEffects } from './plan-effects';
import { plannedOwner } from './plan-owner';
import { conditionMet } from '../editing/route-conditions';
import { whyNothing } from '../telling/why';
import { wouldDo } from '../telling/would-do';
import { findPlace, moveTo, stageValues } from './plan-place';
import { blankField, holdReason, nothingFits, takenKey, unknownField } from './stop-reasons';
import type { Submission } from '../../payload/submission';
import type { Setting, WriteContext } from './write-context';

/** Nobody has had a turn yet. */
const NO_COUNTERS = new Counters();

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
      read: withEarlierWrites(submissionReader(submission), written, facts),
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
  const turns = new Set<string>();
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
    for (const counter of step.counters ?? []) turns.add(counter);
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
    for (const turn of planned.turns) turns.add(turn);
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
  if (turns.size) plan.advance = Object.fromEntries([...turns].map((turn) => [turn, 1]));
  plan.touches = touchesOf(plan, submission);
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

interface WriteStep {
  planned: PlannedWrite;
  problems: Plan['problems'];
  /** Whether the route leaves the record as it is. */
  left?: boolean;
  /** The record's values before and after; absent when nothing is written. */
  before?: KnownRecord | undefined;
  values?: FieldValues;
  /** What makes one of the record and others. */
  merges?: readonly PlannedRunMerge[] | undefined;
  /** Why nothing of the run is written. */
  stop?: Reason;
  newOptions?: NewOption[];
  /** The counters that decided who gets the record. */
  counters?: string[];
}

function planWrite(write: Write, context: WriteContext): WriteStep {
  const { submission, known, setting } = context;
  const nothing = nothingOf(write);
  const gone = write.fills.find(({ field }) => !fieldOf(setting.destination, write.record, field));
  if (gone) return stoppedStep(nothing, [], unknownField(write, gone.field));

  const filled = workOutFills(write, { ...context, destination: setting.destination });
  const problems = filled.flatMap((value) => value.problems);
  const waiting = filled.find(({ hold }) => hold);
  if (waiting) return { planned: nothing, problems: [], stop: holdReason(write, waiting, setting.destination) };
  const needed = filled.find(({ fill, value }) => fill.ifEmpty === 'fail' && value === null);
  if (needed) return stoppedStep(nothing, problems, blankField(write, [needed.fill.field], setting.destination));
  const given = givenFor(filled);
  if (given === 'nothing') return { planned: nothing, problems };

  const found =
    write.place && (write.record === 'deal' || write.record === 'lead')
      ? findPlace(write.place, write.record, context.read, context.finishing, setting.destination)
      : null;
  if (found && !found.ok) return stoppedStep(nothing, problems, found.reason);

  const recognised = existingRecord(write, filled, found?.ok ? found : null, context);
  const { match, then, ask } = recognised;
  if (ask) return { planned: { ...nothing, match }, problems, stop: ask };
  if (then === 'skip') return { planned: { ...nothing, match, leftOut: true }, problems };
  const merged = recognised.record ? mergedRecord(recognised.record, recognised.also, context) : null;
  const record = merged?.record;

  if (!record && given === 'unreadable')
    return stoppedStep({ ...nothing, match }, problems, nothingFits(write, problems));

  const leave = record !== undefined && leavesRecord(write, then);
  const fields = planFields(filled, record, {
    fillBlanks: then === 'fill-blanks',
    leave,
    at: submission.receivedAt,
  });
  const { values: filledIn, derived } = leave
    ? { values: { ...record.values }, derived: [] }
    : valuesAfter(write.record, record?.values ?? {}, fields);
  const owner = leave
    ? null
    : plannedOwner(
        write,
        filledIn,
        submission,
        setting.destination,
        setting.counters ?? NO_COUNTERS,
        context.ownerOf,
        ownersBefore(context),
      );
  const values = { ...filledIn, ...owner?.values };
  problems.push(...(owner?.problems ?? []));
  const id = record?.id ?? setting.newIds[write.as]!;
  const place = found?.ok ? planPlace(write, found, record, leave, submission.receivedAt) : null;
  Object.assign(values, place?.values ?? (write.record === 'lead' && !record ? { status: 'open' } : {}));

  const planned: PlannedWrite = {
    as: write.as,
    record: write.record,
    id,
    did: !record ? 'create' : Object.keys(changesBetween(merged!.before.values, values)).length ? 'change' : 'keep',
    match,
    fields: [...fields, ...derived, ...(owner?.fields ?? [])],
    linked: newLinks(write, id, match.merged ?? [], context),
    place: place?.trace ?? null,
  };
  const blank = record ? [] : requiredBlanks(write, values, setting.destination);
  if (blank.length)
    return stoppedStep({ ...planned, id: null, did: 'none' }, problems, blankField(write, blank, setting.destination));
  const anotherPerson = !record && match.by === 'person';
  const taken = takenKey(write, id, values, known, setting.destination, { merged: match.merged, anotherPerson });
  if (taken) return stoppedStep({ ...planned, id: null, did: 'none' }, problems, taken);
  return {
    planned,
    problems,
    left: leave,
    before: merged?.before,
    values,
    merges: merged?.merges,
    newOptions: filled.flatMap(({ newOptions }) => newOptions),
    counters: [owner?.turn, owner?.load].filter((counter) => counter !== undefined),
  };
}

/** Who looks after the contact and the company that were written before. */
function ownersBefore({ earlier, written }: WriteContext): Partial<Record<'contact' | 'company', string>> {
  const owners: Partial<Record<'contact' | 'company', string>> = {};
  for (const { as, record } of earlier) {
    const owner = written.get(as)?.owner;
    if ((record === 'contact' || record === 'company') && typeof owner === 'string') owners[record] ??= owner;
  }
  return owners;
}

/** A write that writes nothing. */
function nothingOf({ as, record }: Write): PlannedWrite {
  const match = { by: null, key: null, found: 0 };
  return { as, record, id: null, did: 'none', match, fields: [], linked: [], place: null };
}

function leavesRecord(write: Write, then: Recognised['then']): boolean {
  return write.place ? write.place.again === 'leave' || write.place.again === 'new-if-closed' : then === 'leave';
}

function planPlace(
  write: Write,
  found: { pipeline: Pipeline; stage: Stage },
  record: KnownRecord | undefined,
  leave: boolean,
  at: string,
): { values: FieldValues; trace: PlaceTrace } {
  const { pipeline, stage } = found;
  if (!record)
    return {
      values: stageValues(pipeline, stage, at),
      trace: { pipeline: pipeline.key, stage: stage.key, did: 'placed' },
    };
  if (leave) return { values: {}, trace: { pipeline: pipeline.key, stage: String(record.values.stage), did: 'left' } };
  return moveTo(record, write.place!, found, at);
}

/** Links of records that become one with it are moved along with them. */
function newLinks(write: Write, id: string, merged: readonly string[], { earlier, known }: WriteContext): string[] {
  const targets = (write.links ?? []).flatMap((name) => earlier.find(({ as }) => as === name)?.id ?? []);
  const own = [id, ...merged];
  return targets.filter((to) => !own.some((from) => known.isLinked({ from, to })));
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

function touchesOf(plan: Plan, submission: Submission): Touch[] {
  const source = sourceOf(submission.visit, submission.origin);
  return plan.writes
    .filter(({ id }) => id !== null)
    .map(({ id }) => ({ record: id!, ...source, page: submission.visit.page ?? null, at: submission.receivedAt }));
}

function requiredBlanks(write: Write, values: FieldValues, destination: Destination): string[] {
  return destination.fields
    .filter(({ record, required, key }) => record === write.record && required && values[key] === undefined)
    .map(({ key }) => key);
}

function stoppedStep(planned: PlannedWrite, problems: Plan['problems'], stop: Reason): WriteStep {
  return { planned, problems, stop };
}

function stopped(plan: Plan, reason: Reason): Plan {
  const { newOptions: _, merges: __, effects: ___, advance: ____, ...rest } = plan;
  return { ...rest, outcome: REASON_CODES[reason.code].outcome, reason, diff: emptyDiff(), touches: [] };
}
