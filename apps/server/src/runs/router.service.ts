import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import type { KnownRecords } from '@haycart/core';
import type { Subscription } from 'rxjs';
import type { Config } from '../platform/config';
import { askedAt } from '../platform/addresses';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { databaseFailure, mayPass } from '../platform/database/failure';
import { Events } from '../platform/events/events';
import { Metrics } from '../platform/metrics';
import { CONFIG } from '../platform/tokens';
import { FieldsService } from '../fields/fields.service';
import { MadeActivities } from '../records/activities/made-activities.service';
import { AssignmentsService } from '../records/assignments/assignments.service';
import { RecordsService } from '../records/records.service';
import { MatchAnswersService } from '../identity/match-answers.service';
import { OutboxService } from '../outbox/outbox.service';
import { RouteBookService, type RouteBook } from '../routes/route-book.service';
import {
  RETRY_PAUSES,
  SubmissionQueue,
  type ClaimedSubmission,
  type QueuedSubmission,
} from '../submissions/submission-queue';
import { HeldNames } from './held-names';
import {
  duePassages,
  givenUp,
  lookupsOf,
  lookupsTogether,
  planPassages,
  type PassageLookups,
  type PlannedPassages,
} from './route-batch';
import { CountersService } from './counters.service';
import type { DuePassage } from './due-passage';
import { AskedService } from './holds/asked.service';
import { HoldAnswersService } from './holds/hold-answers.service';
import { MissedPromises } from './promises/missed-promises.service';
import { RunStore } from './run-store';

const BATCH = 200;
/** So many of a batch are planned before their writing begins. */
const PLANNED_AT_ONCE = 100;
const WORKERS = 2;
/** How long a worker rests when nothing wakes it, in milliseconds: retries fall due without a notice. */
const REST_MS = 500;

/** A submission with the passages that are due for it. */
interface DueSubmission {
  id: string;
  passages: DuePassage[];
  lookups: PassageLookups;
  /** What is locked while it is routed. */
  names: string[];
}

/**
 * Routes what waits: claims a batch, looks up what is needed for all of it at once, plans each submission in the core
 * and writes everything in one transaction. Any number of processes may do so side by side.
 */
@Injectable()
export class RouterService implements OnApplicationBootstrap, OnModuleDestroy {
  readonly #log = new Logger('routing');
  readonly #wakers = new Set<() => void>();
  readonly #held = new HeldNames();
  #notices: Subscription | null = null;
  #stopping = false;
  #workers: Promise<void>[] = [];
  readonly #askAt: string;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
    @Inject(Metrics) private readonly metrics: Metrics,
    @Inject(RouteBookService) private readonly books: RouteBookService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(FieldsService) private readonly fields: FieldsService,
    @Inject(RunStore) private readonly runs: RunStore,
    @Inject(CountersService) private readonly counters: CountersService,
    @Inject(OutboxService) private readonly outbox: OutboxService,
    @Inject(MadeActivities) private readonly activities: MadeActivities,
    @Inject(AssignmentsService) private readonly assignments: AssignmentsService,
    @Inject(MissedPromises) private readonly promises: MissedPromises,
    @Inject(AskedService) private readonly asked: AskedService,
    @Inject(HoldAnswersService) private readonly holdAnswers: HoldAnswersService,
    @Inject(MatchAnswersService) private readonly answers: MatchAnswersService,
  ) {
    this.#askAt = askedAt(config, '');
  }

  onApplicationBootstrap(): void {
    if (!this.config.background || (this.config.role !== 'all' && this.config.role !== 'route')) return;
    this.#notices = this.events.all.subscribe(({ topics }) => {
      if (topics.includes('submissions')) this.wake();
    });
    this.#workers = Array.from({ length: WORKERS }, () => this.#work());
  }

  async onModuleDestroy(): Promise<void> {
    this.#stopping = true;
    this.#notices?.unsubscribe();
    this.wake();
    await Promise.all(this.#workers);
  }

  /** Wakes the workers: something may wait. */
  wake(): void {
    for (const waker of this.#wakers) waker();
  }

  /**
   * Routes until nothing is due in any workspace that nobody else has: a batch of each in turn, so that a long queue of one
   * does not keep the others waiting. Returns how many submissions were routed.
   */
  async drain(): Promise<number> {
    let all = 0;
    let due = await this.#waiting();
    while (due.length && !this.#stopping) {
      const more: string[] = [];
      for (const id of due) {
        if (this.#stopping) break;
        const { claimed, routed } = await this.#routeBatch(id);
        all += routed;
        if (claimed === BATCH || routed < claimed) more.push(id);
      }
      // Those that began to wait meanwhile take their turn with those that wait still.
      due = more.length ? [...new Set([...(await this.#waiting()), ...more])] : [];
    }
    return all;
  }

  async #waiting(): Promise<string[]> {
    return (await this.database.gate<{ id: string }>('workspaces_waiting')).map(({ id }) => id);
  }

  async #work(): Promise<void> {
    while (!this.#stopping) {
      try {
        if ((await this.drain()) > 0) continue;
      } catch (cause) {
        this.#log.warn(`Routing waits for the database: ${databaseFailure(cause)}.`);
      }
      if (!this.#stopping) await this.#rest();
    }
  }

  #rest(): Promise<void> {
    return new Promise((resolve) => {
      const done = () => {
        clearTimeout(timer);
        this.#wakers.delete(done);
        resolve();
      };
      const timer = setTimeout(done, REST_MS);
      this.#wakers.add(done);
    });
  }

  /** Answers how many were claimed and how many of them routed: the others look for what another batch is writing. */
  async #routeBatch(workspaceId: string): Promise<{ claimed: number; routed: number }> {
    let batch: ClaimedSubmission[] = [];
    let routed = 0;
    let letGo = () => {};
    const end = this.metrics.batch.startTimer();
    try {
      await this.database.inWorkspace(workspaceId, async (tx) => {
        batch = await this.queue.claim(tx, BATCH);
        if (!batch.length) return;
        const book = await this.books.open(tx);
        const due = await this.#due(tx, batch, book);
        const chosen = this.#withoutWaiting(due);
        letGo = this.#held.hold(chosen.flatMap(({ names }) => names));
        await this.#route(tx, chosen, book, batch[0]!.claimed_at);
        routed = chosen.length;
      });
      if (batch.length) end();
      return { claimed: batch.length, routed };
    } catch (cause) {
      if (databaseFailure(cause) === 'unreachable' || !batch.length) throw cause;
      this.#log.warn({ ...whatFailed(cause), submissions: batch.length }, 'A batch could not be written at once.');
      // One of them cannot be written: each goes by itself, so that it does not stand in the way of the others.
      for (const { id, tries } of batch) await this.#routeAlone(workspaceId, id, tries);
      return { claimed: batch.length, routed: batch.length };
    } finally {
      letGo();
    }
  }

  async #routeAlone(workspaceId: string, id: string, tries: number): Promise<void> {
    try {
      await this.database.inWorkspace(workspaceId, async (tx) => {
        const claimed = await this.queue.claimOne(tx, id);
        const book = await this.books.open(tx);
        await this.#route(tx, await this.#due(tx, claimed, book), book, claimed[0]?.claimed_at ?? new Date());
      });
    } catch (cause) {
      if (databaseFailure(cause) === 'unreachable') throw cause;
      await this.#putBackOrGiveUp(workspaceId, id, tries + 1, cause);
    }
  }

  async #putBackOrGiveUp(workspaceId: string, id: string, tries: number, cause: unknown): Promise<void> {
    const failed = whatFailed(cause);
    this.#log.error({ submission: id, tries, ...failed }, 'A submission could not be written.');
    this.metrics.retries.inc();
    await this.database.inWorkspace(workspaceId, async (tx) => {
      if (tries <= RETRY_PAUSES.length && (mayPass(cause) || tries < 3)) return this.queue.putBack(tx, id, tries);
      const batch = await this.queue.claimOne(tx, id);
      const passages = await this.#duePassages(tx, batch, await this.books.open(tx));
      await this.runs.save(tx, givenUp(passages, `the database answered with ${failed.kind} (${failed.code}).`));
      await this.queue.finish(
        tx,
        batch.map((queued) => queued.id),
      );
      await this.events.tell(tx, 'runs', 'submissions');
    });
  }

  async #duePassages(tx: WorkspaceTx, batch: readonly QueuedSubmission[], book: RouteBook) {
    const again = batch.filter(({ turns }) => turns > 0).map(({ id }) => id);
    const settled = await this.runs.settled(tx, again);
    const answers = await this.answers.of(tx, again);
    const answered = await this.holdAnswers.of(tx, again);
    return duePassages(batch, book, settled, { answers, answered });
  }

  /** The submissions of a batch with what each is due for, and under which names that is looked for. */
  async #due(tx: WorkspaceTx, batch: readonly QueuedSubmission[], book: RouteBook): Promise<DueSubmission[]> {
    const passages = new Map<string, DuePassage[]>(batch.map(({ id }) => [id, []]));
    for (const passage of await this.#duePassages(tx, batch, book)) passages.get(passage.queued.id)!.push(passage);
    return batch.map(({ id }) => {
      const own = passages.get(id)!;
      const lookups = lookupsTogether(own.map((passage) => lookupsOf(passage, book)));
      return { id, passages: own, lookups, names: this.records.lockNames(tx, lookups) };
    });
  }

  /**
   * Those that look for nothing that another batch is about to write: the others stay in the queue and come next. Where
   * these are few, all go, and wait for the other batch.
   */
  #withoutWaiting(due: readonly DueSubmission[]): readonly DueSubmission[] {
    const free = due.filter(({ names }) => this.#held.areFree(names));
    return free.length * 2 < due.length ? due : free;
  }

  /**
   * Plans and writes by the book that the batch was opened with: one opened now may be another. Where what it names has gone
   * meanwhile, the database refuses the batch, and each of its submissions is tried with the book of then.
   */
  async #route(tx: WorkspaceTx, due: readonly DueSubmission[], book: RouteBook, now: Date): Promise<void> {
    if (!due.length) return;
    const passages = due.flatMap((one) => one.passages);
    const lookups = lookupsTogether(due.map((one) => one.lookups));
    const known = await this.records.lockAndLoad(tx, lookups, book.destination);
    const counters = await this.counters.hold(tx, lookups.counters);
    // While some are planned, those before them are written.
    let written = Promise.resolve();
    try {
      for (let begin = 0; begin < passages.length; begin += PLANNED_AT_ONCE) {
        const planned = await planPassages(
          passages.slice(begin, begin + PLANNED_AT_ONCE),
          book,
          known,
          counters,
          this.#askAt,
          now,
        );
        const after = known.copy();
        written = written.then(() => this.#write(tx, planned, after));
        // Whatever fails is thrown below, once.
        written.catch(() => {});
      }
    } finally {
      // Also when planning fails: nothing may be written once the transaction is over.
      await written;
    }
    await this.queue.finish(
      tx,
      due.map(({ id }) => id),
    );
    await this.events.tell(tx, 'runs', 'submissions', 'records');
  }

  /** Writes what was planned, where `after` knows the records as they are then. */
  async #write(tx: WorkspaceTx, planned: PlannedPassages, after: KnownRecords): Promise<void> {
    const { runs, diffs, newOptions, apart, outgoing, asks, made, given, advance } = planned;
    if (newOptions.length) await this.fields.addOptions(tx, newOptions);
    await this.records.write(tx, diffs, after);
    const runOf = await this.runs.save(tx, runs);
    await this.outbox.put(
      tx,
      [...outgoing, ...(await this.asked.ask(tx, asks))].map((item) => ({ ...item, run: runOf.get(item.attempt)! })),
    );
    await this.activities.make(tx, made);
    await this.assignments.keep(tx, given);
    if (given.some(({ due }) => due !== null)) await this.promises.watch(tx.workspaceId);
    await this.answers.keepApart(tx, apart);
    await this.counters.advance(tx, advance);
    for (const { outcome } of runs) this.metrics.runs.inc({ outcome });
  }
}

/** Of a failure what may be told: nothing of what the database or the code says of it, which may hold a submission's data. */
function whatFailed(cause: unknown) {
  const { code = 'none', constraint, stack } = cause as { code?: string; constraint?: string; stack?: string };
  return { code, constraint, kind: databaseFailure(cause), at: stack?.split('\n').slice(1, 4) };
}
