import { Inject, Injectable, Logger, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { foldCounts } from '../../platform/database/fold-counts';
import { AfterChanges } from '../../platform/jobs/after-changes';

const FLUSH_MS = 1_000;

/** What arrived at one intake on one day (UTC). */
export interface Acknowledged {
  intakeId: string;
  day: string;
}

const ADD = `insert into acknowledged_count (workspace_id, intake_id, day, acknowledged)
  select $1::uuid, a.* from unnest($2::uuid[], $3::date[], $4::int[]) a`;

/**
 * Counts acknowledged submissions in memory, and writes the counts to the database once a second. They are not counted from
 * stored submissions, so a submission that was acknowledged and is missing is noticed. A killed process loses its last counts:
 * then more submissions are stored than counted.
 */
@Injectable()
export class AcknowledgedCounts implements OnModuleInit, OnModuleDestroy {
  #counts = new Map<string, Map<string, Acknowledged & { count: number }>>();
  #timer: NodeJS.Timeout | undefined;
  readonly #log = new Logger('acknowledged-counts');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AfterChanges) private readonly after: AfterChanges,
  ) {}

  onModuleInit(): void {
    this.after.follow({
      task: 'fold-acknowledged-counts',
      topic: 'submissions',
      restSeconds: 30,
      work: (workspaceId) =>
        this.database.inWorkspace(workspaceId, (tx) =>
          foldCounts(tx, 'acknowledged_count', ['intake_id'], 'acknowledged'),
        ),
    });
  }

  /** Counts some soon; for who told the sender just now. */
  count(workspaceId: string, arrived: readonly Acknowledged[]): void {
    const own = this.#counts.get(workspaceId) ?? new Map<string, Acknowledged & { count: number }>();
    this.#counts.set(workspaceId, own);
    for (const { key, ...one } of counted(arrived)) {
      const known = own.get(key);
      if (known) known.count += one.count;
      else own.set(key, one);
    }
    this.#timer ??= setTimeout(() => void this.flush(), FLUSH_MS).unref();
  }

  /** Counts some in a transaction, with which they are kept. */
  async countIn(tx: WorkspaceTx, arrived: readonly Acknowledged[]): Promise<void> {
    await add(tx, counted(arrived));
  }

  /** Writes what was counted since the last time. */
  async flush(): Promise<void> {
    clearTimeout(this.#timer);
    this.#timer = undefined;
    const counts = this.#counts;
    this.#counts = new Map();
    for (const [workspaceId, own] of counts)
      try {
        await this.database.inWorkspace(workspaceId, (tx) => add(tx, [...own.values()]));
      } catch (err) {
        this.#log.warn({ err }, 'What was acknowledged could not be counted; it is tried again.');
        for (const { count, ...one } of own.values()) this.count(workspaceId, Array<Acknowledged>(count).fill(one));
      }
  }

  async onModuleDestroy(): Promise<void> {
    await this.flush();
  }
}

function counted(arrived: readonly Acknowledged[]): (Acknowledged & { key: string; count: number })[] {
  const counts = new Map<string, Acknowledged & { key: string; count: number }>();
  for (const { intakeId, day } of arrived) {
    const key = `${intakeId} ${day}`;
    const known = counts.get(key);
    if (known) known.count += 1;
    else counts.set(key, { key, intakeId, day, count: 1 });
  }
  return [...counts.values()];
}

async function add(tx: WorkspaceTx, counts: readonly (Acknowledged & { count: number })[]): Promise<void> {
  await tx.statement('add_acknowledged', ADD, [
    tx.workspaceId,
    counts.map(({ intakeId }) => intakeId),
    counts.map(({ day }) => day),
    counts.map(({ count }) => count),
  ]);
}
