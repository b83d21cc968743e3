import {
  namedOwner,
  settledOwner,
  type DecidedOwner,
  type NamedOwner,
  type OwnerRule,
} from '../../assignment/choose-owner';
import { assign } from '../../assignment/assign';
import type { AssignmentGround } from '../../assignment/assigned';
import type { Counters } from '../../assignment/counters';
import type { PlannedAssignment } from '../../assignment/planned-assignments';
import type { Destination } from '../../destination/destination';
import { converted } from '../../destination/rates';
import { isMoney, type FieldValues } from '../../diff/record';
import { warning, type Problem } from '../../problem';
import type { Write } from '../../definition/route-definition';
import type { FieldTrace } from './plan';
import type { Submission } from '../../payload/submission';

/** The owner that a route gives to a record which has none. */
export interface PlannedOwner {
  values: FieldValues;
  fields: FieldTrace[];
  problems: Problem[];
  /** By how much the counters that decided it go on. */
  advance: Readonly<Record<string, number>>;
  /** How it came about, for who asks later. */
  given?: Pick<PlannedAssignment, 'person' | 'why' | 'team' | 'shares'>;
}

/** Chooses the owner of what one write writes. Nobody is chosen who is gone since the route was published; that is said. */
export function plannedOwner(
  { owner: rule, record }: Pick<Write, 'owner' | 'record'>,
  values: FieldValues,
  submission: Pick<Submission, 'origin' | 'receivedAt'>,
  destination: Destination,
  counters: Counters,
  ownerOf: (decided: DecidedOwner) => NamedOwner | null = () => null,
  owners?: AssignmentGround['owners'],
): PlannedOwner {
  if (!rule || values.owner !== undefined) return { values: {}, fields: [], problems: [], advance: {} };
  const settled = settledOwner(rule, ownerOf);
  const worth = record === 'deal' ? worthOf(values, submission.receivedAt, destination) : 0;
  const assigned = settled && assign(settled, record, { submission, destination, counters, owners, worth });
  const owner = assigned?.person;
  if (!owner)
    return {
      values: {},
      fields: [],
      advance: {},
      problems: [warning('no-owner', `The ${record} has no owner: ${nobodyIn(settled ?? rule)}`)],
    };
  const { advance, why, team, shares } = assigned!;
  return {
    values: { owner },
    fields: [
      {
        field: 'owner',
        before: null,
        after: owner,
        offered: null,
        did: 'write',
        why: 'assigned',
        said: why,
        trace: null,
      },
    ],
    problems: [],
    given: { person: owner, why, ...(team ? { team } : {}), ...(shares ? { shares } : {}) },
    advance,
  };
}

/** What a deal is worth in minor units of the workspace's currency at the rate of the day; nothing where no rate holds. */
function worthOf({ value }: FieldValues, at: string, { defaultCurrency, rates = [] }: Destination): number {
  return (isMoney(value) && converted(value, defaultCurrency, at.slice(0, 10), rates)?.amount) || 0;
}

/** Why a rule gives something to nobody, as the end of a sentence. */
export function nobodyIn(rule: OwnerRule): string {
  const named = namedOwner(rule);
  if ('decision' in rule) return `the table “${rule.decision}” names nobody as ${rule.output}.`;
  if (!named) return 'no colleague entered it.';
  const whom = 'person' in named ? `the person “${named.person}”` : `the team “${named.team}”`;
  return `${whom} is gone, or nobody there is active and not away.`;
}
