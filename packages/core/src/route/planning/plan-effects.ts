import { assign } from '../../assignment/assign';
import { settledOwner, type DecidedOwner, type NamedOwner } from '../../assignment/choose-owner';
import { countedWork, type Counters } from '../../assignment/counters';
import { recordWord, type Destination } from '../../destination/destination';
import type { FieldValue, FieldValues, RecordKind } from '../../diff/record';
import { changesBetween, emptyDiff, type RecordsDiff } from '../../diff/records-diff';
import type { EffectRecord, EffectStep, MadeDocument, PlannedEffect } from '../../effect/effect';
import { effectOf } from '../../effect/registry';
import type { FinisherContext } from '../../value/finishers/finisher';
import { workOutValue, type PartReader } from '../../value/work-out-value';
import { warning, type Problem } from '../../problem';
import type { FollowUp, RouteDefinition } from '../../definition/route-definition';
import type { FieldTrace, Reason } from './plan';
import { workOutFill } from './plan-fields';
import { nobodyIn } from './plan-owner';
import { conditionMet } from '../editing/route-conditions';
import type { Submission } from '../../payload/submission';

/** What the follow-ups of a route do once its writes are planned. */
export interface PlannedEffects {
  effects: PlannedEffect[];
  /** What they change on the records written, and the same as traces by the write. */
  diff: RecordsDiff;
  fields: ReadonlyMap<string, FieldTrace[]>;
  problems: Problem[];
  /** Why the run waits for a person before anything is done. */
  hold: Reason | null;
  /** The counters that decided who gets something. */
  advance: Readonly<Record<string, number>>;
}

interface EffectsSetting {
  route: RouteDefinition;
  submission: Submission;
  destination: Destination;
  read: PartReader;
  finishing: FinisherContext;
  counters: Counters;
  ownerOf: (decided: DecidedOwner) => NamedOwner | null;
}

/** Plans the follow-ups in their order: a later one sees what those before it changed. */
export function planEffects(records: readonly EffectRecord[], setting: EffectsSetting): PlannedEffects {
  const planned = {
    effects: [] as PlannedEffect[],
    problems: [] as Problem[],
    hold: null as Reason | null,
    advance: {} as Record<string, number>,
  };
  let now = records;
  const documents: MadeDocument[] = [];
  for (const followUp of setting.route.followUps ?? []) {
    const step = planEffect(followUp, now, documents, setting);
    if (!step) continue;
    if (step.effect.made?.make === 'document') documents.push(step.effect.made);
    planned.effects.push(step.effect);
    planned.problems.push(...step.problems);
    planned.hold ??= step.hold;
    Object.assign(planned.advance, step.advance);
    const { changes } = step;
    if (changes)
      now = now.map((one) => (one.as === followUp.on ? { ...one, values: withChanges(one.values, changes) } : one));
  }
  return { ...planned, ...changesOf(records, now) };
}

interface PlannedStep {
  effect: PlannedEffect;
  problems: Problem[];
  changes?: EffectStep['changes'];
  hold: Reason | null;
  advance: Readonly<Record<string, number>>;
}

/** `null` for a kind that there is not, which `readRoute` refuses. */
function planEffect(
  followUp: FollowUp,
  records: readonly EffectRecord[],
  documents: readonly MadeDocument[],
  setting: EffectsSetting,
): PlannedStep | null {
  const { route, submission, destination, read, finishing } = setting;
  const kind = effectOf(followUp);
  if (!kind) return null;
  const record = records.find(({ as }) => as === followUp.on);
  const about = record ? { record: { kind: record.kind, id: record.id } } : {};
  const unmet = whyNot(followUp, record, setting);
  if (unmet)
    return { effect: { do: kind.do, words: kind.label, unmet, ...about }, problems: [], hold: null, advance: {} };
  let hold: Reason | null = null;
  const advance: Record<string, number> = {};
  const {
    words,
    out,
    made,
    changes,
    problems = [],
  } = kind.plan(followUp, {
    record,
    records,
    documents,
    route,
    submission,
    destination,
    workOut: (value) => {
      const worked = workOutValue(value, read, finishing);
      if (worked.hold) hold ??= { code: worked.hold.code, text: `${kind.label}: ${worked.hold.text}` };
      return worked;
    },
    fillIn(field, value) {
      if (!record) return { value: null, problems: [] };
      const filled = workOutFill(record.kind, { field, value }, { submission, read, finishing, destination });
      if (filled.hold) hold ??= { code: filled.hold.code, text: `${kind.label}: ${filled.hold.text}` };
      return filled;
    },
    chooseOwner(rule, of = 'contact') {
      const settled = settledOwner(rule, setting.ownerOf);
      const { counters } = setting;
      const owners = ownersOf(records);
      const assigned = settled && assign(settled, of, { submission, destination, counters, owners });
      const owner = assigned?.person ?? null;
      if (owner === null)
        return { owner, problems: [warning('no-owner', `${kind.label}: ${nobodyIn(settled ?? rule)}`)] };
      // A task is no deal: it does not count as more of those to look after, nor is it worth anything.
      for (const [name, by] of Object.entries(assigned?.advance ?? {}))
        if (!['load', 'worth'].includes(countedWork(name)?.what ?? '')) advance[name] = by;
      return { owner, problems: [] };
    },
  });
  const effect = { do: kind.do, words, ...about, ...(made ? { made } : {}), ...(out ? { out } : {}) };
  return { effect, problems, changes, hold, advance };
}

/** Who looks after the contact and the company that the run writes. */
function ownersOf(records: readonly EffectRecord[]): Partial<Record<'contact' | 'company', string>> {
  const owner = (kind: RecordKind) => records.find((one) => one.kind === kind)?.values.owner;
  const [contact, company] = [owner('contact'), owner('company')];
  return {
    ...(typeof contact === 'string' ? { contact } : {}),
    ...(typeof company === 'string' ? { company } : {}),
  };
}

/** Why a follow-up is not done; `null` when it is. */
function whyNot(
  followUp: FollowUp,
  record: EffectRecord | undefined,
  { route, submission, destination, read }: EffectsSetting,
): string | null {
  const met = followUp.when && conditionMet(followUp.when, read, route, submission, destination);
  if (met && !met.met) return `it is done only when ${met.unmet}`;
  const write = followUp.on === undefined ? undefined : route.writes.find(({ as }) => as === followUp.on);
  if (!write) return null;
  const word = recordWord(destination, write.record);
  if (!record) return `no ${word} was written`;
  return record.left ? `the route leaves the ${word} as it is` : null;
}

function withChanges(values: FieldValues, changes: Record<string, FieldValue | null>): FieldValues {
  const next = { ...values };
  for (const [field, value] of Object.entries(changes)) {
    if (value === null) delete next[field];
    else next[field] = value;
  }
  return next;
}

function changesOf(before: readonly EffectRecord[], after: readonly EffectRecord[]) {
  const diff = emptyDiff();
  const fields = new Map<string, FieldTrace[]>();
  after.forEach(({ as, id, kind, values }, index) => {
    const changed = changesBetween(before[index]!.values, values);
    if (!Object.keys(changed).length) return;
    diff.changed[id] = { kind, fields: changed };
    fields.set(
      as,
      Object.entries(changed).map(([field, change]) => ({
        field,
        ...change,
        offered: null,
        did: change.after === null ? 'clear' : 'write',
        why: 'marked',
        trace: null,
      })),
    );
  });
  return { diff, fields };
}
