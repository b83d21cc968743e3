import { Inject, Injectable } from '@nestjs/common';
import type { BodyFormat, Suspicion, Visit } from '@haycart/core';
import { newId } from '../../platform/new-id';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { packed } from '../../platform/database/packed';
import { Events } from '../../platform/events/events';
import { ProblemError } from '../../platform/errors/problem-error';

/** Something to be kept: one submission, before it has an id. */
export interface Arrival {
  workspaceId: string;
  intakeId: string;
  receivedAt: Date;
  format: BodyFormat;
  body: Buffer;
  visit: Visit;
  files?: ArrivedFile[];
  /** Whether it lets what arrives meanwhile be routed first. */
  givesWay?: boolean;
  /** Found suspicious: it is set aside, and not routed before a person says so. */
  suspicion?: Suspicion | undefined;
}

/** A file of a multipart body. Its id stands in the payload. */
export interface ArrivedFile {
  id: string;
  name: string;
  type: string;
  bytes: Buffer;
}

interface Waiting {
  id: string;
  arrival: Arrival;
  resolve: (id: string) => void;
  reject: (cause: unknown) => void;
}

/** How many inserts run at once; what arrives meanwhile goes together in the next. */
const IN_FLIGHT = 2;
const MOST_TOGETHER = 200;
/** Above this many waiting, more are refused rather than kept waiting: memory is bounded. */
const MOST_WAITING = 5_000;

const COLUMNS = '(workspace_id, id, intake_id, received_at, format, body, visit, due_at)';
const INSERT_ONE = `insert into submission ${COLUMNS}
  select $1::uuid, $2::uuid, $3::uuid, $4::timestamptz, $5::text, $6::bytea, $7::jsonb, $4::timestamptz from entered`;
const insertMany = (from: string) => `insert into submission ${COLUMNS.replace(')', ', gives_way)')}
  select $1::uuid, s.id, s.intake_id, s.received_at, s.format, substring($6::bytea from s.start for s.length), s.visit, s.received_at, s.gives_way
  from ${from} unnest($2::uuid[], $3::uuid[], $4::timestamptz[], $5::text[], $7::int[], $8::int[], $9::jsonb[], $10::boolean[])
    s (id, intake_id, received_at, format, start, length, visit, gives_way)`;
const INSERT_MANY = insertMany('entered,');
const INSERT_ALL = insertMany('');

/**
 * Keeps what arrives. A promise resolves only when its submission is durable. Arrivals are gathered adaptively: one
 * alone is written at once; under load, all that came while an insert was under way go together in the next.
 */
@Injectable()
export class SubmissionInbox {
  readonly #waiting: Waiting[] = [];
  #inFlight = 0;

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** Keeps one submission and answers its id. */
  keep(arrival: Arrival): Promise<string> {
    if (this.#waiting.length >= MOST_WAITING)
      throw new ProblemError(
        'not-available',
        'More arrives than can be kept just now. Send it again soon.',
        undefined,
        2,
      );
    return new Promise((resolve, reject) => {
      this.#waiting.push({ id: newId(), arrival, resolve, reject });
      this.#flush();
    });
  }

  /** Keeps several together: all of them or none. */
  async keepAll(arrivals: readonly Arrival[]): Promise<string[]> {
    const workspaceId = arrivals[0]!.workspaceId;
    const ids = await this.database.inWorkspace(workspaceId, (tx) => insertAll(tx, arrivals));
    this.events.tellSoon(workspaceId, 'submissions');
    return ids;
  }

  /** Keeps several in a transaction of somebody else, which tells of them. */
  keepIn(tx: WorkspaceTx, arrivals: readonly Arrival[]): Promise<string[]> {
    return insertAll(tx, arrivals);
  }

  /**
   * Keeps several under an idempotency key: the same key with the same body again gives the first answer and keeps
   * nothing. Of two at the same moment the later waits for the earlier.
   */
  async keepOnce(arrivals: readonly Arrival[], key: string, bodyHash: string): Promise<string[]> {
    const { workspaceId, intakeId, receivedAt } = arrivals[0]!;
    const ids = await this.database.inWorkspace(workspaceId, async (tx) => {
      await tx.statement(
        'idempotency_expired',
        `delete from idempotency where workspace_id = $1 and intake_id = $2 and key = $3 and at < now() - interval '24 hours'`,
        [workspaceId, intakeId, key],
      );
      const fresh = arrivals.map(() => newId());
      const [taken] = await tx.statement(
        'idempotency_take',
        `insert into idempotency (workspace_id, intake_id, key, body_hash, submission_ids, at) values ($1, $2, $3, $4, $5::uuid[], $6) on conflict do nothing returning key`,
        [workspaceId, intakeId, key, bodyHash, fresh, receivedAt],
      );
      if (taken) return insertAll(tx, arrivals, fresh);
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
      return known!.submission_ids;
    });
    this.events.tellSoon(workspaceId, 'submissions');
    return ids;
  }

  #flush(): void {
    while (this.#inFlight < IN_FLIGHT && this.#waiting.length) {
      const { workspaceId } = this.#waiting[0]!.arrival;
      // Arrivals of another workspace wait for the next insert, which is theirs.
      let count = 1;
      while (
        count < this.#waiting.length &&
        count < MOST_TOGETHER &&
        this.#waiting[count]!.arrival.workspaceId === workspaceId
      )
        count += 1;
      this.#inFlight += 1;
      void this.#insert(workspaceId, this.#waiting.splice(0, count)).finally(() => {
        this.#inFlight -= 1;
        this.#flush();
      });
    }
  }

  async #insert(workspaceId: string, together: Waiting[]): Promise<void> {
    try {
      if (together.length === 1)
        await this.database.inWorkspaceOnce(workspaceId, 'keep_one', INSERT_ONE, oneRow(together[0]!));
      else await this.database.inWorkspaceOnce(workspaceId, 'keep_many', INSERT_MANY, manyRows(together));
      for (const { id, resolve } of together) resolve(id);
      this.events.tellSoon(workspaceId, 'submissions');
    } catch (cause) {
      for (const { reject } of together) reject(cause);
    }
  }
}

type Kept = Pick<Waiting, 'id' | 'arrival'>;

function oneRow({ id, arrival }: Kept): unknown[] {
  return [id, arrival.intakeId, arrival.receivedAt, arrival.format, arrival.body, JSON.stringify(arrival.visit)];
}

function manyRows(together: readonly Kept[]): unknown[] {
  const column = (value: (arrival: Arrival) => unknown) => together.map(({ arrival }) => value(arrival));
  const { bytes, starts, lengths } = packed(together.map(({ arrival }) => arrival.body));
  return [
    together.map(({ id }) => id),
    column(({ intakeId }) => intakeId),
    column(({ receivedAt }) => receivedAt),
    column(({ format }) => format),
    bytes,
    starts,
    lengths,
    column(({ visit }) => JSON.stringify(visit)),
    column(({ givesWay }) => givesWay ?? false),
  ];
}

async function insertAll(
  tx: WorkspaceTx,
  arrivals: readonly Arrival[],
  ids: string[] = arrivals.map(() => newId()),
): Promise<string[]> {
  const kept = arrivals.map((arrival, index) => ({ id: ids[index]!, arrival }));
  await tx.statement('insert_all', INSERT_ALL, [tx.workspaceId, ...manyRows(kept)]);
  for (const [index, { files = [], suspicion }] of arrivals.entries()) {
    if (suspicion)
      await tx.statement(
        'set_aside',
        `update submission set state = 'set-aside', suspicion = $3 where workspace_id = $1 and id = $2`,
        [tx.workspaceId, ids[index], JSON.stringify(suspicion)],
      );
    for (const file of files) {
      await tx.statement(
        'insert_file',
        'insert into submission_file (workspace_id, id, submission_id, name, type, bytes) values ($1, $2, $3, $4, $5, $6)',
        [tx.workspaceId, file.id, ids[index], file.name, file.type, file.bytes],
      );
    }
  }
  return ids;
}
