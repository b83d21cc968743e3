import { Injectable } from '@nestjs/common';
import type { Plan, UnmappedAnswer } from '@haycart/core';
import { LEFT_OUT } from './catching-up/held-by-pause';
import type { WorkspaceTx } from '../platform/database/database';
import { newId } from '../platform/new-id';
import { packed } from '../platform/database/packed';
import type { RunOutcome } from '@haycart/api';

/** An attempt that has ended, to be kept as what its run is now. */
export interface EndedRun {
  /** The attempt’s; the run’s as well where it is the first. */
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
}

/** The reason of a run that was taken back and that somebody wants to run again. */
export const RUN_AGAIN = 'run-again';

/** Keeps runs and their attempts: when a submission is routed again, its run becomes what the latest attempt says, and each attempt stays. */
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

  /** Returns the run of each attempt. */
  async save(tx: WorkspaceTx, runs: readonly EndedRun[]): Promise<ReadonlyMap<string, string>> {
    if (!runs.length) return new Map();
    const column = <Key extends keyof EndedRun>(key: Key) => runs.map((run) => run[key]);
    const kept = await tx.statement<{ id: string; attempt_id: string }>(
      'save_runs',
      `insert into run (workspace_id, id, attempt_id, submission_id, route_id, version, outcome, reason_code, summary, started_at, finished_at, unmapped, pipeline, matches)
       select $1::uuid, id, id, submission_id, route_id, version, outcome, reason_code, summary, started_at, clock_timestamp(), unmapped::jsonb, pipeline, string_to_array(matches, ',')
       from unnest($2::uuid[], $3::uuid[], $4::uuid[], $5::int[], $6::text[], $7::text[], $8::text[], $9::timestamptz[], $10::text[], $11::text[], $12::text[])
         r (id, submission_id, route_id, version, outcome, reason_code, summary, started_at, unmapped, pipeline, matches)
       on conflict (workspace_id, submission_id, route_id) do update set attempt_id = excluded.attempt_id, version = excluded.version, outcome = excluded.outcome,
         reason_code = excluded.reason_code, summary = excluded.summary, started_at = excluded.started_at, finished_at = excluded.finished_at, unmapped = excluded.unmapped,
         pipeline = excluded.pipeline, matches = excluded.matches
       returning id, attempt_id`,
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
        runs.map(({ unmapped }) => unmapped && JSON.stringify(unmapped)),
        runs.map(({ plan }) => pipelineOf(plan)),
        runs.map(({ plan }) => matchesOf(plan).join(',')),
      ],
    );
    const runOf = new Map(kept.map(({ id, attempt_id }) => [attempt_id, id]));
    await this.#keepAttempts(tx, runs, runOf);
    return runOf;
  }

  async #keepAttempts(tx: WorkspaceTx, tries: readonly EndedRun[], runs: ReadonlyMap<string, string>): Promise<void> {
    const column = <Key extends keyof EndedRun>(key: Key) => tries.map((one) => one[key]);
    const plans = packed(tries.map(({ plan }) => JSON.stringify(plan)));
    await tx.statement(
      'save_attempts',
      `insert into attempt (workspace_id, id, run_id, why, version, outcome, reason_code, summary, started_at, plan, finished_at)
       select $1::uuid, id, run_id, case when run_id = id then 'arrival' else 'again' end, version, outcome, reason_code, summary, started_at,
         convert_from(substring($9::bytea from start for length), 'UTF8')::json, clock_timestamp()
       from unnest($2::uuid[], $3::uuid[], $4::int[], $5::text[], $6::text[], $7::text[], $8::timestamptz[], $10::int[], $11::int[])
         a (id, run_id, version, outcome, reason_code, summary, started_at, start, length)`,
      [
        tx.workspaceId,
        column('id'),
        tries.map(({ id }) => runs.get(id)!),
        column('version'),
        column('outcome'),
        column('reasonCode'),
        column('summary'),
        column('startedAt'),
        plans.bytes,
        plans.starts,
        plans.lengths,
      ],
    );
  }

  /** Keeps that blanks were filled in after some runs, by the act that did it, with what their routes say now. */
  async keepFillIn(tx: WorkspaceTx, runs: readonly string[], edit: string, summary: string): Promise<void> {
    await tx.statement(
      'keep_fill_in',
      `insert into attempt (workspace_id, id, run_id, why, version, outcome, summary, started_at, finished_at, edit_id)
       select $1, f.id, r.id, 'fill-in', t.version, 'written', $5, now(), clock_timestamp(), $4
       from unnest($2::uuid[], $3::uuid[]) f (id, run_id) join run r on r.workspace_id = $1 and r.id = f.run_id
       join route t on t.workspace_id = r.workspace_id and t.id = r.route_id`,
      [tx.workspaceId, runs.map(() => newId()), runs, edit, summary],
    );
  }
}

type KeptPlan = EndedRun['plan'];

function pipelineOf({ writes }: KeptPlan): string | null {
  return writes.find(({ place }) => place?.pipeline)?.place?.pipeline ?? null;
}

/** By which rule each record was recognised that there is now: `contact email`. */
function matchesOf({ writes }: KeptPlan): string[] {
  return writes.flatMap(({ id, record, match }) => (id ? [`${record} ${match.by ?? 'none'}`] : []));
}
