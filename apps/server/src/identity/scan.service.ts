import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleInit } from '@nestjs/common';
import { startingModel, type LikenessModel, type RecordKind } from '@haycart/core';
import type { ScanShape } from '@haycart/api';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { Jobs } from '../platform/jobs/jobs';
import { newId } from '../platform/new-id';
import { isId } from '../platform/paging';
import { RecordsService } from '../records/records.service';
import { LookAlikesStore } from './look-alikes.store';
import type { ComparedPart, ReadRecord } from './look-through';
import { readRecords } from './read-records';
import { RecognitionService } from '../recognition/recognition.service';
import { ScanHere, ScanWorkers, type Scanner } from './scan-workers';

const TASK = 'scan-look-alikes';
/** Records read at once. */
const READ = 1_000;
/** Records whose pairs are worked out at once: what is lost when the machine stops. */
const PART = 2_000;

/** So many at most are compared sooner than a thread begins. */
const FEW = 20;

/** Kinds whose records are looked through. */
export const SCANNED: readonly RecordKind[] = ['contact', 'company', 'lead'];

interface ScanJob {
  workspaceId: string;
  scan: string;
}

const keyOf = (scan: string) => `${TASK} ${scan}`;

/** Looks through all records of a kind for those that may be the same, and goes on where it stopped. */
@Injectable()
export class ScanService implements OnModuleInit, OnApplicationBootstrap {
  readonly #log = new Logger('identity');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Jobs) private readonly jobs: Jobs,
    @Inject(Events) private readonly events: Events,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(RecognitionService) private readonly recognition: RecognitionService,
    @Inject(LookAlikesStore) private readonly pairs: LookAlikesStore,
  ) {}

  onModuleInit(): void {
    this.jobs.register<ScanJob>({
      name: TASK,
      work: ({ workspaceId, scan }, stopping) => this.run(workspaceId, scan, stopping),
      givenUp: ({ workspaceId, scan }) => this.#fail(workspaceId, scan),
    });
  }

  /** Scans that were under way when the machine stopped go on. */
  async onApplicationBootstrap(): Promise<void> {
    for (const { id } of await this.database.gate<{ id: string }>('workspaces')) {
      const running = await this.database.inWorkspace(id, (tx) =>
        tx.statement<{ id: string }>(
          'running_scans',
          `select id from look_alike_scan where workspace_id = $1 and state = 'running'`,
          [id],
        ),
      );
      for (const { id: scan } of running)
        await this.jobs.resume(TASK, { workspaceId: id, scan } as ScanJob, keyOf(scan));
    }
  }

  /** Begins to look through a kind of record; the scan that is under way already is answered instead. */
  async start(tx: WorkspaceTx, kind: RecordKind, by: string): Promise<ScanShape> {
    const id = newId();
    const { thresholds } = await this.recognition.settings(tx);
    await tx.statement(
      `start_scan_${kind}`,
      `insert into look_alike_scan (workspace_id, id, record_kind, state, records, parts_done, parts, pairs, found, ask, scores, by, started_at)
       select $1::uuid, $2::uuid, $3, 'running', n, 0, greatest(1, ceil(n / ${PART}.0))::int, 0, 0, $5, '[]', $4, now() from (select count(*)::int as n from ${kind} where workspace_id = $1) c
       on conflict (workspace_id, record_kind) where state = 'running' do nothing`,
      [tx.workspaceId, id, kind, by, thresholds.ask],
    );
    const scan = (await this.latest(tx, kind))!;
    if (scan.id === id) tx.afterCommit(() => void this.#ask(tx.workspaceId, id).catch(() => {}));
    return scan;
  }

  /** Ends a scan whose job was given up: a person may start another. */
  #fail(workspaceId: string, id: string): Promise<void> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      await tx.statement(
        'fail_scan',
        `update look_alike_scan set state = 'failed', finished_at = now() where workspace_id = $1 and id = $2 and state = 'running'`,
        [workspaceId, id],
      );
      await this.events.tell(tx, 'identity');
    });
  }

  async latest(tx: WorkspaceTx, kind: RecordKind): Promise<ScanShape | null> {
    const [row] = await tx.statement<ScanRow>(
      'latest_scan',
      'select * from look_alike_scan where workspace_id = $1 and record_kind = $2 order by started_at desc, id desc limit 1',
      [tx.workspaceId, kind],
    );
    return row ? scanShape(row) : null;
  }

  /** How many pairs the last scan that ended left below what it kept, by probability in hundredths. */
  async leftBelow(tx: WorkspaceTx, kind: RecordKind): Promise<number[]> {
    const [row] = await tx.statement<{ scores: number[]; ask: number }>(
      'scan_left_below',
      `select scores, ask from look_alike_scan where workspace_id = $1 and record_kind = $2 and state = 'done' order by started_at desc, id desc limit 1`,
      [tx.workspaceId, kind],
    );
    return row ? row.scores.slice(0, Math.round(row.ask * 100)) : [];
  }

  async cancel(tx: WorkspaceTx, id: string): Promise<ScanShape> {
    const [row] = isId(id)
      ? await tx.statement<ScanRow>(
          'cancel_scan',
          `update look_alike_scan set state = case when state = 'running' then 'cancelled' else state end, finished_at = coalesce(finished_at, now())
           where workspace_id = $1 and id = $2 returning *`,
          [tx.workspaceId, id],
        )
      : [];
    if (!row) throw new ProblemError('not-found', 'There is no such scan.');
    await this.events.tell(tx, 'identity');
    return scanShape(row);
  }

  /** Carries a scan on from the part where it stands until it is done or cancelled; many records in worker threads. */
  async run(workspaceId: string, id: string, stopping = new AbortController().signal): Promise<void> {
    const scan = await this.#one(workspaceId, id);
    if (scan?.state !== 'running') return;
    const first = await this.#batch(workspaceId, scan.record_kind, null);
    const scanner = first.length > FEW ? new ScanWorkers() : new ScanHere();
    const end = () => void scanner.stop();
    stopping.addEventListener('abort', end, { once: true });
    try {
      stopping.throwIfAborted();
      await this.#read(workspaceId, scan.record_kind, first, scanner);
      const model = await this.#learn(workspaceId, scan.record_kind, scanner);
      await this.#compare(workspaceId, scan, model, scanner);
    } catch (cause) {
      this.#log.warn(`A scan stopped early and goes on with the next try: ${(cause as Error).name}.`);
      throw cause;
    } finally {
      stopping.removeEventListener('abort', end);
      await scanner.stop();
    }
  }

  #batch(workspaceId: string, kind: RecordKind, after: string | null): Promise<ReadRecord[]> {
    return this.database.inWorkspace(workspaceId, (tx) => readRecords(tx, this.records, kind, after, READ));
  }

  async #read(workspaceId: string, kind: RecordKind, first: ReadRecord[], scanner: Scanner): Promise<void> {
    let batch = first;
    for (;;) {
      if (batch.length) await scanner.tell({ kind, records: batch });
      if (batch.length < READ) return;
      batch = await this.#batch(workspaceId, kind, batch[batch.length - 1]!.id);
    }
  }

  async #learn(workspaceId: string, kind: RecordKind, scanner: Scanner): Promise<LikenessModel> {
    const decided = await this.database.inWorkspace(workspaceId, (tx) => this.pairs.decided(tx, kind));
    const { model } = await scanner.ask<{ model: LikenessModel }>(0, {
      learn: { start: startingModel(kind), decided },
    });
    await this.database.inWorkspace(workspaceId, (tx) => this.recognition.keepModel(tx, model));
    return model;
  }

  async #compare(workspaceId: string, scan: ScanRow, model: LikenessModel, scanner: Scanner): Promise<void> {
    let next = scan.parts_done;
    while (next < scan.parts) {
      const parts = Array.from({ length: Math.min(scanner.count, scan.parts - next) }, (_, index) => next + index);
      const answers = await Promise.all(
        parts.map((part, index) => scanner.ask<ComparedPart>(index, { part, size: PART, model, ask: scan.ask })),
      );
      for (const answer of answers) if (!(await this.#keep(workspaceId, scan, answer))) return;
      next += parts.length;
    }
  }

  /** Keeps what one part gave. Answers whether the scan goes on: not when it was cancelled, or somebody else did the part. */
  #keep(workspaceId: string, scan: ScanRow, { part, pairs, compared, scores }: ComparedPart): Promise<boolean> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const [row] = await tx.statement<{ scores: number[] }>(
        'scan_goes_on',
        `select scores from look_alike_scan where workspace_id = $1 and id = $2 and state = 'running' and parts_done = $3 for update`,
        [workspaceId, scan.id, part],
      );
      if (!row) return false;
      const found = await this.pairs.keep(tx, scan.record_kind, pairs, new Date());
      const sum = scores.map((times, index) => times + (row.scores[index] ?? 0));
      const done = part + 1 >= scan.parts;
      await tx.statement(
        'scan_part_done',
        `update look_alike_scan set parts_done = $3, pairs = pairs + $4, found = found + $5, scores = $6,
           state = case when $7 then 'done' else state end, finished_at = case when $7 then now() end where workspace_id = $1 and id = $2`,
        [workspaceId, scan.id, part + 1, compared, found, JSON.stringify(sum), done],
      );
      if (done) await this.pairs.forgetStale(tx, scan.record_kind, scan.started_at, null);
      await this.events.tell(tx, 'identity', ...(done ? (['decisions'] as const) : []));
      return true;
    });
  }

  async #one(workspaceId: string, id: string): Promise<ScanRow | undefined> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const [row] = await tx.statement<ScanRow>(
        'scan_one',
        'select * from look_alike_scan where workspace_id = $1 and id = $2',
        [workspaceId, id],
      );
      return row;
    });
  }

  async #ask(workspaceId: string, scan: string): Promise<void> {
    await this.jobs.add(TASK, { workspaceId, scan } as ScanJob, keyOf(scan));
  }
}

interface ScanRow extends Record<string, unknown> {
  id: string;
  record_kind: RecordKind;
  state: ScanShape['state'];
  records: number;
  parts_done: number;
  parts: number;
  pairs: string;
  found: number;
  ask: number;
  by: string;
  started_at: Date;
  finished_at: Date | null;
}

function scanShape(row: ScanRow): ScanShape {
  return {
    id: row.id,
    kind: row.record_kind,
    state: row.state,
    records: row.records,
    partsDone: row.parts_done,
    parts: row.parts,
    pairs: Number(row.pairs),
    found: row.found,
    startedAt: row.started_at.toISOString(),
    finishedAt: row.finished_at?.toISOString() ?? null,
    by: row.by,
  };
}
