import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { identityKeyText, lookupsFor, sharingFills, type RouteDefinition } from '@haycart/core';
import type { ComparisonShape, DifferenceGroup } from '@haycart/api';
import { and, eq } from 'drizzle-orm';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { nothingElse, type AlsoDone } from '../platform/database/also-done';
import { ProblemError } from '../platform/errors/problem-error';
import { Jobs } from '../platform/jobs/jobs';
import { newId } from '../platform/new-id';
import { isId } from '../platform/paging';
import { RecordsService } from '../records/records.service';
import { readPlannable } from '../routes/read-definition';
import { RoutesService } from '../routes/routes.service';
import type { QueuedSubmission } from '../submissions/submission-queue';
import { DestinationService } from '../destination/destination.service';
import { compare, groupsOf, noFindings, type Ground, type Versions } from './compare-batch';
import { readSubmission } from './route-batch';
import { routeComparison } from './tables';

type Row = typeof routeComparison.$inferSelect;

/** What is compared, and over which submissions. */
export interface ComparisonWish {
  /** A version; the one that runs when it is not said. */
  before?: number | undefined;
  /** A version; the draft when it is not said. */
  after?: number | undefined;
  since?: string | undefined;
  until?: string | undefined;
  /** The latest of them, at most so many. */
  last?: number | undefined;
}

interface ComparisonJob {
  workspaceId: string;
  id: string;
}

const TASK = 'compare-routes';
const BATCH = 500;
const USUAL = 1_000;

/**
 * Rehearses two versions of a route over past submissions, upon the records as they are: by a job, in batches, so that
 * memory stays flat and whoever asked may leave. Nothing is written but what was found.
 */
@Injectable()
export class ComparisonsService implements OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Jobs) private readonly jobs: Jobs,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  onModuleInit(): void {
    this.jobs.register<ComparisonJob>({
      name: TASK,
      work: ({ workspaceId, id }, stopping) => this.work(workspaceId, id, stopping),
      givenUp: ({ workspaceId, id }) =>
        this.database.inWorkspace(workspaceId, async (tx) => {
          await this.#set(tx, id, { state: 'failed', finishedAt: new Date() });
        }),
    });
  }

  /** Begins a comparison; the ones of the route before go. */
  async begin(
    workspaceId: string,
    routeId: string,
    wish: ComparisonWish,
    also: AlsoDone = nothingElse,
  ): Promise<ComparisonShape> {
    const made = await this.database.inWorkspace(workspaceId, async (tx) => {
      const route = await this.routes.one(tx, routeId);
      const version = wish.before ?? route.version;
      const beforeDefinition = version === null ? null : await this.routes.definitionOf(tx, routeId, version);
      const after = wish.after === undefined ? route.draft : await this.routes.definitionOf(tx, routeId, wish.after);
      const afterDefinition = readPlannable(after);
      const since = new Date(wish.since ?? 0);
      const before = new Date(wish.until ?? Date.now());
      const most = wish.last ?? USUAL;
      const from = [...new Set([...(beforeDefinition?.from ?? []), ...afterDefinition.from])];
      const [counted] = await tx.statement<{ total: number }>(
        'compared_submissions',
        `select least(count(*), $5)::int as total from (select 1 from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
         where s.workspace_id = $1 and i.key = any($2::text[]) and s.received_at >= $3 and s.received_at < $4 and s.state <> 'set-aside' limit $5) x`,
        [tx.workspaceId, from, since, before, most],
      );
      await tx.db
        .delete(routeComparison)
        .where(and(eq(routeComparison.workspaceId, tx.workspaceId), eq(routeComparison.routeId, routeId)));
      const [row] = await tx.db
        .insert(routeComparison)
        .values({
          workspaceId: tx.workspaceId,
          id: newId(),
          routeId,
          beforeName: version === null ? null : `version ${version}`,
          beforeDefinition,
          afterName: wish.after === undefined ? 'the draft' : `version ${wish.after}`,
          afterDefinition,
          since,
          before,
          most,
          total: counted!.total,
          beforeOutcomes: version === null ? null : noFindings(afterDefinition).before,
          afterOutcomes: noFindings(afterDefinition).after,
        })
        .returning();
      await also(tx);
      return row!;
    });
    await this.jobs.add(TASK, { workspaceId, id: made.id } as ComparisonJob, `${TASK} ${made.id}`);
    return shapeOf(made);
  }

  async one(tx: WorkspaceTx, routeId: string, id: string): Promise<ComparisonShape> {
    const row = isId(id) ? await this.#row(tx, id) : undefined;
    if (row?.routeId !== routeId) throw new ProblemError('not-found', 'There is no such comparison, or not any more.');
    return shapeOf(row);
  }

  async cancel(tx: WorkspaceTx, routeId: string, id: string): Promise<ComparisonShape> {
    const { state } = await this.one(tx, routeId, id);
    if (state === 'working') await this.#set(tx, id, { state: 'cancelled', finishedAt: new Date() });
    return this.one(tx, routeId, id);
  }

  /**
   * Works a comparison through, from the beginning; stops where it was cancelled or is gone. The next batch is read while
   * one is planned, so that the database and this thread work side by side.
   */
  async work(workspaceId: string, id: string, stopping = new AbortController().signal): Promise<void> {
    const row = await this.database.inWorkspace(workspaceId, (tx) => this.#row(tx, id));
    if (row?.state !== 'working') return;
    const versions = versionsOf(row);
    const findings = noFindings(versions.after);
    const prepare = (last: Place | null, looked: number): Promise<Prepared> =>
      this.database.inWorkspace(workspaceId, async (tx) => {
        const rows = await this.#batch(tx, row, last, Math.min(BATCH, row.most - looked));
        return { rows, ...(await this.#ground(tx, versions, rows)) };
      });
    let looked = 0;
    let next: Promise<Prepared> | null = prepare(null, 0);
    while (next) {
      if (stopping.aborted) await next.catch(() => {});
      stopping.throwIfAborted();
      const { rows, ...ground }: Prepared = await next;
      looked += rows.length;
      const done: boolean = rows.length < BATCH || looked >= row.most;
      next = done ? null : prepare(rows.at(-1)!, looked);
      next?.catch(() => {});
      await compare(versions, ground, findings);
      const goesOn = await this.database.inWorkspace(workspaceId, (tx) =>
        this.#set(tx, id, {
          looked,
          differ: findings.differ,
          beforeOutcomes: versions.before ? findings.before : null,
          afterOutcomes: findings.after,
          groups: groupsOf(findings),
          tables: findings.tables,
          ...(done ? { state: 'done' as const, finishedAt: new Date() } : {}),
        }),
      );
      if (!goesOn) return void (await next?.catch(() => {}));
    }
  }

  async #batch(
    tx: WorkspaceTx,
    { beforeDefinition, afterDefinition, since, before }: Row,
    last: Place | null,
    most: number,
  ): Promise<(QueuedSubmission & { key: string; at: string })[]> {
    const from = [...new Set([...(beforeDefinition?.from ?? []), ...afterDefinition.from])];
    return tx.statement(
      'compared_batch',
      `select s.id, s.format, s.body, s.visit, s.origin, s.received_at, s.received_at::text as at, i.key from submission s
       join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id
       where s.workspace_id = $1 and i.key = any($2::text[]) and s.received_at >= $3 and s.received_at < $4 and s.state <> 'set-aside'
         and ($5::timestamptz is null or (s.received_at, s.id) < ($5, $6::uuid))
       order by s.received_at desc, s.id desc limit $7`,
      [tx.workspaceId, from, since, before, last?.at ?? null, last?.id ?? null, most],
    );
  }

  /** How some submissions would come out by two definitions: the kinds of differences, most often first. */
  async differences(
    tx: WorkspaceTx,
    before: RouteDefinition,
    after: RouteDefinition,
    submissions: readonly (QueuedSubmission & { key: string })[],
  ): Promise<DifferenceGroup[]> {
    const findings = noFindings(after);
    const versions = { before, after: sharingFills(after, before) };
    await compare(versions, await this.#ground(tx, versions, submissions), findings);
    return groupsOf(findings);
  }

  /** What both versions are planned upon: the submissions that can be read, and all that is known for them. */
  async #ground(
    tx: WorkspaceTx,
    { before, after }: Versions,
    batch: readonly (QueuedSubmission & { key: string })[],
  ): Promise<Ground> {
    const destination = await this.destinations.load(tx);
    const submissions = batch.flatMap((queued) => {
      const one = readSubmission(queued, queued.key);
      return one.ok ? [one.submission] : [];
    });
    const routes = [after, ...(before ? [before] : [])];
    const lookups = submissions.flatMap((submission) =>
      routes.map((route) => lookupsFor(route, submission, destination)),
    );
    const keys = new Map(lookups.flatMap((one) => one.keys.map((key) => [identityKeyText(key), key])));
    const known = await this.records.look(
      tx,
      {
        keys: [...keys.values()],
        deals: lookups.some(({ deals }) => deals),
        blocks: lookups.flatMap(({ blocks }) => blocks),
        sought: lookups.flatMap(({ sought }) => sought),
      },
      destination,
    );
    return { submissions, known, destination };
  }

  async #row(tx: WorkspaceTx, id: string): Promise<Row | undefined> {
    const [row] = await tx.db
      .select()
      .from(routeComparison)
      .where(and(eq(routeComparison.workspaceId, tx.workspaceId), eq(routeComparison.id, id)));
    return row;
  }

  /** Answers whether it still works. */
  async #set(tx: WorkspaceTx, id: string, change: Partial<Row>): Promise<boolean> {
    const rows = await tx.db
      .update(routeComparison)
      .set(change)
      .where(
        and(
          eq(routeComparison.workspaceId, tx.workspaceId),
          eq(routeComparison.id, id),
          eq(routeComparison.state, 'working'),
        ),
      )
      .returning({ id: routeComparison.id });
    return rows.length > 0;
  }
}

/** The submission after which the next batch begins. */
type Place = Pick<QueuedSubmission, 'id'> & { at: string };

/** A batch with all that planning it needs. */
type Prepared = Ground & { rows: Place[] };

function versionsOf({ beforeDefinition, afterDefinition }: Row): Versions {
  const after = beforeDefinition ? sharingFills(afterDefinition, beforeDefinition) : afterDefinition;
  return { before: beforeDefinition, after };
}

function shapeOf(row: Row): ComparisonShape {
  const { id, state, total, looked, differ, groups, tables, beforeName, beforeOutcomes, afterName, afterOutcomes } =
    row;
  return {
    id,
    state,
    total,
    looked,
    startedAt: row.startedAt.toISOString(),
    finishedAt: row.finishedAt?.toISOString() ?? null,
    before: beforeName !== null && beforeOutcomes ? { name: beforeName, outcomes: beforeOutcomes } : null,
    after: { name: afterName, outcomes: afterOutcomes },
    differ,
    groups,
    tables,
  };
}
