import { pipelineOf, stageOf, type Destination, type Pipeline, type Stage } from '../../destination/destination';
import { sameValue, type FieldValue, type FieldValues } from '../../diff/record';
import type { FinisherContext } from '../../value/finishers/finisher';
import { workOutValue, type PartReader } from '../../value/work-out-value';
import { counted, listInWords } from '../../text';
import type { Place } from '../../definition/route-definition';
import type { KnownRecords } from '../../identity/known-records';
import type { KnownRecord } from '../../diff/known-record';
import type { PlaceTrace, Reason } from './plan';

const DAY_MS = 86_400_000;

/** Where a deal is to stand, or why that place does not exist. */
export type FoundPlace = { ok: true; pipeline: Pipeline; stage: Stage } | { ok: false; reason: Reason };

/** What a lead is, by the state of its stage. */
export const LEAD_STATUS = { open: 'open', won: 'qualified', lost: 'set-aside' } as const;

/** Works out the pipeline and stage that a place names. They may be gone since the route was published. */
export function findPlace(
  place: Place,
  record: 'deal' | 'lead',
  read: PartReader,
  finishing: FinisherContext,
  destination: Destination,
): FoundPlace {
  const pipelineKey = workOutValue(place.pipeline, read, finishing).text;
  const stageKey = workOutValue(place.stage, read, finishing).text;
  const pipeline = pipelineOf(destination, pipelineKey);
  if (!pipeline || pipeline.record !== record) {
    return {
      ok: false,
      reason: {
        code: 'unknown-pipeline',
        text: `The route places ${record}s in the pipeline “${pipelineKey}”, which does not exist. Choose another on the route sheet, publish, and run this again.`,
      },
    };
  }
  const stage = stageOf(pipeline, stageKey);
  if (!stage) {
    const stages = listInWords(
      pipeline.stages.map(({ name }) => name),
      'or',
    );
    return {
      ok: false,
      reason: {
        code: 'unknown-stage',
        text: `The route places ${record}s in the stage “${stageKey}”, which ${pipeline.name} does not have. Choose ${stages} on the route sheet, publish, and run this again.`,
      },
    };
  }
  return { ok: true, pipeline, stage };
}

/** The deal that a second enquiry is about, and why those that the contact has besides are not it, in words. */
export interface DealToKeep {
  record: KnownRecord | undefined;
  passedOver: string[];
}

/**
 * The deal that a second enquiry is about, by the `again` rule: the latest one of the contact in that pipeline, begun not
 * too long before and with the same subject where the place says so.
 */
export function dealToKeep(
  { again, within, sameField }: Place,
  pipeline: Pipeline,
  contact: string | null,
  came: { values: FieldValues; at: string },
  known: KnownRecords,
): DealToKeep {
  if (again === 'new') return { record: undefined, passedOver: ['each enquiry makes another'] };
  if (contact === null) return { record: undefined, passedOver: [] };
  const since = within === undefined ? '' : new Date(Date.parse(came.at) - within * DAY_MS).toISOString();
  const against = ({ values, createdAt }: KnownRecord): string | null => {
    if (again !== 'leave' && values.status !== 'open') return 'closed';
    if (createdAt < since) return `begun more than ${counted(within!, 'day')} before`;
    if (sameField !== undefined && !sameSubject(values[sameField], came.values[sameField]))
      return 'about something else';
    return null;
  };
  const there = known
    .pointingTo(contact)
    .filter(({ kind, values }) => kind === 'deal' && values.pipeline === pipeline.key)
    .sort((a, b) => (a.createdAt < b.createdAt ? 1 : -1));
  const record = there.find((deal) => against(deal) === null);
  if (record) return { record, passedOver: [] };
  const reasons = new Map<string, number>();
  for (const why of there.map(against)) reasons.set(why!, (reasons.get(why!) ?? 0) + 1);
  return {
    record: undefined,
    passedOver: [...reasons].map(
      ([why, count]) => `${count} that the contact has there ${count === 1 ? 'is' : 'are'} ${why}`,
    ),
  };
}

/** Whether two subjects are one: capitals and spaces do not tell them apart. */
function sameSubject(one: FieldValue | undefined, other: FieldValue | undefined): boolean {
  const plain = (value: FieldValue | undefined) =>
    typeof value === 'string' ? value.normalize('NFKC').toLowerCase().replace(/\s+/g, ' ').trim() : (value ?? null);
  return sameValue(plain(one), plain(other));
}

/** Whether a lead may be the one that a second enquiry is about, by the `again` rule. */
export function mayKeepLead({ values }: KnownRecord, again: Place['again'], pipeline: Pipeline | null): boolean {
  return (
    again !== 'new' &&
    (pipeline === null || values.pipeline === pipeline.key) &&
    (again === 'leave' || values.status === 'open')
  );
}

/** The values that put a deal or lead into a stage, at a time (ISO 8601). */
export function stageValues(pipeline: Pipeline, stage: Stage, at: string): FieldValues {
  const placed: FieldValues = { pipeline: pipeline.key, stage: stage.key, status: stage.state, stage_since: at };
  if (pipeline.record === 'lead') return { ...placed, status: LEAD_STATUS[stage.state] };
  return stage.state === 'open' ? placed : { ...placed, closed_at: at };
}

/** How an existing deal moves: forward, or back where that is allowed; else it stays. */
export function moveTo(
  deal: KnownRecord,
  place: Place,
  { pipeline, stage }: { pipeline: Pipeline; stage: Stage },
  at: string,
): { values: FieldValues; trace: PlaceTrace } {
  const position = (key: unknown) => pipeline.stages.findIndex((candidate) => candidate.key === key);
  const from = position(deal.values.stage);
  const to = position(stage.key);
  const later = (deal.writtenAt.stage ?? '') > at;
  const moves = to !== from && !later && (to > from || place.backwards === true);
  const trace: PlaceTrace = {
    pipeline: pipeline.key,
    stage: moves ? stage.key : String(deal.values.stage),
    did: moves ? 'moved' : 'stays',
  };
  return { values: moves ? stageValues(pipeline, stage, at) : {}, trace };
}
