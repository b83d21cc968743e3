import { Counters } from '../../assignment/counters';
import type { PlannedAssignment } from '../../assignment/planned-assignments';
import type { Destination, Pipeline, Stage } from '../../destination/destination';
import { fieldOf } from '../../destination/destination';
import { changesBetween } from '../../diff/records-diff';
import type { FieldValues } from '../../diff/record';
import type { Write } from '../../definition/route-definition';
import type { KnownRecord } from '../../diff/known-record';
import type { NewOption, Plan, PlannedRunMerge, PlannedWrite, PlaceTrace, Reason } from './plan';
import { givenFor, planFields, valuesAfter, workOutFills } from './plan-fields';
import { asDecided } from './as-decided';
import { existingRecord, mergedRecord } from './existing-record';
import type { Recognised } from './plan-match';
import { plannedOwner } from './plan-owner';
import { findPlace, moveTo, stageValues } from './plan-place';
import { blankField, holdReason, nothingFits, takenKey, unknownField } from './stop-reasons';
import type { WriteContext } from './write-context';

/** Nobody has had a turn yet. */
export const NO_COUNTERS = new Counters();

/** What one write of a route comes to. */
export interface WriteStep {
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
  /** By how much the counters that decided who gets the record go on. */
  advance?: Readonly<Record<string, number>>;
  /** Who is given the record, where somebody is. */
  given?: PlannedAssignment;
}

/** Plans one write: what it fills in, which record it is, who looks after it and where it stands. */
export function planWrite(asked: Write, context: WriteContext): WriteStep {
  const write = asDecided(asked, context.read);
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
    advance: owner?.advance ?? {},
    ...(owner?.given ? { given: { record: write.record, id, ...owner.given, ...pipelineIn(values) } } : {}),
  };
}

function pipelineIn({ pipeline }: FieldValues): Pick<PlannedAssignment, 'pipeline'> {
  return typeof pipeline === 'string' ? { pipeline } : {};
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
export function nothingOf({ as, record }: Write): PlannedWrite {
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

function requiredBlanks(write: Write, values: FieldValues, destination: Destination): string[] {
  return destination.fields
    .filter(({ record, required, key }) => record === write.record && required && values[key] === undefined)
    .map(({ key }) => key);
}

function stoppedStep(planned: PlannedWrite, problems: Plan['problems'], stop: Reason): WriteStep {
  return { planned, problems, stop };
}
