import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import {
  counted,
  fieldOf,
  isEmptyDiff,
  planTakeBack,
  showRecordValue,
  withoutMisfits,
  type Destination,
  type KnownRecord,
  type LeftAlone,
  type Link,
  type PlannedEffect,
  type PlannedTakeBack,
  type RecordsDiff,
} from '@haycart/core';
import type { TakeBackRehearsal, TakenBack } from '@haycart/api';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { OutboxService } from '../outbox/outbox.service';
import { MadeActivities } from '../records/activities/made-activities.service';
import { HeldRecords } from '../records/held-records.service';
import { RecordActs } from '../records/edits/record-acts.service';
import { RecordsService } from '../records/records.service';
import { DestinationService } from '../destination/destination.service';
import type { Arrivals } from '../submissions/submission-queue';
import { madeBy } from './beside-records';
import { countsOf, idsIn } from './taken-back';

/** Which written runs: named one by one, or all of a route or of an intake, narrowed by version and time. */
export interface RunChoice {
  runs?: string[] | undefined;
  route?: string | undefined;
  /** The id of an intake. */
  intake?: string | undefined;
  version?: number | undefined;
  /** ISO 8601: the arrival of their submissions. */
  since?: string | undefined;
  before?: string | undefined;
  /** Runs that were written before this attempt. */
  olderThan?: string | undefined;
}

/** The most runs that are taken back in one act. */
const MOST = 5_000;
/** How many of what is left alone are told one by one. */
const TOLD = 100;

/** A run that may be taken back, with the attempt that wrote. */
interface WrittenRun {
  id: string;
  attempt: string;
}

/** What a take back would do, and on what. */
interface Prepared {
  plan: PlannedTakeBack;
  records: KnownRecord[];
  links: Link[];
  destination: Destination;
}

/** Takes back what runs wrote: shown before, one act that can be taken back itself. */
@Injectable()
export class TakeBackService implements OnModuleInit {
  constructor(
    @Inject(HeldRecords) private readonly held: HeldRecords,
    @Inject(RecordActs) private readonly acts: RecordActs,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(OutboxService) private readonly outbox: OutboxService,
    @Inject(MadeActivities) private readonly activities: MadeActivities,
    @Inject(Events) private readonly events: Events,
  ) {}

  onModuleInit(): void {
    this.acts.beforeTakenBack((tx, edit) => this.#refuseRanAgain(tx, edit));
    this.acts.whenTakenBack((tx, edit) => this.#writtenAgain(tx, edit));
  }

  /** What taking back would do, without doing it. */
  async rehearse(tx: WorkspaceTx, choice: RunChoice): Promise<TakeBackRehearsal> {
    return this.#rehearse(tx, await this.#allOf(tx, choice));
  }

  /** What taking back the latest of the chosen runs would do, as many as go in one act. */
  async rehearseLatest(tx: WorkspaceTx, choice: RunChoice): Promise<TakeBackRehearsal> {
    return this.#rehearse(tx, await this.#latest(tx, choice, MOST));
  }

  async #rehearse(tx: WorkspaceTx, runs: readonly WrittenRun[]): Promise<TakeBackRehearsal> {
    const { plan, destination } = await this.#prepare(tx, runs);
    const attempts = runs.map(({ attempt }) => attempt);
    return {
      runs: runs.length,
      ...countsOf(plan.diff),
      left: plan.left.length,
      ...(await this.outbox.ofAttempts(tx, attempts)),
      ...(await this.activities.untouched(tx, attempts)),
      examples: await this.#inWords(tx, plan.left.slice(0, TOLD), destination),
    };
  }

  /** @throws ProblemError 409 when none of the runs has written anything that is not taken back yet. */
  async takeBack(tx: WorkspaceTx, choice: RunChoice, by: Caller['by']): Promise<TakenBack> {
    const runs = await this.#allOf(tx, choice);
    if (!runs.length)
      throw new ProblemError(
        'conflict',
        'There is nothing to take back: these runs wrote nothing, or are taken back already.',
      );
    const done = await this.#takeBack(tx, runs, by);
    if (done.edit === null)
      throw new ProblemError(
        'conflict',
        'Nothing can be taken back: all that was written was changed since, or others work with it.',
      );
    return done;
  }

  /**
   * Takes back the latest of the chosen runs, at most so many, in one act. `oldest` is where the next portion goes on;
   * null when there was none left.
   */
  async takeBackLatest(
    tx: WorkspaceTx,
    choice: RunChoice,
    most: number,
    by: Caller['by'],
  ): Promise<TakenBack & { oldest: string | null }> {
    const runs = await this.#latest(tx, choice, most);
    return { ...(await this.#takeBack(tx, runs, by)), oldest: runs.at(-1)?.attempt ?? null };
  }

  /** Has the held runs of an intake's arrivals wait for nobody any more. Returns how many there were. */
  async settleHeld(tx: WorkspaceTx, { intake, since, before }: Arrivals, summary: string): Promise<number> {
    const rows = await tx.statement(
      'settle_held',
      `update run r set outcome = 'skipped', reason_code = 'cancelled', summary = $5, unmapped = null from submission s
       where r.workspace_id = $1 and s.workspace_id = $1 and r.submission_id = s.id and r.outcome = 'held'
         and s.intake_id = $2 and s.received_at >= $3 and s.received_at < $4 returning r.id`,
      [tx.workspaceId, intake, since, before, summary],
    );
    return rows.length;
  }

  /** `edit` is null when nothing of what was written could go. */
  async #takeBack(tx: WorkspaceTx, runs: readonly WrittenRun[], by: Caller['by']): Promise<TakenBack> {
    const { plan, records, links } = await this.#prepare(tx, runs);
    const told = { ...countsOf(plan.diff), left: plan.left.length };
    const attempts = runs.map(({ attempt }) => attempt);
    if (isEmptyDiff(plan.diff) && !(await this.#madeAnything(tx, attempts))) return { edit: null, runs: 0, ...told };
    const text = `Took back ${counted(runs.length, 'run')}`;
    // What comes back was there before the first of them, so that running them again finds nothing later in the way.
    const countsFrom = await this.#firstArrival(tx, runs);
    const { edit } = await this.acts.apply(
      tx,
      records,
      links,
      { diff: plan.diff, text, countsFrom, doesMore: true },
      by,
    );
    await tx.statement(
      'runs_taken_back',
      `with of_them as (update attempt set taken_back_by = $3 where workspace_id = $1 and id = any($2::uuid[]) returning run_id)
       update run set outcome = 'taken-back' where workspace_id = $1 and id in (select run_id from of_them)`,
      [tx.workspaceId, attempts, edit],
    );
    await this.outbox.takeBack(tx, attempts);
    await this.activities.takeBack(tx, attempts);
    await this.events.tell(tx, 'runs', 'submissions', 'records');
    return { edit, runs: runs.length, ...told };
  }

  /** Whether attempts did anything beside changing records that can still be undone. */
  async #madeAnything(tx: WorkspaceTx, attempts: readonly string[]): Promise<boolean> {
    const { notSent } = await this.outbox.ofAttempts(tx, attempts);
    const { tasks, notes, documents, consents } = await this.activities.untouched(tx, attempts);
    return notSent + tasks + notes + documents + consents > 0;
  }

  /** @throws ProblemError 409 where a run that an act took back ran again since: what it wrote would stand twice. */
  async #refuseRanAgain(tx: WorkspaceTx, edit: string): Promise<void> {
    const ranAgain = await tx.statement(
      'runs_ran_again',
      `select 1 from attempt a join run r on r.workspace_id = a.workspace_id and r.id = a.run_id
       where a.workspace_id = $1 and a.taken_back_by = $2 and r.attempt_id <> a.id limit 1`,
      [tx.workspaceId, edit],
    );
    if (ranAgain.length)
      throw new ProblemError(
        'conflict',
        'What was taken back ran again since, so giving it back would write it twice. Take back the later run instead.',
      );
  }

  /** A take back that was itself taken back: its runs stand as written again. */
  async #writtenAgain(tx: WorkspaceTx, edit: string): Promise<void> {
    const rows = await tx.statement<{ attempt: string }>(
      'runs_written_again',
      `with of_them as (update attempt set taken_back_by = null where workspace_id = $1 and taken_back_by = $2 returning id, run_id)
       update run set outcome = 'written' from of_them where workspace_id = $1 and run.id = of_them.run_id returning of_them.id as attempt`,
      [tx.workspaceId, edit],
    );
    const attempts = rows.map(({ attempt }) => attempt);
    await this.outbox.giveBack(tx, attempts);
    await this.#makeAgain(tx, attempts);
    if (rows.length) await this.events.tell(tx, 'runs', 'submissions');
  }

  /** Makes what attempts made beside records again, as their plans say. */
  async #makeAgain(tx: WorkspaceTx, attempts: readonly string[]): Promise<void> {
    const plans = await tx.statement<{ attempt: string; route: string; at: Date; effects: PlannedEffect[] }>(
      'effects_of_attempts',
      `select a.id as attempt, t.name as route, s.received_at as at, a.plan -> 'effects' as effects from attempt a join run r on r.workspace_id = a.workspace_id and r.id = a.run_id
       join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
       join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
       where a.workspace_id = $1 and a.id = any($2::uuid[]) and json_typeof(a.plan -> 'effects') = 'array'`,
      [tx.workspaceId, attempts],
    );
    await this.activities.make(
      tx,
      plans.flatMap((plan) => madeBy(plan, plan)),
    );
  }

  async #firstArrival(tx: WorkspaceTx, runs: readonly WrittenRun[]): Promise<string> {
    const [row] = await tx.statement<{ at: Date }>(
      'first_arrival',
      `select min(s.received_at) as at from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
       where r.workspace_id = $1 and r.id = any($2::uuid[])`,
      [tx.workspaceId, runs.map(({ id }) => id)],
    );
    return row!.at.toISOString();
  }

  async #prepare(tx: WorkspaceTx, runs: readonly WrittenRun[]): Promise<Prepared> {
    const destination = await this.destinations.load(tx);
    const causes = runs.map(({ attempt }) => attempt);
    const rows = await tx.statement<{ diff: RecordsDiff }>(
      'diffs_of_runs',
      `select diff from record_change where workspace_id = $1 and cause_kind = 'run' and cause_id = any($2::uuid[]) order by id desc`,
      [tx.workspaceId, causes],
    );
    const diffs = rows.map(({ diff }) => withoutMisfits(diff, destination));
    const ids = [...new Set(diffs.flatMap(idsIn))];
    const own = await this.held.byAnyIdThere(tx, ids);
    const around = await this.held.around(
      tx,
      own.map(({ id }) => id),
    );
    const records = new Map([...own, ...around.others].map((record) => [record.id, record]));
    const used = await this.#inUse(tx, diffs, causes, around.links);
    const plan = planTakeBack(diffs, {
      values: (id) => records.get(id)?.values,
      links: around.links,
      inUse: (id) => used.has(id),
    });
    return { plan, records: [...records.values()], links: around.links, destination };
  }

  async #allOf(tx: WorkspaceTx, choice: RunChoice): Promise<WrittenRun[]> {
    if (!choice.runs && !choice.route)
      throw new ProblemError('refused', 'Say which runs: by their ids, or all of a route.', [
        { at: '/runs', code: 'missing', message: 'Give runs or route.' },
      ]);
    const runs = await this.#latest(tx, choice, MOST + 1);
    if (runs.length > MOST)
      throw new ProblemError(
        'refused',
        `At most ${counted(MOST, 'run')} are taken back in one act. Choose a shorter time, and go on with the rest.`,
      );
    return runs;
  }

  /** The latest first. */
  async #latest(tx: WorkspaceTx, choice: RunChoice, most: number): Promise<WrittenRun[]> {
    const { runs, route, intake, version, since, before, olderThan } = choice;
    return tx.statement<WrittenRun & Record<string, string>>(
      'runs_to_take_back',
      `select r.id, r.attempt_id as attempt from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id
       where r.workspace_id = $1 and r.outcome = 'written' and ($2::uuid[] is null or r.id = any($2)) and ($3::uuid is null or r.route_id = $3)
         and ($4::int is null or r.version = $4) and ($5::timestamptz is null or s.received_at >= $5) and ($6::timestamptz is null or s.received_at < $6)
         and ($7::uuid is null or s.intake_id = $7) and ($8::uuid is null or r.attempt_id < $8)
       order by r.attempt_id desc limit $9 for update of r`,
      [
        tx.workspaceId,
        runs ?? null,
        route ?? null,
        version ?? null,
        since ?? null,
        before ?? null,
        intake ?? null,
        olderThan ?? null,
        most,
      ],
    );
  }

  /**
   * The records that the runs made and something else touched: another cause that still stands, what people added, a link
   * of another.
   */
  async #inUse(
    tx: WorkspaceTx,
    diffs: readonly RecordsDiff[],
    causes: readonly string[],
    links: readonly Link[],
  ): Promise<Set<string>> {
    const made = [...new Set(diffs.flatMap(({ created }) => Object.keys(created)))];
    const rows = await tx.statement<{ id: string }>(
      'used_records',
      `select record_id as id from record_change c where workspace_id = $1 and record_id = any($2::uuid[]) and cause_id <> all($3::uuid[])
         and not exists (select 1 from attempt a where a.workspace_id = $1 and a.id = c.cause_id and a.taken_back_by is not null)
         and not exists (select 1 from attempt a where a.workspace_id = $1 and a.taken_back_by = c.cause_id)
         and not exists (select 1 from record_edit e where e.workspace_id = $1 and e.id = c.cause_id and e.taken_back_at is not null)
       union select record_id from note where workspace_id = $1 and record_id = any($2::uuid[]) and (attempt_id is null or attempt_id <> all($3::uuid[]) or changed_at is not null)
       union select record_id from task where workspace_id = $1 and record_id = any($2::uuid[]) and (attempt_id is null or attempt_id <> all($3::uuid[]) or changed_at is not null)
       union select record_id from record_file where workspace_id = $1 and record_id = any($2::uuid[]) and (attempt_id is null or attempt_id <> all($3::uuid[]))
       union select contact_id from consent where workspace_id = $1 and contact_id = any($2::uuid[]) and (attempt_id is null or attempt_id <> all($3::uuid[]))`,
      [tx.workspaceId, made, causes],
    );
    const own = new Set(diffs.flatMap(({ linked }) => linked.map(({ from, to }) => `${from} ${to}`)));
    const foreign = links.filter(({ from, to }) => !own.has(`${from} ${to}`)).flatMap(({ from, to }) => [from, to]);
    return new Set([...rows.map(({ id }) => id), ...foreign]);
  }

  async #inWords(
    tx: WorkspaceTx,
    left: readonly LeftAlone[],
    destination: Destination,
  ): Promise<TakeBackRehearsal['examples']> {
    const named = await this.records.named(tx, [...new Set(left.map(({ record }) => record))]);
    return left.map(({ record, kind, field, now, why }) => {
      const definition = field === null ? undefined : fieldOf(destination, kind, field);
      return {
        record: { kind, id: record, name: named.get(record)?.name ?? 'a deleted record' },
        field: field === null ? null : (definition?.label ?? field),
        now: field === null ? null : showRecordValue(destination, kind, field, now),
        why,
      };
    });
  }
}
