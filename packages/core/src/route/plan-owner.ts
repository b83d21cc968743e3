import { chooseOwner, namedOwner, type OwnerRule } from '../assignment/choose-owner';
import type { Destination } from '../destination/destination';
import type { FieldValues, RecordKind } from '../diff/record';
import { warning, type Problem } from '../problem';
import type { Write } from './definition';
import type { FieldTrace } from './plan';
import type { Submission } from './submission';

/** The owner that a route gives to a record which has none. */
export interface PlannedOwner {
  values: FieldValues;
  fields: FieldTrace[];
  problems: Problem[];
}

/** Chooses the owner of what one write writes. Nobody is chosen who is gone since the route was published; that is said. */
export function plannedOwner(
  { owner: rule, record }: Pick<Write, 'owner' | 'record'>,
  values: FieldValues,
  submission: Pick<Submission, 'id' | 'visit'>,
  destination: Destination,
): PlannedOwner {
  if (!rule || values.owner !== undefined) return { values: {}, fields: [], problems: [] };
  const owner = chooseOwner(rule, record, submission, destination);
  if (!owner) return { values: {}, fields: [], problems: [warning('no-owner', noOwner(rule, record))] };
  return {
    values: { owner },
    fields: [{ field: 'owner', before: null, after: owner, offered: null, did: 'write', why: 'assigned', trace: null }],
    problems: [],
  };
}

function noOwner(rule: OwnerRule, record: RecordKind): string {
  const named = namedOwner(rule);
  if (!named) return `The ${record} has no owner: no colleague entered it.`;
  const whom = 'person' in named ? `the person “${named.person}”` : `the team “${named.team}”`;
  return `The ${record} has no owner: ${whom} is gone, or nobody there is active.`;
}
