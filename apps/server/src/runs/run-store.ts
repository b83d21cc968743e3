import { Injectable } from '@nestjs/common';
import type { Plan, UnmappedAnswer } from '@haycart/core';
import { LEFT_OUT } from '../routes/held-by-pause';
import type { WorkspaceTx } from '../platform/database/database';
import { packed } from '../platform/database/packed';
import type { RunOutcome } from './tables';

/** A run that has ended, to be kept. */
export interface EndedRun {
  id: string;
  submissionId: string;
  routeId: string;
  version: number;
  outcome: RunOutcome;
  reasonCode: string | null;
  summary: string;
  plan: Omit<Plan, 'diff'>;
  unmapped: UnmappedAnswer[] | null;
  startedAt: string;
  /** Whether its submission was routed before, so that there may be an earlier run through the route. */
  again: boolean;
}

/** The reason of a run that was taken back and that somebody wants to run again. */
export const RUN_AGAIN = 'run-again';

/** Keeps runs; one that wrote nothing that still stands gives way when its submission is routed again, and is kept as an earlier one. */
@Injectable()
export class RunStore {
  /**
   * The routes that have settled a submission already, as `submission route`. Held and failed runs are not settled, nor are
   * those that were left out after a pause, or that were taken back and are wanted again.
   */
  async settled(tx: WorkspaceTx, submissionIds: readonly string[]): Promise<Set<string>> {
    if (!submissionIds.length) return new Set();
    const rows = await tx.statement<{ submission_id: string; route_id: string }>(
      'settled_runs',
      `select submission_id, route_id from run where workspace_id = $1 and submission_id = any($2::uuid[]) and outcome not in ('held', 'failed') and (reason_code is null or reason_code <> all($3))`,
      [tx.workspaceId, submissionIds, [LEFT_OUT, RUN_AGAIN]],
    );
    return new Set(rows.map((row) => `${row.submission_id} ${row.route_id}`));
  }

  async save(tx: WorkspaceTx, runs: readonly EndedRun[]): Promise<void> {
    if (!runs.length) return;
    await this.#keepEarlier(
      tx,
      runs.filter(({ again }) => again),
    );
    const column = <Key extends keyof EndedRun>(key: Key) => runs.map((run) => run[key]);
    const plans = packed(runs.map(({ plan }) => JSON.stringify(plan)));
    await tx.statement(
      'save_runs',
      `insert into run (workspace_id, id, submission_id, route_id, version, outcome, reason_code, summary, started_at, plan, finished_at, unmapped, pipeline, matches)
       select $1::uuid, id, submission_id, route_id, version, outcome, reason_code, summary, started_at, convert_from(substring($10::bytea from start for length), 'UTF8')::json, clock_timestamp(), unmapped::jsonb, pipeline, string_to_array(matches, ',')
       from unnest($2::uuid[], $3::uuid[], $4::uuid[], $5::int[], $6::text[], $7::text[], $8::text[], $9::timestamptz[], $11::int[], $12::int[], $13::text[], $14::text[], $15::text[])
         r (id, submission_id, route_id, version, outcome, reason_code, summary, started_at, start, length, unmapped, pipeline, matches)
       on conflict (workspace_id, submission_id, route_id) do update set id = excluded.id, version = excluded.version, outcome = excluded.outcome,
         reason_code = excluded.reason_code, summary = excluded.summary, plan = excluded.plan, started_at = excluded.started_at, finished_at = excluded.finished_at, unmapped = excluded.unmapped,
         pipeline = excluded.pipeline, matches = excluded.matches, taken_back_by = null`,
      [
        tx.workspaceId,
        column('id'),
        column('submissionId'),
        column('routeId'),
        column('version'),
        column('outcome'),
        column('reasonCode'),
        column('summary'),
        column('startedAt'),
        plans.bytes,
        plans.starts,
        plans.lengths,
        runs.map(({ unmapped }) => unmapped && JSON.stringify(unmapped)),
        runs.map(({ plan }) => pipelineOf(plan)),
        runs.map(({ plan }) => matchesOf(plan).join(',')),
      ],
    );
  }

  async #keepEarlier(tx: WorkspaceTx, runs: readonly EndedRun[]): Promise<void> {
    if (!runs.length) return;
    const columns =
      'workspace_id, id, submission_id, route_id, version, outcome, summary, plan, started_at, finished_at, taken_back_by';
    await tx.statement(
      'keep_earlier_runs',
      `insert into earlier_run (${columns}, reason_code)
       select ${columns}, nullif(reason_code, '${RUN_AGAIN}') from run where workspace_id = $1 and (submission_id, route_id) in (select * from unnest($2::uuid[], $3::uuid[]))`,
      [tx.workspaceId, runs.map(({ submissionId }) => submissionId), runs.map(({ routeId }) => routeId)],
    );
  }
}

type KeptPlan = EndedRun['plan'];

function pipelineOf({ writes }: KeptPlan): string | null {
  return writes.find(({ place }) => place?.pipeline)?.place?.pipeline ?? null;
}

/** By which rule each record was come upon that there is now: `contact email`. */
function matchesOf({ writes }: KeptPlan): string[] {
  return writes.flatMap(({ id, record, match }) => (id ? [`${record} ${match.by ?? 'none'}`] : []));
}
