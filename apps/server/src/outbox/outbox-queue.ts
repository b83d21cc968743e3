import { Inject, Injectable } from '@nestjs/common';
import { LIMITS, type RecordKind } from '@haycart/core';
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
/** So many go out as one, with the first; what is left waits for the next. */
const MOST_TOGETHER = 25;
/** Of those that go out as one, only the first is taken, and none while one was taken whose others are not known yet. */
const FIRST = `(sent_with is null or sent_with = id) and not (together and sent_with is null and tries = 0 and exists (
  select 1 from outbox b where b.workspace_id = o.workspace_id and b.kind = o.kind and b.target = o.target and b.together and b.state = 'waiting'
    and b.sent_with is null and (b.tries > 0 or (b.due_at, b.id) < (o.due_at, o.id))))`;
const ITEM = `id, kind, target, key, body, tries, created_at as "createdAt", now() as "takenAt", together, sent_with as "sentWith", record_kind, record_id`;

/** What came of a try, to be noted. */
export interface TriedItem {
  item: DueItem;
  state: OutboxState;
  error: string | null;
  /** After how many seconds it is tried again, where it waits. */
  seconds: number;
  /** Whether it was not tried at all. */
  untried: boolean;
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
           select id, ${LANE} as lane, due_at from outbox o where workspace_id = $1 and state = 'waiting' and due_at <= now() and ${LANE} <> all($2::text[])
             and ${FIRST} order by due_at, id limit ${LOOKED_AT} for update skip locked
         ), in_turn as (
           select l.id, l.due_at, row_number() over (partition by l.lane order by l.due_at, l.id) + coalesce(u.n, 0) as n,
             case when l.lane = any($8::text[]) then $9::int else $6::int end as most
           from looked_at l left join unnest($3::text[], $4::int[]) u (lane, n) on u.lane = l.lane
         )
         update outbox set attempts = attempts + 1, tries = tries + 1, due_at = now() + make_interval(secs => $5)
         where workspace_id = $1 and id in (select id from in_turn where n <= most order by due_at, id limit $7)
         returning ${ITEM}`,
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
    return rows.map((row) => itemOf(workspaceId, row));
  }

  /** Takes what goes out as one with something that was taken: at its first try what waits for the same receiver, and then those again. */
  async claimWith({ workspaceId, id, kind, target, tries, sentWith }: DueItem): Promise<DueItem[]> {
    const rows = await this.database.inWorkspace(workspaceId, (tx) =>
      tx.statement<ClaimedRow & Record<string, unknown>>(
        'claim_together',
        `with waiting as (
           select id from outbox where workspace_id = $1 and kind = $3 and target = $4 and together and state = 'waiting' and sent_with is null
             and tries = 0 and $6::uuid is null order by due_at, id limit ${MOST_TOGETHER - 1} for update skip locked
         )
         update outbox set sent_with = $2, tries = $5, attempts = attempts + case when id = $2 then 0 else 1 end, due_at = now() + make_interval(secs => ${ON_ITS_WAY})
         where workspace_id = $1 and state = 'waiting' and (id = $2 or id in (select id from waiting) or ($6::uuid is not null and sent_with = $2))
         returning ${ITEM}`,
        [workspaceId, id, kind, target, tries, sentWith],
      ),
    );
    const others = rows.filter((row) => row.id !== id).map((row) => itemOf(workspaceId, row));
    return others.sort((a, b) => a.createdAt.getTime() - b.createdAt.getTime() || (a.id < b.id ? -1 : 1));
  }

  /** Notes what came of tries, unless somebody cancelled them meanwhile, or another process took them for lost. */
  async note(workspaceId: string, tried: readonly TriedItem[]): Promise<void> {
    await this.database.inWorkspace(workspaceId, async (tx) => {
      await tx.statement(
        'note_outgoing',
        `update outbox o set state = n.state, last_error = n.error, due_at = now() + make_interval(secs => n.seconds),
           ended_at = case when n.state = 'waiting' then null else now() end,
           tries = o.tries - n.untried, attempts = o.attempts - n.untried
         from unnest($2::uuid[], $3::int[], $4::text[], $5::text[], $6::float8[], $7::int[]) n (id, tries, state, error, seconds, untried)
         where o.workspace_id = $1 and o.id = n.id and o.tries = n.tries and (o.state = 'waiting' or n.state = 'done')`,
        [
          workspaceId,
          tried.map(({ item }) => item.id),
          tried.map(({ item }) => item.tries),
          tried.map(({ state }) => state),
          tried.map(({ error }) => error?.slice(0, LONGEST_ERROR) ?? null),
          tried.map(({ seconds }) => seconds),
          tried.map(({ untried }) => Number(untried)),
        ],
      );
      const givenUp = tried.some(({ state }) => state === 'given-up');
      await this.events.tell(tx, 'outbox', ...(givenUp ? (['decisions'] as const) : []));
    });
  }

  /** Takes a turn in a lane that takes only so many a minute: 0 where it may go now, else in how many seconds the next may. */
  async takeTurn(workspaceId: string, lane: string, perMinute: number): Promise<number> {
    const [turn] = await this.database.inWorkspace(workspaceId, (tx) =>
      tx.statement<{ seconds: number }>(
        'take_outgoing_turn',
        `with taken as (
           insert into outbox_pace as p (workspace_id, lane, next_at) values ($1, $2, now() + make_interval(secs => 60.0 / $3))
           on conflict (workspace_id, lane) do update set next_at = excluded.next_at where p.next_at <= now() returning 0::float8 as seconds
         )
         -- Who took it at the same moment is not seen yet, so whoever has none waits at least as long as a turn, or a second.
         select coalesce((select seconds from taken), greatest((select extract(epoch from next_at - now())::float8 from outbox_pace where workspace_id = $1 and lane = $2), least(1, 60.0 / $3))) as seconds`,
        [workspaceId, lane, perMinute],
      ),
    );
    return turn!.seconds;
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

function itemOf(workspaceId: string, { record_kind: kind, record_id: id, ...item }: ClaimedRow): DueItem {
  return { ...item, workspaceId, record: kind && id ? { kind, id } : null };
}

interface ClaimedRow extends Omit<DueItem, 'workspaceId' | 'record'> {
  record_kind: RecordKind | null;
  record_id: string | null;
}
