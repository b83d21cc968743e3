import { Inject, Injectable } from '@nestjs/common';
import {
  isEmptyDiff,
  KnownRecords,
  lookupsFor,
  planFillIn,
  squashAll,
  uniqueFieldsOf,
  type Plan,
  type RecordsDiff,
  type RouteDefinition,
  type UnmappedAnswer,
} from '@haycart/core';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { HeldRecords } from '../records/held-records.service';
import { RecordActs } from '../records/edits/record-acts.service';
import { RecordsService } from '../records/records.service';
import type { QueuedSubmission } from '../submissions/submission-queue';
import { DestinationService } from '../destination/destination.service';
import { readSubmission } from './route-batch';
import { RunStore } from './run-store';

interface Row extends QueuedSubmission {
  key: string;
  run: string;
  plan: Omit<Plan, 'diff'>;
}

/** So many runs are filled in by one act; more of them by several. */
const AT_ONCE = 5_000;

/** Fills in what earlier runs left blank and a repaired route would fill now, as one act that can be taken back. */
@Injectable()
export class FillInService {
  constructor(
    @Inject(HeldRecords) private readonly held: HeldRecords,
    @Inject(RecordActs) private readonly acts: RecordActs,
    @Inject(RunStore) private readonly store: RunStore,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  /** In how many records blanks would be filled in. */
  async count(tx: WorkspaceTx, route: RouteDefinition, runs: readonly string[]): Promise<number> {
    const changed = new Set<string>();
    for (const some of portions(runs))
      Object.keys((await this.#plan(tx, route, some)).diff.changed).forEach((id) => changed.add(id));
    return changed.size;
  }

  /** Answers in how many records blanks were filled in. */
  async fillIn(
    tx: WorkspaceTx,
    route: RouteDefinition,
    runs: readonly string[],
    text: string,
    by: Caller['by'],
  ): Promise<number> {
    const changed = new Set<string>();
    for (const some of portions(runs)) {
      const { diff, known, filled } = await this.#plan(tx, route, some);
      if (isEmptyDiff(diff)) continue;
      const ids = Object.keys(diff.changed);
      const { links } = await this.held.around(tx, ids);
      const { edit } = await this.acts.apply(tx, known.all(), links, { diff, text }, by);
      await this.store.keepFillIn(tx, filled, edit!, text);
      ids.forEach((id) => changed.add(id));
    }
    return changed.size;
  }

  /** Forgets of runs that no option stood for a value. Capitals do not tell values apart. */
  async placed(tx: WorkspaceTx, runs: readonly string[], answer: UnmappedAnswer): Promise<void> {
    await tx.statement(
      'answer_placed',
      `update run set unmapped = (select jsonb_agg(u) from jsonb_array_elements(unmapped) u
         where (u ->> 'as', u ->> 'field', lower(u ->> 'value')) <> ($3::text, $4::text, lower($5::text)))
       where workspace_id = $1 and id = any($2::uuid[])`,
      [tx.workspaceId, runs, answer.as, answer.field, answer.value],
    );
  }

  /** The changes, the records as they were before them, and the runs that they are for. */
  async #plan(
    tx: WorkspaceTx,
    route: RouteDefinition,
    runs: readonly string[],
  ): Promise<{ diff: RecordsDiff; known: KnownRecords; filled: string[] }> {
    const rows = await tx.statement<Row>(
      'runs_to_fill_in',
      `select s.*, i.key, r.id as run, a.plan from run r join attempt a on a.workspace_id = r.workspace_id and a.id = r.attempt_id
       join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
       join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
       where r.workspace_id = $1 and r.id = any($2::uuid[]) and r.outcome = 'written' and a.plan is not null order by s.received_at desc`,
      [tx.workspaceId, runs],
    );
    const destination = await this.destinations.load(tx);
    const uniques = uniqueFieldsOf(destination.fields);
    const passages = rows.flatMap((row) => {
      const read = readSubmission(row, row.key);
      return read.ok ? [{ run: row.run, submission: read.submission, writes: row.plan.writes }] : [];
    });
    const own = [...new Set(passages.flatMap(({ writes }) => writes.flatMap(({ id }) => id ?? [])))];
    const lookups = passages.map(({ submission }) => lookupsFor(route, submission, destination));
    const wanted = { keys: lookups.flatMap(({ keys }) => keys), deals: false, blocks: [], counters: [] };
    const others = await this.records.look(tx, wanted, destination);
    const records = [...others.all(), ...(await this.held.byAnyIdThere(tx, own))];
    const learning = new KnownRecords(records, [], uniques);
    const now = new Date().toISOString();
    const filled: string[] = [];
    const diffs = passages.map(({ run, submission, writes }) => {
      const diff = planFillIn(route, submission, writes, learning, destination);
      learning.learn(diff, now);
      if (!isEmptyDiff(diff)) filled.push(run);
      return diff;
    });
    return { diff: squashAll(diffs), known: new KnownRecords(records, [], uniques), filled };
  }
}

function portions(runs: readonly string[]): string[][] {
  return Array.from({ length: Math.ceil(runs.length / AT_ONCE) }, (_, n) => runs.slice(n * AT_ONCE, (n + 1) * AT_ONCE));
}
