import { Injectable } from '@nestjs/common';
import { LIMITS, readPayload, sourceOf, whoSent, type BodyFormat, type Suspicion, type Visit } from '@haycart/core';
import type { Page, RunLine, RunOutcome, SubmissionDetail, SubmissionShape, SubmissionState } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { cursorTime, isId, pageOf, type Cursor } from '../platform/paging';

/** What a list of submissions is narrowed to. */
export interface SubmissionFilter {
  intake?: string;
  outcome?: RunOutcome | 'waiting' | 'unrouted' | 'set-aside';
  since?: Date;
  route?: string;
}

interface Row {
  id: string;
  intake_key: string;
  intake_name: string;
  received_at: Date;
  at: string;
  format: BodyFormat;
  body: Buffer;
  visit: Visit;
  state: SubmissionState;
  suspicion: Suspicion | null;
  tries: number;
  runs: RunLine[] | null;
  /** Of a page: how many there would be if they were small. */
  found: number;
}

const COLUMNS = `s.id, i.key as intake_key, i.name as intake_name, s.received_at, ${cursorTime('s.received_at')} as at, s.format, s.body, s.visit, s.state, s.suspicion, s.tries,
  (select jsonb_agg(jsonb_build_object('id', r.id, 'route', jsonb_build_object('id', t.id, 'name', t.name), 'outcome', r.outcome, 'summary', r.summary) order by t.created_at)
   from run r join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
   where r.workspace_id = s.workspace_id and r.submission_id = s.id) as runs`;
const FROM = 'from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id';
/** Absent filters are null; every one of them is part of the same statement. */
const WHERE = `where s.workspace_id = $1 and ($2::text is null or i.key = $2) and ($3::timestamptz is null or s.received_at >= $3)
  and ($4::text is null
    or ($4 = 'waiting' and s.state = 'waiting')
    or ($4 = 'set-aside' and s.state = 'set-aside')
    or ($4 = 'unrouted' and s.state = 'routed' and not exists (select 1 from run r where r.workspace_id = s.workspace_id and r.submission_id = s.id))
    or exists (select 1 from run r where r.workspace_id = s.workspace_id and r.submission_id = s.id and r.outcome = $4))
  and ($5::uuid is null or exists (select 1 from run r where r.workspace_id = s.workspace_id and r.submission_id = s.id and r.route_id = $5))`;

/** How many submissions one act may be about. */
const MOST_AT_ONCE = 10_000;

/** Reading what arrived. */
@Injectable()
export class SubmissionsService {
  async list(
    tx: WorkspaceTx,
    filter: SubmissionFilter,
    limit: number,
    after: Cursor | null,
  ): Promise<Page<SubmissionShape>> {
    const rows = await this.#rows(tx, filter, limit + 1, after, LIMITS.pageBytes.most);
    const [count] = await tx.statement<{ total: number }>(
      'submissions_total',
      `select count(*)::int as total ${FROM} ${WHERE}`,
      [tx.workspaceId, ...valuesOf(filter)],
    );
    // A page of large submissions is shorter.
    const shown = rows.length && rows.length < rows[0]!.found ? Math.max(1, rows.length - 1) : limit;
    return pageOf(rows, shown, shape, ({ at, id }) => ({ at, id }), count!.total);
  }

  /** All that a filter leaves, latest first and in portions, so that any number fits into memory. */
  async *portions(tx: WorkspaceTx, filter: SubmissionFilter, size: number): AsyncGenerator<SubmissionShape[]> {
    let after: Cursor | null = null;
    for (;;) {
      const rows: Row[] = await this.#rows(tx, filter, size, after);
      if (rows.length) yield rows.map(shape);
      const last = rows[rows.length - 1];
      if (!last || rows.length < size) return;
      after = { at: last.at, id: last.id };
    }
  }

  async one(tx: WorkspaceTx, id: string): Promise<SubmissionDetail> {
    const [row] = isId(id)
      ? await tx.statement<Row>('submission', `select ${COLUMNS} ${FROM} where s.workspace_id = $1 and s.id = $2`, [
          tx.workspaceId,
          id,
        ])
      : [];
    if (!row) throw new ProblemError('not-found', 'There is no such submission.');
    return { ...shape(row), raw: row.body.toString('utf8'), tries: row.tries };
  }

  /** The ids of all that a filter leaves, latest first, `MOST_AT_ONCE` at most. */
  async ids(tx: WorkspaceTx, filter: SubmissionFilter): Promise<string[]> {
    const rows = await tx.statement<{ id: string }>(
      'submission_ids',
      `select s.id ${FROM} ${WHERE} order by s.received_at desc, s.id desc limit $6`,
      [tx.workspaceId, ...valuesOf(filter), MOST_AT_ONCE],
    );
    return rows.map(({ id }) => id);
  }

  /** What a colleague entered into a form last. */
  async entered(tx: WorkspaceTx, intakeId: string, person: string, limit: number): Promise<SubmissionShape[]> {
    const rows = await tx.statement<Row>(
      'submissions_entered',
      `select ${COLUMNS} ${FROM} where s.workspace_id = $1 and s.intake_id = $2 and s.visit ? 'enteredBy' and s.visit ->> 'enteredBy' = $3
       order by s.received_at desc, s.id desc limit $4`,
      [tx.workspaceId, intakeId, person, limit],
    );
    return rows.map(shape);
  }

  /** The outcomes of the submissions that a filter leaves, counted. */
  async outcomes(tx: WorkspaceTx, filter: SubmissionFilter): Promise<Record<string, number>> {
    const rows = await tx.statement<{ outcome: string; count: number }>(
      'submission_outcomes',
      `select r.outcome, count(*)::int as count ${FROM} join run r on r.workspace_id = s.workspace_id and r.submission_id = s.id ${WHERE} group by 1`,
      [tx.workspaceId, ...valuesOf(filter)],
    );
    return Object.fromEntries(rows.map(({ outcome, count }) => [outcome, count]));
  }

  /** So many of the latest, or fewer where their bodies come to more bytes than that. */
  #rows(
    tx: WorkspaceTx,
    filter: SubmissionFilter,
    limit: number,
    after: Cursor | null,
    bytes: number | null = null,
  ): Promise<Row[]> {
    return tx.statement<Row>(
      'submissions',
      `with page as (select s.id, s.received_at, octet_length(s.body) as bytes ${FROM} ${WHERE}
           and ($6::timestamptz is null or (s.received_at, s.id) < ($6, $7::uuid)) order by s.received_at desc, s.id desc limit $8),
         sized as (select id, sum(bytes) over (order by received_at desc, id desc) - bytes as before, count(*) over () as found from page)
       select ${COLUMNS}, z.found::int ${FROM} join sized z on z.id = s.id
       where s.workspace_id = $1 and ($9::bigint is null or z.before < $9) order by s.received_at desc, s.id desc`,
      [tx.workspaceId, ...valuesOf(filter), after?.at ?? null, after?.id ?? null, limit, bytes],
    );
  }
}

/** What `WHERE` takes after the workspace. */
function valuesOf({ intake, since, outcome, route }: SubmissionFilter): unknown[] {
  return [intake ?? null, since ?? null, outcome ?? null, route ?? null];
}

function shape(row: Row): SubmissionShape {
  const read = readPayload(row.format, row.body);
  const sender = read.ok ? whoSent(read.payload) : { who: '', email: '' };
  return {
    id: row.id,
    intake: { key: row.intake_key, name: row.intake_name },
    receivedAt: row.received_at.toISOString(),
    state: row.state,
    suspicion: row.suspicion,
    payload: read.ok ? read.payload : null,
    unreadable: read.ok ? null : read.problem.text,
    visit: row.visit,
    source: sourceOf(row.visit).source,
    ...sender,
    runs: row.runs ?? [],
  };
}
