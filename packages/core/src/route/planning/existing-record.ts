import type { Pipeline } from '../../destination/destination';
import type { FieldValues, Link } from '../../diff/record';
import { planMerge } from '../../merging/plan-merge';
import { USUAL_MERGE_RULES } from '../../identity/survivorship';
import type { Write } from '../../definition/route-definition';
import type { KnownRecord } from '../../diff/known-record';
import type { MatchGround } from './match-candidates';
import type { PlannedRunMerge } from './plan';
import type { FilledValue } from './plan-fields';
import { recognise, type MatchAnswer, type Recognised } from './plan-match';
import { dealToKeep, mayKeepLead } from './plan-place';
import type { WriteContext } from './write-context';

/** The existing record that a write means: by its match rules, or the deal or lead that is open already. */
export function existingRecord(
  write: Write,
  filled: readonly FilledValue[],
  place: { pipeline: Pipeline } | null,
  context: WriteContext,
): Recognised {
  const { known, setting, submission, earlier, written } = context;
  const linked = earlier.filter(({ as, id }) => id !== null && write.links?.includes(as));
  const companies = linked.flatMap(({ record, id, as }) => {
    const values = record === 'company' ? written.get(as) : undefined;
    return values ? [{ id: id!, values }] : [];
  });
  const ground = { known, destination: setting.destination, companies, answer: setting.answers?.[write.as] };
  if (write.record === 'lead') return openLead(write, filled, place?.pipeline ?? null, ground);
  if (!write.place || !place) return recognise(write, filled, ground);
  const contact = linked.find(({ record }) => record === 'contact')?.id ?? null;
  const values: FieldValues = {};
  for (const { fill, value } of filled) if (value !== null) values[fill.field] = value;
  const came = { values, at: submission.receivedAt };
  const { record, passedOver } = dealToKeep(write.place, place.pipeline, contact, came, known);
  return {
    record,
    match: {
      by: record ? 'open-deal' : null,
      key: contact,
      found: record ? 1 : 0,
      ...(passedOver.length ? { notEnough: passedOver } : {}),
    },
    then: record ? 'update' : 'create',
    also: [],
  };
}

/** The open lead that is meant. */
function openLead(
  write: Write,
  filled: readonly FilledValue[],
  pipeline: Pipeline | null,
  ground: MatchGround & { answer?: MatchAnswer | undefined },
): Recognised {
  const again = write.place?.again ?? 'update';
  const recognised = recognise(write, filled, {
    ...ground,
    among: (record) => mayKeepLead(record, again, pipeline),
  });
  const { match } = recognised;
  return match.by === 'email' ? { ...recognised, match: { ...match, by: 'open-lead' } } : recognised;
}

/** The record with those that turned out to be it; `before` is as it was by itself. */
export function mergedRecord(
  before: KnownRecord,
  also: readonly KnownRecord[],
  { known, setting: { destination } }: WriteContext,
): { before: KnownRecord; record: KnownRecord; merges: PlannedRunMerge[] } {
  const merges: PlannedRunMerge[] = [];
  let record = before;
  let links = also.length ? known.links() : [];
  for (const other of also) {
    const { diff, fields } = planMerge({
      records: [record, other],
      links,
      rules: destination.merging ?? USUAL_MERGE_RULES,
      destination,
      originOf: () => null,
      survivor: before.id,
    });
    merges.push({ into: before.id, from: other.id, diff });
    const gone = new Set(diff.unlinked.map(linkText));
    links = [...links.filter((link) => !gone.has(linkText(link))), ...diff.linked];
    const values: FieldValues = {};
    for (const { field, value } of fields) if (value !== null) values[field] = value;
    record = { ...record, values, writtenAt: { ...other.writtenAt, ...record.writtenAt } };
  }
  return { before, record, merges };
}

function linkText({ from, to }: Link): string {
  return `${from} ${to}`;
}
