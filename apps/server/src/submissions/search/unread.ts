import type { WorkspaceTx } from '../../platform/database/database';

/** A submission becomes visible so many milliseconds after its id was made, at most: it may be written in a longer transaction. */
const SETTLED_MS = 3 * 60_000;
const TIME_DIGITS = 12;
const BEGINNING = '00000000-0000-0000-0000-000000000000';

/**
 * The id from which on there may be submissions that are not read for the search. It is asked for by itself, since the
 * database plans well for an id that it is told.
 */
export async function firstUnread(tx: WorkspaceTx): Promise<string> {
  const [row] = await tx.statement<{ until: string }>(
    'read_until',
    'select until from submission_reading where workspace_id = $1',
    [tx.workspaceId],
  );
  return row?.until ?? BEGINNING;
}

/**
 * Keeps up to which id all is read: the last id that was read, or the end when nothing was left. What may still be on its
 * way is left out. So a long beginning does not look through what was read with each batch.
 */
export async function keepReadUntil(tx: WorkspaceTx, upTo?: string): Promise<void> {
  const [row] = await tx.statement<{ now: Date }>('read_now', 'select now()', []);
  const settled = firstIdAt(row!.now.getTime() - SETTLED_MS);
  await tx.statement(
    'keep_read_until',
    `insert into submission_reading as r (workspace_id, until) values ($1, $2)
     on conflict (workspace_id) do update set until = excluded.until where r.until < excluded.until`,
    [tx.workspaceId, upTo !== undefined && upTo < settled ? upTo : settled],
  );
}

/** The smallest UUIDv7 (RFC 9562) of a time: its first 48 bits are milliseconds. */
function firstIdAt(at: number): string {
  const time = at.toString(16).padStart(TIME_DIGITS, '0');
  return `${time.slice(0, 8)}-${time.slice(8)}-0000-0000-000000000000`;
}

/** `from … where …` of the submissions `s` that are not read yet; `$1` is the workspace, `$2` what `firstUnread` tells. */
export const UNREAD = `from submission s where s.workspace_id = $1 and s.id >= $2
  and not exists (select 1 from submission_search k where k.workspace_id = s.workspace_id and k.submission_id = s.id)`;
