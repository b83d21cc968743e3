import { Injectable } from '@nestjs/common';
import type { BodyFormat, Origin, Visit } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';

/** A submission taken from the queue, to be routed. */
export interface QueuedSubmission {
  id: string;
  intake_id: string;
  received_at: Date;
  format: BodyFormat;
  body: Buffer;
  visit: Visit;
  origin: Origin;
  tries: number;
  turns: number;
  /** The routes that it waits for; null: every route that takes it. */
  due_routes: string[] | null;
  /** Whether what its runs send stays unsent. */
  quiet: boolean;
}

/** One that somebody has taken out of the queue, and when, by the clock of the database. */
export interface ClaimedSubmission extends QueuedSubmission {
  claimed_at: Date;
}

/** What arrived at an intake, by its id, in a time: ISO 8601, the end not with it. */
export interface Arrivals {
  intake: string;
  since: string;
  before: string;
}

/** The pauses before a failed submission is tried again, in seconds; after the last its runs end failed. */
export const RETRY_PAUSES = [1, 4, 15, 60, 300, 1_800] as const;

/** So many at once give way to what arrives meanwhile. */
const MANY = 100;

/** The submissions that wait to be routed: the rows themselves are the queue. */
@Injectable()
export class SubmissionQueue {
  /** Takes up to `most` waiting submissions, those that give way last and else the oldest first, which nobody else gets until the transaction ends. */
  async claim(tx: WorkspaceTx, most: number): Promise<ClaimedSubmission[]> {
    return tx.statement<ClaimedSubmission>(
      'claim',
      `select id, intake_id, received_at, format, body, visit, origin, tries, turns, due_routes, quiet, now() as claimed_at from submission
       where workspace_id = $1 and state = 'waiting' and due_at <= now() order by gives_way, due_at, id limit $2 for update skip locked`,
      [tx.workspaceId, most],
    );
  }

  /** Takes these submissions, if they still wait and nobody else has them. */
  async claimOne(tx: WorkspaceTx, id: string): Promise<ClaimedSubmission[]> {
    return tx.statement<ClaimedSubmission>(
      'claim_one',
      `select id, intake_id, received_at, format, body, visit, origin, tries, turns, due_routes, quiet, now() as claimed_at from submission
       where workspace_id = $1 and id = $2 and state = 'waiting' for update skip locked`,
      [tx.workspaceId, id],
    );
  }

  /** Takes submissions out of the queue, once their runs are saved. */
  async finish(tx: WorkspaceTx, ids: readonly string[]): Promise<void> {
    await tx.statement(
      'finish',
      `update submission s set tries = 0, turns = turns + 1, due_routes = null,
         state = case when exists (select 1 from run r where r.workspace_id = s.workspace_id and r.submission_id = s.id) then 'routed' else 'unrouted' end
       where workspace_id = $1 and id = any($2::uuid[])`,
      [tx.workspaceId, ids],
    );
  }

  /** Puts a submission back, to be tried after a pause that grows with its tries. */
  async putBack(tx: WorkspaceTx, id: string, tries: number): Promise<void> {
    const pause = RETRY_PAUSES[Math.min(tries, RETRY_PAUSES.length) - 1] ?? 1;
    await tx.statement(
      'put_back',
      `update submission set tries = $3, due_at = now() + make_interval(secs => $4) where workspace_id = $1 and id = $2 and state = 'waiting'`,
      [tx.workspaceId, id, tries, pause],
    );
  }

  /**
   * Puts submissions into the queue again, at once: for the routes whose runs were held or failed, or for every route that
   * takes them where none has run. Answers how many there were.
   */
  async runAgain(tx: WorkspaceTx, ids: readonly string[]): Promise<number> {
    const rows = await tx.statement(
      'run_again',
      `update submission s set state = 'waiting', tries = 0, due_at = now(), gives_way = cardinality($2::uuid[]) > ${MANY}, due_routes = case when s.state = 'waiting' then s.due_routes else
           (select array_agg(r.route_id) from run r where r.workspace_id = s.workspace_id and r.submission_id = s.id and r.outcome in ('held', 'failed')) end
       where s.workspace_id = $1 and s.id = any($2::uuid[])
         and (s.state <> 'routed' or exists (select 1 from run r where r.workspace_id = s.workspace_id and r.submission_id = s.id and r.outcome in ('held', 'failed')))
       returning s.id`,
      [tx.workspaceId, ids],
    );
    return rows.length;
  }

  /** Puts submissions into the queue again, for one route. `quiet`: what their runs send stays unsent, unless they wait already. */
  async runThrough(tx: WorkspaceTx, ids: readonly string[], route: string, { quiet = false } = {}): Promise<number> {
    const rows = await tx.statement(
      'run_through',
      `update submission set state = 'waiting', tries = 0, due_at = now(), gives_way = cardinality($2::uuid[]) > ${MANY},
         due_routes = case when state <> 'waiting' then array[$3::uuid] when due_routes is null then null else due_routes || $3::uuid end,
         quiet = case when state = 'waiting' then quiet else $4 end
       where workspace_id = $1 and id = any($2::uuid[]) and state not in ('set-aside', 'cancelled') returning id`,
      [tx.workspaceId, ids, route, quiet],
    );
    return rows.length;
  }

  /** Takes what waits of an intake's arrivals in a time out of the queue for good. Returns how many there were. */
  async cancel(tx: WorkspaceTx, { intake, since, before }: Arrivals): Promise<number> {
    const rows = await tx.statement(
      'cancel_waiting',
      `update submission set state = 'cancelled', due_routes = null
       where workspace_id = $1 and intake_id = $2 and received_at >= $3 and received_at < $4 and state = 'waiting' returning id`,
      [tx.workspaceId, intake, since, before],
    );
    return rows.length;
  }
}
