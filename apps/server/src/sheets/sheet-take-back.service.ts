import { Inject, Injectable, type OnApplicationBootstrap, type OnModuleInit } from '@nestjs/common';
import type { SheetTakeBackRehearsal } from '@haycart/api';
import { RECORD_KINDS } from '@haycart/core';
import type { Caller } from '../platform/auth/caller';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { Jobs } from '../platform/jobs/jobs';
import { isId } from '../platform/paging';
import { TakeBackService } from '../runs/take-back.service';
import { SubmissionQueue, type Arrivals } from '../submissions/submission-queue';
import type { SheetTakeBack } from './tables';

const TASK = 'take-back-sheet';
/** Runs that are taken back in one transaction: what is done anew when the machine stops. */
const AT_ONCE = 1_000;

interface TakeBackJob {
  workspaceId: string;
  file: string;
}

const keyOf = (file: string) => `${TASK} ${file}`;

interface FileRow extends Record<string, unknown> {
  intake_id: string;
  at: Date;
  taken_back: SheetTakeBack | null;
}

/** Takes back all that the rows of a file wrote: shown before, then by a job, the latest first, in portions. */
@Injectable()
export class SheetTakeBackService implements OnModuleInit, OnApplicationBootstrap {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Jobs) private readonly jobs: Jobs,
    @Inject(Events) private readonly events: Events,
    @Inject(TakeBackService) private readonly takeBacks: TakeBackService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
  ) {}

  onModuleInit(): void {
    this.jobs.register<TakeBackJob>({
      name: TASK,
      work: ({ workspaceId, file }, stopping) => this.work(workspaceId, file, stopping),
      givenUp: ({ workspaceId, file }) => this.#rest(workspaceId, file),
    });
  }

  /** Files that were being taken back when the machine stopped go on. */
  async onApplicationBootstrap(): Promise<void> {
    for (const { id } of await this.database.gate<{ id: string }>('workspaces')) {
      const files = await this.database.inWorkspace(id, (tx) =>
        tx.statement<{ id: string }>(
          'files_to_take_back',
          `select id from sheet_file where workspace_id = $1 and taken_back ->> 'done' = 'false' and not taken_back ? 'stopped'`,
          [id],
        ),
      );
      for (const { id: file } of files)
        await this.jobs.resume(TASK, { workspaceId: id, file } as TakeBackJob, keyOf(file));
    }
  }

  /** What taking the file back would do; of a long file, what taking back its latest rows would. */
  async rehearse(tx: WorkspaceTx, id: string): Promise<SheetTakeBackRehearsal> {
    const choice = rowsOf(await this.#file(tx, id));
    return { ...(await this.takeBacks.rehearseLatest(tx, choice)), of: await this.#written(tx, choice) };
  }

  /**
   * Begins to take the file back. Rows that still wait to be routed wait no more, and questions about its rows are
   * settled, in the same transaction; rows that failed stay as they are, to be put right.
   *
   * @throws ProblemError 409 while the file is read, or is being taken back, or when nothing of it was written.
   */
  async begin(tx: WorkspaceTx, id: string, by: Caller['by']): Promise<void> {
    const file = await this.#file(tx, id);
    if (file.taken_back && !file.taken_back.done) {
      if (!file.taken_back.stopped) throw new ProblemError('conflict', 'This file is being taken back already.');
      const { stopped: _, ...before } = file.taken_back;
      await this.#keep(tx, id, before);
      tx.afterCommit(() => void this.#ask(tx.workspaceId, id).catch(() => {}));
      return;
    }
    const choice = rowsOf(file);
    const stopped = await this.#stop(tx, choice);
    const of = await this.#written(tx, choice);
    if (!of && !stopped)
      throw new ProblemError('conflict', 'There is nothing to take back: no row of this file has written anything.');
    await this.#keep(tx, id, { by, done: of === 0, oldest: null, runs: 0, of, removed: {}, changed: 0, left: 0 });
    tx.afterCommit(() => void this.#ask(tx.workspaceId, id).catch(() => {}));
  }

  /** Notes that the last try failed; what was taken back stays so. */
  #rest(workspaceId: string, id: string): Promise<void> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const { taken_back: so } = await this.#file(tx, id);
      if (so && !so.done) await this.#keep(tx, id, { ...so, stopped: true });
    });
  }

  async work(workspaceId: string, id: string, stopping = new AbortController().signal): Promise<void> {
    let more = true;
    while (more) {
      stopping.throwIfAborted();
      more = await this.database.inWorkspace(workspaceId, (tx) => this.#portion(tx, id));
    }
  }

  /** Answers whether there may be more. */
  async #portion(tx: WorkspaceTx, id: string): Promise<boolean> {
    const file = await this.#file(tx, id);
    const so = file.taken_back;
    if (!so || so.done) return false;
    const choice = { ...rowsOf(file), ...(so.oldest === null ? {} : { olderThan: so.oldest }) };
    const { oldest, runs, removed, changed, left } = await this.takeBacks.takeBackLatest(tx, choice, AT_ONCE, so.by);
    await this.#keep(tx, id, {
      ...so,
      done: oldest === null,
      oldest: oldest ?? so.oldest,
      runs: so.runs + runs,
      removed: Object.fromEntries(RECORD_KINDS.map((kind) => [kind, (so.removed[kind] ?? 0) + (removed[kind] ?? 0)])),
      changed: so.changed + changed,
      left: so.left + left,
    });
    return oldest !== null;
  }

  async #file(tx: WorkspaceTx, id: string): Promise<FileRow> {
    const [file] = isId(id)
      ? await tx.statement<FileRow & { state: string }>(
          'file_to_take_back',
          'select intake_id, at, state, taken_back from sheet_file where workspace_id = $1 and id = $2 for update',
          [tx.workspaceId, id],
        )
      : [];
    if (!file) throw new ProblemError('not-found', 'There is no such file.');
    if (file.state === 'reading')
      throw new ProblemError('conflict', 'This file is still being read. Cancel that first, or wait for its end.');
    return file;
  }

  /** Stops what of the file waits: for its turn, or for a person. Returns whether there was anything. */
  async #stop(tx: WorkspaceTx, rows: Arrivals): Promise<boolean> {
    const waiting = await this.queue.cancel(tx, rows);
    const held = await this.takeBacks.settleHeld(tx, rows, 'Its file was taken back before anybody decided.');
    return waiting + held > 0;
  }

  async #written(tx: WorkspaceTx, { intake, since, before }: Arrivals): Promise<number> {
    const [row] = await tx.statement<{ n: number }>(
      'written_rows',
      `select count(*)::int as n from submission s join run r on r.workspace_id = s.workspace_id and r.submission_id = s.id
       where s.workspace_id = $1 and s.intake_id = $2 and s.received_at >= $3 and s.received_at < $4 and r.outcome = 'written'`,
      [tx.workspaceId, intake, since, before],
    );
    return row!.n;
  }

  async #keep(tx: WorkspaceTx, id: string, back: SheetTakeBack): Promise<void> {
    await tx.statement('keep_taken_back', 'update sheet_file set taken_back = $3 where workspace_id = $1 and id = $2', [
      tx.workspaceId,
      id,
      JSON.stringify(back),
    ]);
    await this.events.tell(tx, 'submissions', 'runs', 'decisions');
  }

  async #ask(workspaceId: string, file: string): Promise<void> {
    await this.jobs.add(TASK, { workspaceId, file } as TakeBackJob, keyOf(file));
  }
}

/** The rows of a file are those of its intake that arrived with it. */
function rowsOf({ intake_id, at }: FileRow): Arrivals {
  return { intake: intake_id, since: at.toISOString(), before: new Date(at.getTime() + 1).toISOString() };
}
