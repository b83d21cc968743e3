import { Inject, Injectable } from '@nestjs/common';
import {
  LIMITS,
  readPayload,
  sourceOf,
  type Destination,
  whoSent,
  type BodyFormat,
  type Origin,
  type Suspicion,
  type Visit,
} from '@haycart/core';
import type { Page, RunLine, SubmissionDetail, SubmissionShape, SubmissionState } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Values } from '../platform/database/values';
import { writeListCursor, type ListCursor } from '../platform/list-cursor';
import { isId } from '../platform/paging';
import { DestinationService } from '../destination/destination.service';
import { RunCounts } from '../counts/run-counts.service';
import type { KeptFile } from '../platform/send-file';
import { FEW_FOUND, searchQuery, withFound } from './search/submission-search.service';
import {
  filtered,
  placed,
  isSearchAlone,
  submissionOrder,
  type KnownFilter,
  type SubmissionFilter,
} from './submission-filter';

interface SubmissionRow {
  id: string;
  intake_key: string;
  intake_name: string;
  called: Record<string, string>;
  names: Record<string, string> | null;
  received_at: Date;
  format: BodyFormat;
  body: Buffer;
  visit: Visit;
  origin: Origin;
  state: SubmissionState;
  suspicion: Suspicion | null;
  tries: number;
  runs: RunLine[] | null;
}

/** One of a page: by what it stands there, and how many there would be if they were small. */
interface Row extends SubmissionRow {
  at: string;
  found: number;
}

const COLUMNS = `s.id, i.key as intake_key, i.name as intake_name, i.called, p.names, s.received_at, s.format, s.body, s.visit, s.origin, s.state, s.suspicion, s.tries,
  (select jsonb_agg(jsonb_build_object('id', r.id, 'route', jsonb_build_object('id', t.id, 'name', t.name), 'outcome', r.outcome, 'summary', r.summary) order by t.created_at)
   from run r join route t on t.workspace_id = r.workspace_id and t.id = r.route_id
   where r.workspace_id = s.workspace_id and r.submission_id = s.id) as runs`;
const FROM = `from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
  left join intake_profile p on p.workspace_id = s.workspace_id and p.intake_id = s.intake_id`;
/** A total beyond this is not counted for a page; a search names as many. */
const COUNTED = FEW_FOUND;
/** How many submissions one act may be about. */
const MOST_AT_ONCE = 10_000;

/** Reading what arrived. */
@Injectable()
export class SubmissionsService {
  constructor(
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(RunCounts) private readonly runs: RunCounts,
  ) {}

  /** One page. `total` is absent when there are more than ten thousand, and on further pages. */
  async list(
    tx: WorkspaceTx,
    asked: SubmissionFilter,
    limit: number,
    after: ListCursor | null,
  ): Promise<Page<SubmissionShape>> {
    const filter = await withFound(tx, asked);
    const rows = await this.#rows(tx, filter, limit + 1, after, LIMITS.pageBytes.most);
    // A page of large submissions is shorter.
    const found = rows[0]?.found ?? 0;
    const shown = rows.slice(0, rows.length < found ? Math.max(1, rows.length - 1) : limit);
    const last = shown.length < found ? shown[shown.length - 1] : undefined;
    const total = after ? undefined : last ? await this.#total(tx, filter) : shown.length;
    return {
      items: await this.#shapes(tx, shown),
      ...(last ? { next: writeListCursor({ value: last.at, id: last.id }) } : {}),
      ...(total === undefined ? {} : { total }),
    };
  }

  /** All that a filter leaves, latest first and in portions, so that any number fits into memory. */
  async *portions(tx: WorkspaceTx, asked: SubmissionFilter, size: number): AsyncGenerator<SubmissionShape[]> {
    const filter = await withFound(tx, asked);
    let after: ListCursor | null = null;
    for (;;) {
      const rows: Row[] = await this.#rows(tx, filter, size, after);
      if (rows.length) yield await this.#shapes(tx, rows);
      const last = rows[rows.length - 1];
      if (!last || rows.length < size) return;
      after = { value: last.at, id: last.id };
    }
  }

  async one(tx: WorkspaceTx, id: string): Promise<SubmissionDetail> {
    const [row] = isId(id)
      ? await tx.statement<SubmissionRow>(
          'submission',
          `select ${COLUMNS} ${FROM} where s.workspace_id = $1 and s.id = $2`,
          [tx.workspaceId, id],
        )
      : [];
    if (!row) throw new ProblemError('not-found', 'There is no such submission.');
    const files = await tx.statement<SubmissionDetail['files'][number]>(
      'submission_files',
      `select id, name, type, octet_length(bytes) as size from submission_file where workspace_id = $1 and submission_id = $2 order by id`,
      [tx.workspaceId, id],
    );
    const [shape] = await this.#shapes(tx, [row]);
    return { ...shape!, raw: row.body.toString('utf8'), tries: row.tries, files };
  }

  /** A file that came with a submission. @throws ProblemError 404 */
  async file(tx: WorkspaceTx, submission: string, id: string): Promise<KeptFile> {
    const [file] =
      isId(submission) && isId(id)
        ? await tx.statement<KeptFile & { name: string }>(
            'submission_file',
            'select name, type, bytes from submission_file where workspace_id = $1 and submission_id = $2 and id = $3',
            [tx.workspaceId, submission, id],
          )
        : [];
    if (!file) throw new ProblemError('not-found', 'There is no such file.');
    return file;
  }

  /** The ids of all that a filter leaves, latest first, `MOST_AT_ONCE` at most. */
  async ids(tx: WorkspaceTx, filter: SubmissionFilter): Promise<string[]> {
    const values = new Values([tx.workspaceId]);
    const rows = await tx.unnamed<{ id: string }>(
      `select s.id ${filtered(await withFound(tx, filter), values)} order by s.received_at desc, s.id desc limit ${MOST_AT_ONCE}`,
      values.all,
    );
    return rows.map(({ id }) => id);
  }

  /** What a colleague entered into a form last. */
  async entered(tx: WorkspaceTx, intakeId: string, person: string, limit: number): Promise<SubmissionShape[]> {
    const rows = await tx.statement<SubmissionRow>(
      'submissions_entered',
      `select ${COLUMNS} ${FROM} where s.workspace_id = $1 and s.intake_id = $2 and s.origin ? 'enteredBy' and s.origin ->> 'enteredBy' = $3
       order by s.received_at desc, s.id desc limit $4`,
      [tx.workspaceId, intakeId, person, limit],
    );
    return this.#shapes(tx, rows);
  }

  /** The runs of the submissions that a filter leaves by their outcome, and those that no route took yet, counted. */
  async outcomes(tx: WorkspaceTx, filter: SubmissionFilter): Promise<Record<string, number>> {
    return filter.search || filter.outcome ? this.#outcomesFound(tx, filter) : this.#outcomesKept(tx, filter);
  }

  /** What a search or an outcome leaves is counted; that is what was asked for, and no more. */
  async #outcomesFound(tx: WorkspaceTx, filter: SubmissionFilter): Promise<Record<string, number>> {
    const values = new Values([tx.workspaceId]);
    const ofRoute = filter.route ? `and o.route_id = ${values.add(filter.route, 'uuid')}` : '';
    const rows = await tx.unnamed<{ outcome: string; count: number }>(
      `with f as (select s.id, s.state ${filtered(await withFound(tx, filter), values)})
       select coalesce(o.outcome, f.state) as outcome, count(*)::int as count
       from f left join run o on o.workspace_id = $1 and o.submission_id = f.id ${ofRoute} group by 1`,
      values.all,
    );
    return Object.fromEntries(rows.map(({ outcome, count }) => [outcome, count]));
  }

  async #outcomesKept(tx: WorkspaceTx, { intake, route, since }: SubmissionFilter): Promise<Record<string, number>> {
    const [known] = intake
      ? await tx.statement<{ id: string }>(
          'intake_of_outcomes',
          'select id from intake where workspace_id = $1 and key = $2',
          [tx.workspaceId, intake],
        )
      : [];
    if (intake && !known) return {};
    const runs = await this.runs.byOutcome(tx, { intakeId: known?.id, routeId: route, since });
    if (route) return runs;
    const values = new Values([tx.workspaceId]);
    const states = await tx.unnamed<{ state: string; count: number }>(
      `select state, count(*)::int as count from submission s where workspace_id = $1 and state <> 'routed'
       ${known ? `and intake_id = ${values.add(known.id, 'uuid')}` : ''} ${since ? `and received_at >= ${values.add(since, 'timestamptz')}` : ''}
       and (state in ('unrouted', 'cancelled') or not exists (select 1 from run r where r.workspace_id = $1 and r.submission_id = s.id)) group by 1`,
      values.all,
    );
    return { ...runs, ...Object.fromEntries(states.map(({ state, count }) => [state, count])) };
  }

  /** How many a filter leaves; undefined for more than are counted for a page. */
  async #total(tx: WorkspaceTx, filter: KnownFilter): Promise<number | undefined> {
    // What is found tells it; what nothing can find is asked for as any other.
    if (isSearchAlone(filter) && searchQuery(filter.search!)) return filter.found?.length;
    const values = new Values([tx.workspaceId]);
    const [row] = await tx.unnamed<{ total: number }>(
      `select count(*)::int as total from (select 1 ${filtered({ ...filter, sort: undefined }, values)} limit ${COUNTED + 1}) counted`,
      values.all,
    );
    return row!.total > COUNTED ? undefined : row!.total;
  }

  async #shapes(tx: WorkspaceTx, rows: readonly SubmissionRow[]): Promise<SubmissionShape[]> {
    const destination = await this.destinations.load(tx);
    return rows.map((row) => shapeOf(row, destination));
  }

  /** So many of the first, or fewer where their bodies come to more bytes than that. */
  #rows(
    tx: WorkspaceTx,
    filter: KnownFilter,
    limit: number,
    after: ListCursor | null,
    bytes: number | null = null,
  ): Promise<Row[]> {
    const values = new Values([tx.workspaceId]);
    const { by, at, down } = submissionOrder(filter.sort);
    const direction = down ? 'desc' : 'asc';
    const page = `select s.id, ${by} as by, octet_length(s.body) as bytes ${filtered(filter, values)}
      ${placed(filter.sort, after, values)} order by ${by} ${direction}, s.id ${direction} limit ${values.add(limit, 'int')}`;
    return tx.unnamed<Row>(
      `with page as (${page}),
         sized as (select id, by, sum(bytes) over (order by by ${direction}, id ${direction}) - bytes as before, count(*) over () as found from page)
       select ${COLUMNS}, ${at('z.by')} as at, z.found::int ${FROM} join sized z on z.id = s.id
       where s.workspace_id = $1 ${bytes === null ? '' : `and z.before < ${values.add(bytes, 'bigint')}`}
       order by z.by ${direction}, s.id ${direction}`,
      values.all,
    );
  }
}

function shapeOf(row: SubmissionRow, destination: Destination): SubmissionShape {
  const read = readPayload(row.format, row.body);
  const sender = read.ok ? whoSent(read.payload, { ...row.called, ...row.names }) : { who: '', email: '' };
  return {
    id: row.id,
    intake: { key: row.intake_key, name: row.intake_name },
    receivedAt: row.received_at.toISOString(),
    state: row.state,
    suspicion: row.suspicion,
    payload: read.ok ? read.payload : null,
    unreadable: read.ok ? null : read.problem.text,
    visit: row.visit,
    origin: row.origin,
    ...sourceOf(
      { intake: row.intake_key, visit: row.visit, origin: row.origin, ...(read.ok ? { payload: read.payload } : {}) },
      destination,
    ),
    ...sender,
    runs: row.runs ?? [],
  };
}
