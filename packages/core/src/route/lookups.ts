import { fieldOf, type Destination } from '../destination/destination';
import type { FieldValues } from '../diff/record';
import { identityKeysOf, identityKeyText, uniqueFieldsOf, type IdentityKey } from '../identity/keys';
import type { RouteDefinition, Write } from './definition';
import { finisherContext, submissionReader } from './part-reader';
import { workOutFill } from './plan-fields';
import type { Submission } from './submission';

/** What must be looked up before a submission can be planned. */
export interface Lookups {
  /** The records that have one of these keys: to recognise them, and because a key belongs to one record only. */
  keys: IdentityKey[];
  /** Whether the deals of the contacts found are needed too. */
  deals: boolean;
}

/** The fields that give a record its unique identity keys. */
const IDENTIFYING: Record<Write['record'], readonly string[]> = {
  contact: ['email'],
  company: ['domain'],
  lead: ['email'],
  deal: [],
};

/**
 * Everything that `planRun` will want to know about existing records. Only answers, the visit and fixed texts can take
 * part in recognising: a part that takes from an earlier write is blank here.
 */
export function lookupsFor(route: RouteDefinition, submission: Submission, destination: Destination): Lookups {
  const read = submissionReader(submission);
  const ground = { submission, read, finishing: finisherContext(submission, destination), destination };
  const uniques = uniqueFieldsOf(destination.fields);
  const keys = route.writes.flatMap((write) => {
    const values: FieldValues = {};
    for (const fill of write.fills) {
      const identifies =
        IDENTIFYING[write.record].includes(fill.field) || uniques[write.record]?.includes(fill.field) === true;
      const field = identifies && fieldOf(destination, write.record, fill.field);
      if (!field) continue;
      const { value } = workOutFill(write.record, fill, ground);
      if (value !== null) values[fill.field] = value;
    }
    return identityKeysOf(write.record, values, uniques);
  });
  return { keys, deals: route.writes.some(({ record }) => record === 'deal') };
}

/** The same text for lookups that ask for the same. */
export function lookupsText({ keys, deals }: Lookups): string {
  return JSON.stringify([deals, ...new Set(keys.map(identityKeyText))].sort());
}
