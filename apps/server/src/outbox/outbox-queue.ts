import { Inject, Injectable } from '@nestjs/common';
import { LIMITS, type JsonValue, type RecordKind } from '@haycart/core';
import type { OutboxState } from '@haycart/api';
import { Database } from '../platform/database/database';
import { mostTaken, SHARED } from './lanes';
import { Events } from '../platform/events/events';
import type { DueItem } from './performers/performer';

/** How long something may be on its way before another process takes it for lost, in seconds. */
const ON_ITS_WAY = 2 * LIMITS.outgoingAnswer.most + 30;
/** So many that are due are looked at for some that may go now. */
const LOOKED_AT = 200;
/** A lane as one workspace names it. */
const LANE = `case when kind in (${SHARED.map((kind) => `'${kind}'`).join(', ')}) then kind else target end`;
const LONGEST_ERROR = 1_000;

/** What came of a try, to be noted. */
export interface TriedItem {
  item: DueItem;
  state: OutboxState;
  error: string | null;
  /** After how many seconds it is tried again, where it waits. */
  seconds: number;
}

/** The outbox as a queue: what is due is taken, many in one statement, and what came of it is noted in the same way. */
@Injectable()
export class OutboxQueue {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** The workspaces in which something is due. */
  async due(): Promise<string[]> {
    return (await this.database.gate<{ id: string }>('workspaces_sending')).map(({ id }) => id);
  }

  /**
   * Takes what has been due for longest; nobody else gets it unless this process is lost. `taken`: how much was taken and has
   * not ended, by lane (`LaneCounts.of`): of each some more is taken than may be on its way, so that the next is at hand.
   */
  async claim(workspaceId: string, most: number, taken: ReadonlyMap<string, number>): Promise<DueItem[]> {
    const full = [...taken].filter(([lane, n]) => n >= mostTaken(lane)).map(([lane]) => lane);
    const rows = await this.database.inWorkspace(workspaceId, (tx) =>
      tx.statement<ClaimedRow & Record<string, unknown>>(
        'claim_outgoing',
        `with looked_at as (
           select id, ${LANE} as lane, due_at from outbox where workspace_id = $1 and state = 'waiting' and due_at <= now() and ${LANE} <> all($2::text[])
           order by due_at, id limit ${LOOKED_AT} for update skip locked
         ), in_turn as (
           select l.id, l.due_at, row_number() over (partition by l.lane order by l.due_at, l.id) + coalesce(u.n, 0) as n,
             case when l.lane = any($8::text[]) then $9::int else $6::int end as most
           from looked_at l left join unnest($3::text[], $4::int[]) u (lane, n) on u.lane = l.lane
         )
         update outbox set attempts = attempts + 1, tries = tries + 1, due_at = now() + make_interval(secs => $5)
         where workspace_id = $1 and id in (select id from in_turn where n <= most order by due_at, id limit $7)
         returning id, kind, target, key, body, tries, created_at as "createdAt", record_kind, record_id`,
        [
          workspaceId,
          full,
          [...taken.keys()],
          [...taken.values()],
          ON_ITS_WAY,
          mostTaken(''),
          most,
          SHARED,
          mostTaken(SHARED[0]!),
        ],
      ),
    );
    return rows.map(({ record_kind: kind, record_id: id, ...item }) => ({
      ...item,
      workspaceId,
      record: kind && id ? { kind, id } : null,
    }));
  }

  /** Notes what came of tries, unless somebody cancelled them meanwhile, or another process took them for lost. */
  async note(workspaceId: string, tried: readonly TriedItem[]): Promise<void> {
    await this.database.inWorkspace(workspaceId, async (tx) => {
      await tx.statement(
        'note_outgoing',
        `update outbox o set state = n.state, last_error = n.error, due_at = now() + make_interval(secs => n.seconds),
           ended_at = case when n.state = 'waiting' then null else now() end
         from unnest($2::uuid[], $3::int[], $4::text[], $5::text[], $6::float8[]) n (id, tries, state, error, seconds)
         where o.workspace_id = $1 and o.id = n.id and o.tries = n.tries and (o.state = 'waiting' or n.state = 'done')`,
        [
          workspaceId,
          tried.map(({ item }) => item.id),
          tried.map(({ item }) => item.tries),
          tried.map(({ state }) => state),
          tried.map(({ error }) => error?.slice(0, LONGEST_ERROR) ?? null),
          tried.map(({ seconds }) => seconds),
        ],
      );
      const givenUp = tried.some(({ state }) => state === 'given-up');
      await this.events.tell(tx, 'outbox', ...(givenUp ? (['decisions'] as const) : []));
    });
  }

  /** The server stops: it is sent after the next start, and this try does not count. */
  async putBack({ workspaceId, id, tries }: DueItem): Promise<void> {
    await this.database.inWorkspace(workspaceId, (tx) =>
      tx.statement(
        'put_back_outgoing',
        `update outbox set attempts = attempts - 1, tries = tries - 1, due_at = now() where workspace_id = $1 and id = $2 and tries = $3 and state = 'waiting'`,
        [workspaceId, id, tries],
      ),
    );
  }
}

interface ClaimedRow {
  id: string;
  kind: string;
  target: string;
  key: string;
  body: JsonValue;
  tries: number;
  createdAt: Date;
  record_kind: RecordKind | null;
  record_id: string | null;
}
