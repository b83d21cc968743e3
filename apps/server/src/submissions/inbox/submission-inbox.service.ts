import { Inject, Injectable } from '@nestjs/common';
import { LIMITS, POSTED, type BodyFormat, type Origin, type Suspicion, type Visit } from '@haycart/core';
import { newId } from '../../platform/new-id';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { packed } from '../../platform/database/packed';
import { Events } from '../../platform/events/events';
import { ProblemError } from '../../platform/errors/problem-error';
import { AcknowledgedCounts, type Acknowledged } from '../counts/acknowledged-counts.service';
import type { ArrivedFile } from './arrived-file';
import { keepFiles } from './file-store';

/** Something to be kept: one submission, before it has an id. */
export interface Arrival {
  workspaceId: string;
  intakeId: string;
  /** When it arrived, where that is known from elsewhere; else the database's time, by which all that compares is told. */
  receivedAt?: Date;
  format: BodyFormat;
  body: Buffer;
  visit: Visit;
  /** How it came in, where it was not posted. */
  origin?: Origin;
  files?: ArrivedFile[];
  /** Whether it lets what arrives meanwhile be routed first. */
  givesWay?: boolean;
  /** Found suspicious: it is set aside, and not routed before a person says so. */
  suspicion?: Suspicion | undefined;
}

/** What was kept: the ids, and whether it is kept now or was before. */
export interface Kept {
  ids: string[];
  isNew: boolean;
}

/** What the database says of a submission that it kept. */
type Arrived = Acknowledged & Record<string, unknown>;

interface Waiting {
  id: string;
  arrival: Arrival;
  resolve: (id: string) => void;
  reject: (cause: unknown) => void;
}

/** How many inserts run at once; what arrives meanwhile goes together in the next. */
const IN_FLIGHT = 2;
const MOST_TOGETHER = 200;
const MOST_BYTES_TOGETHER = 8 * 1_048_576;
/** What one that waits takes besides its body, about. */
const OVERHEAD = 2_000;

const COLUMNS = '(workspace_id, id, intake_id, received_at, format, body, visit, origin, due_at)';
const INSERT_ONE = `insert into submission ${COLUMNS}
  select $1::uuid, $2::uuid, $3::uuid, coalesce($4::timestamptz, now()), $5::text, $6::bytea, $7::jsonb, $8::jsonb, now() from entered
  returning intake_id as "intakeId", (received_at at time zone 'utc')::date::text as day`;
const insertMany = (from: string) => `insert into submission ${COLUMNS.replace(')', ', gives_way)')}
  select $1::uuid, s.id, s.intake_id, coalesce(s.received_at, now()), s.format, substring($6::bytea from s.start for s.length), s.visit, s.origin, now(), s.gives_way
  from ${from} unnest($2::uuid[], $3::uuid[], $4::timestamptz[], $5::text[], $7::int[], $8::int[], $9::jsonb[], $10::boolean[], $11::jsonb[])
    s (id, intake_id, received_at, format, start, length, visit, gives_way, origin)
  returning intake_id as "intakeId", (received_at at time zone 'utc')::date::text as day`;
const INSERT_MANY = insertMany('entered,');
const INSERT_ALL = insertMany('');

/**
 * Keeps what arrives. A promise resolves only when its submission is durable. Arrivals are gathered adaptively: one
 * alone is written at once; under load, all that came while an insert was under way go together in the next.
 */
@Injectable()
export class SubmissionInbox {
  /** What waits, by workspace; the one whose turn it is first. */
  readonly #waiting = new Map<string, Waiting[]>();
  #bytes = 0;
  #inFlight = 0;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
    @Inject(AcknowledgedCounts) private readonly acknowledged: AcknowledgedCounts,
  ) {}

  /** Keeps one submission and answers its id. */
  keep(arrival: Arrival): Promise<string> {
    const { workspaceId, body } = arrival;
    // Above this more are refused rather than kept waiting: memory is bounded.
    if (this.#bytes + body.length + OVERHEAD > LIMITS.inboxBytes.most)
      throw new ProblemError(
        'not-available',
        'More arrives than can be kept just now. Send it again soon.',
        undefined,
        2,
      );
    return new Promise((resolve, reject) => {
      const own = this.#waiting.get(workspaceId) ?? [];
      own.push({ id: newId(), arrival, resolve, reject });
      this.#waiting.set(workspaceId, own);
      this.#bytes += body.length + OVERHEAD;
      this.#flush();
    });
  }

  /** Keeps several together: all of them or none. */
  async keepAll(arrivals: readonly Arrival[]): Promise<string[]> {
    const workspaceId = arrivals[0]!.workspaceId;
    const ids = await this.database.inWorkspace(workspaceId, (tx) => this.#insertAll(tx, arrivals));
    this.events.tellSoon(workspaceId, 'submissions');
    return ids;
  }

  /** Keeps several in a transaction of somebody else, which tells of them. */
  keepIn(tx: WorkspaceTx, arrivals: readonly Arrival[]): Promise<string[]> {
    return this.#insertAll(tx, arrivals);
  }

  /**
   * Keeps several under an idempotency key: the same key with the same body again gives the first answer and keeps
   * nothing. Of two at the same moment the later waits for the earlier.
   */
  async keepOnce(arrivals: readonly Arrival[], key: string, bodyHash: string): Promise<Kept> {
    const { workspaceId, intakeId } = arrivals[0]!;
    const kept = await this.database.inWorkspace(workspaceId, async (tx) => {
      await tx.statement(
        'idempotency_expired',
        `delete from idempotency where workspace_id = $1 and intake_id = $2 and key = $3 and at < now() - interval '${LIMITS.idempotency.most} hours'`,
        [workspaceId, intakeId, key],
      );
      const fresh = arrivals.map(() => newId());
      const [taken] = await tx.statement(
        'idempotency_take',
        `insert into idempotency (workspace_id, intake_id, key, body_hash, submission_ids, at) values ($1, $2, $3, $4, $5::uuid[], now()) on conflict do nothing returning key`,
        [workspaceId, intakeId, key, bodyHash, fresh],
      );
      if (taken) return { ids: await this.#insertAll(tx, arrivals, fresh), isNew: true };
      const [known] = await tx.statement<{ body_hash: string; submission_ids: string[] }>(
        'idempotency_known',
        'select body_hash, submission_ids from idempotency where workspace_id = $1 and intake_id = $2 and key = $3',
        [workspaceId, intakeId, key],
      );
      if (known!.body_hash !== bodyHash)
        throw new ProblemError(
          'idempotency-mismatch',
          'This Idempotency-Key was used in the last 24 hours with another body. Use a new key for a new submission.',
        );
      return { ids: known!.submission_ids, isNew: false };
    });
    this.events.tellSoon(workspaceId, 'submissions');
    return kept;
  }

  async #insertAll(
    tx: WorkspaceTx,
    arrivals: readonly Arrival[],
    ids: string[] = arrivals.map(() => newId()),
  ): Promise<string[]> {
    const kept = arrivals.map((arrival, index) => ({ id: ids[index]!, arrival }));
    const arrived = await tx.statement<Arrived>('insert_all', INSERT_ALL, [tx.workspaceId, ...manyRows(kept)]);
    await this.acknowledged.countIn(tx, arrived);
    for (const [index, { files = [], suspicion }] of arrivals.entries()) {
      if (suspicion)
        await tx.statement(
          'set_aside',
          `update submission set state = 'set-aside', suspicion = $3 where workspace_id = $1 and id = $2`,
          [tx.workspaceId, ids[index], JSON.stringify(suspicion)],
        );
      if (files.length) await keepFiles(tx, arrivals[index]!.intakeId, ids[index]!, files);
    }
    return ids;
  }

  /** Writes what waits, one workspace after the other, so that none waits for a long queue of another. */
  #flush(): void {
    while (this.#inFlight < IN_FLIGHT && this.#waiting.size) {
      const [workspaceId, own] = this.#waiting.entries().next().value!;
      const together = own.splice(0, countTogether(own));
      this.#waiting.delete(workspaceId);
      if (own.length) this.#waiting.set(workspaceId, own);
      this.#inFlight += 1;
      void this.#insert(workspaceId, together).finally(() => {
        this.#inFlight -= 1;
        for (const { arrival } of together) this.#bytes -= arrival.body.length + OVERHEAD;
        this.#flush();
      });
    }
  }

  async #insert(workspaceId: string, together: Waiting[]): Promise<void> {
    try {
      const arrived =
        together.length === 1
          ? await this.database.inWorkspaceOnce<Arrived>(workspaceId, 'keep_alone', INSERT_ONE, oneRow(together[0]!))
          : await this.database.inWorkspaceOnce<Arrived>(workspaceId, 'keep_many', INSERT_MANY, manyRows(together));
      this.acknowledged.count(workspaceId, arrived);
      for (const { id, resolve } of together) resolve(id);
      this.events.tellSoon(workspaceId, 'submissions');
    } catch (cause) {
      for (const { reject } of together) reject(cause);
    }
  }
}

/** Returns how many waiting submissions go into one statement, by count and bytes. */
function countTogether(waiting: readonly Waiting[]): number {
  let count = 0;
  let bytes = 0;
  while (count < waiting.length && count < MOST_TOGETHER && (count === 0 || bytes < MOST_BYTES_TOGETHER)) {
    bytes += waiting[count]!.arrival.body.length;
    count += 1;
  }
  return count;
}

type Row = Pick<Waiting, 'id' | 'arrival'>;

function oneRow({ id, arrival }: Row): unknown[] {
  return [
    id,
    arrival.intakeId,
    arrival.receivedAt ?? null,
    arrival.format,
    arrival.body,
    JSON.stringify(arrival.visit),
    JSON.stringify(arrival.origin ?? POSTED),
  ];
}

function manyRows(together: readonly Row[]): unknown[] {
  const column = (value: (arrival: Arrival) => unknown) => together.map(({ arrival }) => value(arrival));
  const { bytes, starts, lengths } = packed(together.map(({ arrival }) => arrival.body));
  return [
    together.map(({ id }) => id),
    column(({ intakeId }) => intakeId),
    column(({ receivedAt }) => receivedAt ?? null),
    column(({ format }) => format),
    bytes,
    starts,
    lengths,
    column(({ visit }) => JSON.stringify(visit)),
    column(({ givesWay }) => givesWay ?? false),
    column(({ origin = POSTED }) => JSON.stringify(origin)),
  ];
}
