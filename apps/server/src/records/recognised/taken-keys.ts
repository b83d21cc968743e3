import { isExclusive, type IdentityKey, type KnownRecords, type RecordsDiff } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { keysGained } from './identity-keys';
import type { KnownRecordsStore } from '../known-records.store';
import { recordName } from '../record-rows';

/**
 * E-mails, domains and unique values belong to one record: refuses a diff that would give one to a second.
 *
 * @param known The records as they are after the diff.
 * @throws ProblemError 409 that names the record that has it.
 */
export async function refuseTakenKeys(
  tx: WorkspaceTx,
  store: KnownRecordsStore,
  diff: RecordsDiff,
  known: KnownRecords,
): Promise<void> {
  const keys = keysGained(diff, known).filter(isExclusive);
  const twice = keys.find((key) =>
    keys.some(
      (other) =>
        other.id !== key.id && other.kind === key.kind && other.value === key.value && other.record === key.record,
    ),
  );
  if (twice) throw takenError(twice, 'two of these records');
  await store.lock(tx, keys);
  const owners = await store.owners(tx, keys);
  const taken = keys.find((key) =>
    owners.some(
      (owner) =>
        owner.record_kind === key.record &&
        owner.key_kind === key.kind &&
        owner.value === key.value &&
        owner.record_id !== key.id,
    ),
  );
  if (taken) {
    const owner = owners.find(({ value, key_kind: kind }) => value === taken.value && kind === taken.kind)!;
    const [other] = await store.byId(tx, taken.record, [owner.record_id], 'look');
    throw takenError(taken, other ? recordName(taken.record, other.values) : 'another record');
  }
}

function takenError({ record, kind, value }: IdentityKey, who: string): ProblemError {
  return new ProblemError('conflict', `${value} belongs to ${who} already, and only one ${record} may have it.`, [
    { at: `/values/${kind.replace(/^field:/, '')}`, code: 'identity-taken', message: `Another ${record} has it.` },
  ]);
}
