import { Inject, Injectable } from '@nestjs/common';
import type { JsonValue, RecordKind } from '@haycart/core';
import type { OutboxLine, OutboxShape, OutboxState, Page } from '@haycart/api';
import { and, desc, eq, inArray, isNotNull, sql } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { newId } from '../platform/new-id';
import { pageOf, type Cursor } from '../platform/paging';
import { outbox } from './tables';

const UNSENT = 'Not sent: its submission is of old, and the route caught up on it without sending.';

/** Something that a run sends once it is committed. */
export interface NewOutboxItem {
  submission: string;
  run: string;
  attempt: string;
  route: string;
  kind: string;
  to: string;
  key: string;
  body: JsonValue;
  record?: { kind: RecordKind; id: string } | undefined;
  /** Where it goes only after so many days. */
  inDays?: number | undefined;
  /** For how many minutes it waits for others of its kind to the same receiver, to go out as one with them. */
  together?: number | undefined;
  /** Whether it stays unsent until somebody asks for it. */
  unsent?: boolean | undefined;
}

export interface OutboxFilter {
  state?: OutboxState | undefined;
  kind?: string | undefined;
  /** Where to, whatever its capitals. */
  to?: string | undefined;
  run?: string | undefined;
}

/** What was given up of one route to one address. */
export interface GivenUp {
  /** The id of the decision that it waits for. */
  id: string;
  route: { id: string; name: string };
  /** How it was to be sent. */
  kind: string;
  to: string;
  why: string;
  count: number;
  /** The latest. */
  at: Date;
}

/** What runs send to the outside, with its states. `OutboxSender` sends it. */
@Injectable()
export class OutboxService {
  constructor(@Inject(Events) private readonly events: Events) {}

  /** Puts things out in the transaction of their runs: they are sent if that is committed, and not otherwise. */
  async put(tx: WorkspaceTx, items: readonly NewOutboxItem[]): Promise<void> {
    if (!items.length) return;
    await tx.db
      .insert(outbox)
      .values(
        items.map(
          ({
            submission: submissionId,
            run: runId,
            attempt,
            route: routeId,
            kind,
            to,
            key,
            body,
            record,
            inDays,
            together,
            unsent,
          }) => ({
            workspaceId: tx.workspaceId,
            id: newId(),
            submissionId,
            runId,
            attemptId: attempt,
            routeId,
            kind,
            target: to,
            key,
            body,
            recordKind: record?.kind ?? null,
            recordId: record?.id ?? null,
            ...(inDays === undefined ? {} : { dueAt: sql`now() + make_interval(days => ${inDays})` }),
            ...(together === undefined
              ? {}
              : { together: true, dueAt: sql`now() + make_interval(mins => ${together})` }),
            ...(unsent ? { state: 'cancelled' as const, endedAt: sql`now()`, lastError: UNSENT } : {}),
          }),
        ),
      )
      // What is there under its key is put out already.
      .onConflictDoNothing({ target: [outbox.workspaceId, outbox.key] });
    await this.events.tell(tx, 'outbox');
  }

  /** One page, the latest first. */
  async list(tx: WorkspaceTx, filter: OutboxFilter, limit: number, after: Cursor | null): Promise<Page<OutboxLine>> {
    const rows = await this.#select(tx)
      .where(
        and(
          eq(outbox.workspaceId, tx.workspaceId),
          filter.state && eq(outbox.state, filter.state),
          filter.kind === undefined ? undefined : eq(outbox.kind, filter.kind),
          filter.to === undefined ? undefined : sql`lower(${outbox.target}) = lower(${filter.to.trim()})`,
          filter.run === undefined ? undefined : eq(outbox.runId, filter.run),
          after ? sql`(${outbox.createdAt}, ${outbox.id}) < (${after.at}::timestamptz, ${after.id}::uuid)` : undefined,
        ),
      )
      .orderBy(desc(outbox.createdAt), desc(outbox.id))
      .limit(limit + 1);
    return pageOf(rows, limit, lineOf, ({ place, id }) => ({ at: place, id }));
  }

  /** @throws ProblemError 404 */
  async one(tx: WorkspaceTx, id: string): Promise<OutboxShape> {
    const [row] = await this.#select(tx).where(and(eq(outbox.workspaceId, tx.workspaceId), eq(outbox.id, id)));
    if (!row) throw nothingThere();
    return { ...lineOf(row), key: row.key, body: row.body, together: await this.#together(tx, row.sentWith) };
  }

  /** Has something sent again, also what was sent already. @throws ProblemError 404, or 409 where it waits anyway */
  async retry(tx: WorkspaceTx, id: string): Promise<OutboxShape> {
    const { state } = await this.one(tx, id);
    if (state === 'waiting') throw new ProblemError('conflict', 'It waits to be sent already.');
    await this.#sendAgain(tx, [id]);
    return this.one(tx, id);
  }

  /** Sends all that was given up under one decision again. Returns how many there were. */
  async retryGivenUp(tx: WorkspaceTx, decision: string): Promise<number> {
    const rows = await tx.db
      .select({ id: outbox.id })
      .from(outbox)
      .where(and(eq(outbox.workspaceId, tx.workspaceId), eq(outbox.decisionId, decision)));
    await this.#sendAgain(
      tx,
      rows.map(({ id }) => id),
    );
    return rows.length;
  }

  /** @throws ProblemError 404, or 409 where it does not wait any more */
  async cancel(tx: WorkspaceTx, id: string): Promise<OutboxShape> {
    await this.one(tx, id);
    const done = await tx.db
      .update(outbox)
      .set({ state: 'cancelled', endedAt: sql`now()` })
      .where(
        and(eq(outbox.workspaceId, tx.workspaceId), eq(outbox.id, id), inArray(outbox.state, ['waiting', 'given-up'])),
      )
      .returning({ id: outbox.id });
    if (!done.length) throw new ProblemError('conflict', 'It does not wait any more: it was sent or cancelled.');
    await this.#partFrom(tx, [id]);
    await this.events.tell(tx, 'outbox', 'decisions');
    return this.one(tx, id);
  }

  /** What taking back would find of some attempts: how much is sent already, and how much is not. */
  async ofAttempts(tx: WorkspaceTx, attempts: readonly string[]): Promise<{ sent: number; notSent: number }> {
    const [row] = await tx.statement<{ sent: number; not_sent: number }>(
      'outbox_of_attempts',
      `select count(*) filter (where state in ('done', 'returned'))::int as sent, count(*) filter (where state in ('waiting', 'given-up'))::int as not_sent
       from outbox where workspace_id = $1 and attempt_id = any($2::uuid[])`,
      [tx.workspaceId, attempts],
    );
    return { sent: row!.sent, notSent: row!.not_sent };
  }

  /** Cancels what attempts that are taken back have not sent yet. */
  async takeBack(tx: WorkspaceTx, attempts: readonly string[]): Promise<void> {
    const rows = await tx.statement<{ id: string }>(
      'outbox_taken_back',
      `update outbox set state = 'cancelled', taken_back = true, ended_at = now()
       where workspace_id = $1 and attempt_id = any($2::uuid[]) and state in ('waiting', 'given-up') returning id`,
      [tx.workspaceId, attempts],
    );
    await this.#partFrom(
      tx,
      rows.map(({ id }) => id),
    );
    if (rows.length) await this.events.tell(tx, 'outbox', 'decisions');
  }

  /** Sends after all what was cancelled since its attempt was taken back, when that is given back. */
  async giveBack(tx: WorkspaceTx, attempts: readonly string[]): Promise<void> {
    const rows = await tx.statement(
      'outbox_given_back',
      `update outbox set state = 'waiting', taken_back = false, tries = 0, sent_with = null, due_at = now(), ended_at = null
       where workspace_id = $1 and attempt_id = any($2::uuid[]) and state = 'cancelled' and taken_back returning id`,
      [tx.workspaceId, attempts],
    );
    if (rows.length) await this.events.tell(tx, 'outbox');
  }

  /** What was given up, by route and address, the latest first. */
  async givenUp(tx: WorkspaceTx, most: number, decision: string | null): Promise<GivenUp[]> {
    const rows = await tx.statement<Omit<GivenUp, 'route'> & { route: string; name: string }>(
      'outbox_given_up',
      `select o.decision_id as id, o.route_id as route, t.name, o.kind, o.target as "to", (array_agg(o.last_error order by o.ended_at desc))[1] as why,
         count(*)::int as count, max(o.ended_at) as at
       from outbox o join route t on t.workspace_id = o.workspace_id and t.id = o.route_id
       where o.workspace_id = $1 and o.decision_id is not null and ($3::text is null or o.decision_id = $3)
       group by 1, 2, 3, 4, 5 order by at desc limit $2`,
      [tx.workspaceId, most, decision],
    );
    return rows.map(({ route: id, name, ...given }) => ({ ...given, route: { id, name } }));
  }

  /** When something was given up last, by decision: from one to the next by the index, however much each is about. */
  async givenUpLast(tx: WorkspaceTx, most: number): Promise<{ id: string; at: Date }[]> {
    return tx.statement<{ id: string; at: Date }>(
      'outbox_given_up_last',
      `with recursive given_up (id) as (
         select min(decision_id) from outbox where workspace_id = $1 and decision_id is not null
         union all
         select (select min(decision_id) from outbox where workspace_id = $1 and decision_id > g.id) from given_up g where g.id is not null
       )
       select g.id, (select max(ended_at) from outbox where workspace_id = $1 and decision_id = g.id) as at from given_up g where g.id is not null limit $2`,
      [tx.workspaceId, most],
    );
  }

  /** The latest of what was given up under one decision. */
  async examplesOf(tx: WorkspaceTx, decision: string, most: number): Promise<OutboxLine[]> {
    const rows = await this.#select(tx)
      .where(and(eq(outbox.workspaceId, tx.workspaceId), eq(outbox.decisionId, decision), isNotNull(outbox.endedAt)))
      .orderBy(desc(outbox.endedAt))
      .limit(most);
    return rows.map(lineOf);
  }

  async #sendAgain(tx: WorkspaceTx, ids: string[]): Promise<void> {
    if (!ids.length) return;
    await tx.db
      .update(outbox)
      .set({
        state: 'waiting',
        takenBack: false,
        tries: 0,
        dueAt: sql`now()`,
        endedAt: null,
        // What went out as one with something that is not sent again goes by itself.
        sentWith: sql`case when ${inArray(outbox.sentWith, ids)} then ${outbox.sentWith} end`,
      })
      .where(and(eq(outbox.workspaceId, tx.workspaceId), inArray(outbox.id, ids)));
    await this.events.tell(tx, 'outbox', 'decisions');
  }

  /** What waits to go out as one with what was cancelled goes without it. */
  async #partFrom(tx: WorkspaceTx, ids: readonly string[]): Promise<void> {
    if (!ids.length) return;
    await tx.db
      .update(outbox)
      .set({ sentWith: null, tries: 0 })
      .where(
        and(eq(outbox.workspaceId, tx.workspaceId), inArray(outbox.sentWith, [...ids]), eq(outbox.state, 'waiting')),
      );
  }

  /** How many others went out, or go, as one with something. */
  async #together(tx: WorkspaceTx, sentWith: string | null): Promise<number> {
    if (sentWith === null) return 0;
    const all = await tx.db.$count(outbox, and(eq(outbox.workspaceId, tx.workspaceId), eq(outbox.sentWith, sentWith)));
    return all - 1;
  }

  #select(tx: WorkspaceTx) {
    return tx.db
      .select({
        id: outbox.id,
        kind: outbox.kind,
        target: outbox.target,
        state: outbox.state,
        attempts: outbox.attempts,
        runId: outbox.runId,
        routeId: outbox.routeId,
        routeName: sql<string>`(select name from route where workspace_id = ${outbox.workspaceId} and id = ${outbox.routeId})`,
        submissionId: outbox.submissionId,
        createdAt: outbox.createdAt,
        dueAt: outbox.dueAt,
        endedAt: outbox.endedAt,
        lastError: outbox.lastError,
        sentWith: outbox.sentWith,
        key: outbox.key,
        body: outbox.body,
        place: sql<string>`to_char(${outbox.createdAt} at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`,
      })
      .from(outbox);
  }
}

type Row = Pick<
  typeof outbox.$inferSelect,
  | 'id'
  | 'kind'
  | 'target'
  | 'state'
  | 'attempts'
  | 'runId'
  | 'submissionId'
  | 'routeId'
  | 'createdAt'
  | 'dueAt'
  | 'endedAt'
  | 'lastError'
> & { routeName: string };

function lineOf(row: Row): OutboxLine {
  return {
    id: row.id,
    kind: row.kind,
    to: row.target,
    state: row.state,
    attempts: row.attempts,
    run: row.runId,
    route: { id: row.routeId, name: row.routeName },
    submission: row.submissionId,
    createdAt: row.createdAt.toISOString(),
    dueAt: row.state === 'waiting' ? row.dueAt.toISOString() : null,
    doneAt: row.state === 'done' ? (row.endedAt?.toISOString() ?? null) : null,
    lastError: row.lastError,
  };
}

function nothingThere(): ProblemError {
  return new ProblemError('not-found', 'There is nothing with this id in the outbox.');
}
