import type { FieldValue, KnownRecords } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import { newId } from '../platform/new-id';
import type { CausedDiff } from './history/caused-diff';

/** What is kept of records besides their changes because it is asked for by time: the ways through pipelines and lists. */

interface StageMove {
  record: string;
  pipeline: string;
  from: string | null;
  to: string;
  at: string;
}

/** Keeps each step of deals and leads through their pipelines. */
export async function writeStageMoves(
  tx: WorkspaceTx,
  diffs: readonly CausedDiff[],
  known: KnownRecords,
): Promise<void> {
  const moves = diffs.flatMap((caused) => stageMovesOf(caused, known));
  if (!moves.length) return;
  await tx.statement(
    'stage_moves',
    `insert into stage_move (workspace_id, id, record_id, pipeline, from_stage, to_stage, at)
     select $1::uuid, * from unnest($2::uuid[], $3::uuid[], $4::text[], $5::text[], $6::text[], $7::timestamptz[])`,
    [
      tx.workspaceId,
      moves.map(() => newId()),
      moves.map(({ record }) => record),
      moves.map(({ pipeline }) => pipeline),
      moves.map(({ from }) => from),
      moves.map(({ to }) => to),
      moves.map(({ at }) => at),
    ],
  );
}

function stageMovesOf({ diff, at, cause }: CausedDiff, known: KnownRecords): StageMove[] {
  const moves: StageMove[] = [];
  // A record that comes back from a deletion has not been placed anew.
  const created = cause.kind === 'take-back' ? {} : diff.created;
  for (const [record, { values }] of Object.entries(created)) {
    if (typeof values.stage === 'string')
      moves.push({ record, pipeline: String(values.pipeline), from: null, to: values.stage, at });
  }
  for (const [record, { fields }] of Object.entries(diff.changed)) {
    const { stage, pipeline } = fields;
    if (typeof stage?.after !== 'string') continue;
    const way = String(pipeline?.after ?? known.get(record)!.values.pipeline);
    const from = pipeline || stage.before === null ? null : String(stage.before);
    moves.push({ record, pipeline: way, from, to: stage.after, at });
  }
  return moves;
}

/** Keeps when contacts come on lists and leave them. */
export async function writeMemberships(tx: WorkspaceTx, diffs: readonly CausedDiff[]): Promise<void> {
  for (const { joined, left, at } of diffs.map(membershipsOf)) {
    if (left.length)
      await tx.statement(
        'leave_list',
        `update list_membership m set left_at = $4::timestamptz from unnest($2::uuid[], $3::text[]) l (contact, list)
         where m.workspace_id = $1 and m.contact_id = l.contact and m.list_key = l.list and m.left_at is null`,
        [tx.workspaceId, left.map(({ contact }) => contact), left.map(({ list }) => list), at],
      );
    if (joined.length)
      await tx.statement(
        'join_list',
        `insert into list_membership (workspace_id, id, contact_id, list_key, joined_at)
         select $1::uuid, j.*, $5::timestamptz from unnest($2::uuid[], $3::uuid[], $4::text[]) j on conflict do nothing`,
        [
          tx.workspaceId,
          joined.map(() => newId()),
          joined.map(({ contact }) => contact),
          joined.map(({ list }) => list),
          at,
        ],
      );
  }
}

interface Membership {
  contact: string;
  list: string;
}

function membershipsOf({ diff, at }: CausedDiff): { joined: Membership[]; left: Membership[]; at: string } {
  const joined: Membership[] = [];
  const left: Membership[] = [];
  const compare = (contact: string, before: FieldValue | null | undefined, after: FieldValue | null | undefined) => {
    const [had, has] = [before, after].map((lists) => (Array.isArray(lists) ? lists : []));
    for (const list of has!) if (!had!.includes(list)) joined.push({ contact, list });
    for (const list of had!) if (!has!.includes(list)) left.push({ contact, list });
  };
  for (const [id, { values }] of Object.entries(diff.created)) compare(id, null, values.lists);
  for (const [id, { fields }] of Object.entries(diff.changed))
    if (fields.lists) compare(id, fields.lists.before, fields.lists.after);
  return { joined, left, at };
}
