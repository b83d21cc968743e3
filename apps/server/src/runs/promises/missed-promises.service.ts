import { Inject, Injectable, type OnApplicationBootstrap, type OnModuleInit } from '@nestjs/common';
import { answerDue, assign, emptyDiff, promiseOf, turnOf, type Destination } from '@haycart/core';
import type { Caller } from '../../platform/auth/caller';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { Jobs } from '../../platform/jobs/jobs';
import { DestinationService } from '../../destination/destination.service';
import { ActivitiesService } from '../../records/activities/activities.service';
import { AssignmentsService, type Unanswered } from '../../records/assignments/assignments.service';
import { RecordActs } from '../../records/edits/record-acts.service';
import { HeldRecords } from '../../records/held-records.service';
import { CountersService } from '../counters.service';

const JOB = 'missed-promises';
/** How often it is looked at what was not answered in time, in seconds. */
const EVERY = 60;
const AT_ONCE = 100;
/** By whom it is done, in words. */
const BY: Caller['by'] = { kind: 'token', id: 'promise', name: 'the promise to answer', scope: 'all' };

/** What happens by itself to enquiries that nobody answered in time, as their team or pipeline says. */
@Injectable()
export class MissedPromises implements OnModuleInit, OnApplicationBootstrap {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Jobs) private readonly jobs: Jobs,
    @Inject(AssignmentsService) private readonly assignments: AssignmentsService,
    @Inject(ActivitiesService) private readonly activities: ActivitiesService,
    @Inject(HeldRecords) private readonly held: HeldRecords,
    @Inject(RecordActs) private readonly acts: RecordActs,
    @Inject(CountersService) private readonly counters: CountersService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  onModuleInit(): void {
    this.jobs.register<{ workspaceId: string }>({ name: JOB, work: ({ workspaceId }) => this.lookAt(workspaceId) });
  }

  /** What was missed while the server was down is looked at as well. */
  async onApplicationBootstrap(): Promise<void> {
    for (const { id } of await this.database.gate<{ id: string }>('workspaces'))
      if (await this.database.inWorkspace(id, (tx) => this.assignments.anyOpen(tx)))
        await this.jobs.resume(JOB, { workspaceId: id }, `${JOB} ${id}`);
  }

  /** Has it looked at, from now on until everything is answered. */
  async watch(workspaceId: string): Promise<void> {
    await this.jobs.add(JOB, { workspaceId }, `${JOB} ${workspaceId}`, EVERY);
  }

  /** Does what is to be done about all that is missed by now. Each portion is a transaction: what is marked is done, once, whoever looks at the same time. */
  async lookAt(workspaceId: string): Promise<void> {
    let waits: boolean;
    let marked: number;
    do {
      ({ marked, waits } = await this.database.inWorkspace(workspaceId, async (tx) => {
        const late = await this.assignments.late(tx, AT_ONCE);
        // Records are locked before what is kept about them, as whoever changes them does.
        await this.held.byAnyIdThere(
          tx,
          late.map(({ record }) => record),
        );
        const open = await this.assignments.markMissed(
          tx,
          late.map(({ id }) => id),
        );
        const destination = await this.destinations.load(tx);
        for (const one of open) await this.#follow(tx, one, destination);
        return { marked: late.length, waits: await this.assignments.anyOpen(tx) };
      }));
      this.jobs.stopping.throwIfAborted();
    } while (marked === AT_ONCE);
    if (waits) await this.watch(workspaceId);
  }

  async #follow(tx: WorkspaceTx, missed: Unanswered, destination: Destination): Promise<void> {
    const { team, pipeline, record, name, person, owner } = missed;
    const promise = promiseOf({ team: team ?? undefined, pipeline: pipeline ?? undefined }, destination);
    const step = promise?.missed;
    // Whoever was given it by a person meanwhile keeps it.
    const passesOn = step?.do === 'next' && team !== null && owner === person;
    if (passesOn && (await this.#giveToNext(tx, { ...missed, team }, destination))) return;
    // Where the next of the team was asked for and there is none left, somebody has to know.
    if (step) {
      const told = step.do === 'task' ? step.person : (owner ?? person);
      const task = { text: `Answer ${name}, which is late`, priority: 'high' as const, owner: told };
      await this.activities.addTask(tx, record, task, BY);
    }
  }

  /** Gives something to the next of its team who had it not. Returns whether there was one. */
  async #giveToNext(
    tx: WorkspaceTx,
    { kind, record, person, team, name }: Unanswered & { team: string },
    destination: Destination,
  ): Promise<boolean> {
    const [known] = await this.held.hold(tx, kind, [record]);
    const turn = turnOf(team);
    const counters = await this.counters.hold(tx, [turn]);
    const now = await this.#now(tx);
    const next = assign({ team }, kind, {
      submission: { receivedAt: now, origin: undefined },
      destination,
      counters,
      without: await this.assignments.givenBefore(tx, record),
    });
    if (next.person === null) return false;
    const before = known!.values.owner ?? null;
    const diff = emptyDiff();
    diff.changed[record] = { kind, fields: { owner: { before, after: next.person } } };
    await this.acts.apply(
      tx,
      [known!],
      [],
      { diff, text: `Gave ${name} to the next, as it was not answered in time` },
      BY,
    );
    await this.counters.advance(tx, next.advance);
    const nameOf = (key: string) =>
      destination.fields
        .find((field) => field.record === kind && field.key === 'owner')
        ?.options?.find((one) => one.key === key)?.label ?? key;
    const given = { record: kind, id: record, person: next.person, team, shares: next.shares };
    await this.assignments.keep(tx, [
      {
        ...given,
        why: `${next.why}, as ${nameOf(person)} did not answer in time`,
        attempt: null,
        at: new Date(now),
        due: answerDue(given, now, destination),
      },
    ]);
    return true;
  }

  async #now(tx: WorkspaceTx): Promise<string> {
    const [row] = await tx.statement<{ now: Date }>('now', 'select now() as now', []);
    return row!.now.toISOString();
  }
}
