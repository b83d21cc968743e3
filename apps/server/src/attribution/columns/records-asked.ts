import type { PartOf } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { Values } from '../../platform/database/values';
import type { ListSetting } from '../../records/lists/record-lists.service';
import { isNarrowed, narrowedRecords, type Narrowing } from '../narrowing/narrowing';
import { joinedRecords, type Split } from '../narrowing/split';
import { int32s } from './packed';

/** Returns which records a report is about, by their number in the columns; null: all. @throws ProblemError for a wrong filter. */
export async function recordsAsked(
  tx: WorkspaceTx,
  narrowing: Narrowing,
  setting: ListSetting,
): Promise<Uint8Array | null> {
  if (!isNarrowed(narrowing)) return null;
  const values = new Values([tx.workspaceId]);
  const narrowed = narrowedRecords(narrowing, 'j.record_id', setting, values);
  const [row] = await tx.unnamed<{ nrs: Buffer | null }>(
    `select string_agg(int4send(j.nr), ''::bytea) as nrs from journey j where j.workspace_id = $1 ${narrowed}`,
    values.all,
  );
  const nrs = int32s(row!.nrs);
  const among = new Uint8Array(1 + largest(nrs));
  for (const nr of nrs) among[nr] = 1;
  return among;
}

/** Returns the values that first rows go by, and of each record which it has; `''` for those without. */
export async function partsAsked(
  tx: WorkspaceTx,
  split: Split | null,
): Promise<{ names: readonly string[]; partOf: PartOf }> {
  if (split === null) return { names: [], partOf: null };
  const values = new Values([tx.workspaceId]);
  const rows = await tx.unnamed<{ value: string; nrs: Buffer }>(
    `select part.value, string_agg(int4send(j.nr), ''::bytea) as nrs from journey j ${joinedRecords(split, 'j.record_id', values)}
     where j.workspace_id = $1 and part.value <> '' group by 1 order by 1`,
    values.all,
  );
  const parts = rows.map(({ nrs }) => int32s(nrs));
  const partOf = new Int32Array(1 + parts.reduce((most, nrs) => Math.max(most, largest(nrs)), 0));
  for (const [at, nrs] of parts.entries()) for (const nr of nrs) partOf[nr] = 1 + at;
  return { names: ['', ...rows.map(({ value }) => value)], partOf };
}

function largest(nrs: Int32Array): number {
  return nrs.reduce((most, nr) => Math.max(most, nr), 0);
}
