import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import {
  comparePlans,
  lookupsFor,
  planRun,
  uniqueFieldsOf,
  whoSent,
  type Destination,
  type KnownRecords,
  type Plan,
  type RouteDefinition,
  type Submission,
} from '@haycart/core';
import type { ComparisonShape, DifferenceGroup, PlannedOutcomes } from '@haycart/api';
import { and, eq } from 'drizzle-orm';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Jobs } from '../platform/jobs/jobs';
import { newId } from '../platform/new-id';
import { isId } from '../platform/paging';
import { RecordsService } from '../records/records.service';
import { readPlannable, RoutesService } from '../routes/routes.service';
import type { QueuedSubmission } from '../submissions/submission-queue';
import { DestinationService } from '../workspaces/destination.service';
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

const TASK = 'compare-routes';
const BATCH = 500;
const USUAL = 1_000;
const EXAMPLES = 20;
const MOST_GROUPS = 500;
const NOBODY: PlannedOutcomes = { write: 0, hold: 0, skip: 0, fail: 0 };

/** What a comparison has found so far. */
interface Findings {
  before: PlannedOutcomes;
  after: PlannedOutcomes;
  differ: number;
  groups: Map<string, DifferenceGroup>;
}

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
    this.jobs.register(TASK, async (payload) => {
      const { workspaceId, id } = payload as { workspaceId: string; id: string };
      await this.work(workspaceId, id);
    });
  }

  /** Begins a comparison; the ones of the route before go. */
  async begin(workspaceId: string, routeId: string, wish: ComparisonWish): Promise<ComparisonShape> {
    const made = await this.database.inWorkspace(workspaceId, async (tx) => {
      const route = await this.routes.one(tx, routeId);
      const version = wish.before ?? route.version;
      const beforeDefinition = version === null ? null : await this.routes.definitionOf(tx, routeId, version);
      const after = wish.after === undefined ? route.draft : await this.routes.definitionOf(tx, routeId, wish.after);
      const afterDefinition = readPlannable(after, await this.routes.surroundings(tx));
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
          beforeOutcomes: version === null ? null : NOBODY,
          afterOutcomes: NOBODY,
        })
        .returning();
      return row!;
    });
    await this.jobs.add(TASK, { workspaceId, id: made.id });
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

  /** Works a comparison through, from the beginning; stops where it was cancelled or is gone. */
  async work(workspaceId: string, id: string): Promise<void> {
    const findings: Findings = { before: { ...NOBODY }, after: { ...NOBODY }, differ: 0, groups: new Map() };
    let last: { at: string; id: string } | null = null;
    let looked = 0;
    for (;;) {
      const goOn: boolean = await this.database.inWorkspace(workspaceId, async (tx) => {
        const row = await this.#row(tx, id);
        if (row?.state !== 'working') return false;
        const batch = await this.#batch(tx, row, last, Math.min(BATCH, row.most - looked));
        await this.#compare(tx, { before: row.beforeDefinition, after: row.afterDefinition }, batch, findings);
        looked += batch.length;
        const end = batch.at(-1);
        if (end) last = { at: end.at, id: end.id };
        const done = batch.length < BATCH || looked >= row.most;
        await this.#set(tx, id, {
          looked,
          differ: findings.differ,
          beforeOutcomes: row.beforeDefinition ? findings.before : null,
          afterOutcomes: findings.after,
          groups: [...findings.groups.values()].sort((a, b) => b.count - a.count),
          ...(done ? { state: 'done' as const, finishedAt: new Date() } : {}),
        });
        return !done;
      });
      if (!goOn) return;
    }
  }

  async #batch(
    tx: WorkspaceTx,
    { beforeDefinition, afterDefinition, since, before }: Row,
    last: { at: string; id: string } | null,
    most: number,
  ): Promise<(QueuedSubmission & { key: string; at: string })[]> {
    const from = [...new Set([...(beforeDefinition?.from ?? []), ...afterDefinition.from])];
    return tx.statement(
      'compared_batch',
      `select s.id, s.format, s.body, s.visit, s.received_at, s.received_at::text as at, i.key from submission s
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
    const findings: Findings = { before: { ...NOBODY }, after: { ...NOBODY }, differ: 0, groups: new Map() };
    await this.#compare(tx, { before, after }, submissions, findings);
    return [...findings.groups.values()].sort((a, b) => b.count - a.count);
  }

  async #compare(
    tx: WorkspaceTx,
    { before: beforeDefinition, after: afterDefinition }: { before: RouteDefinition | null; after: RouteDefinition },
    batch: readonly (QueuedSubmission & { key: string })[],
    findings: Findings,
  ): Promise<void> {
    const destination = await this.destinations.load(tx);
    const read = batch.flatMap((queued) => {
      const one = readSubmission(queued, queued.key);
      return one.ok ? [one.submission] : [];
    });
    const routes = [afterDefinition, ...(beforeDefinition ? [beforeDefinition] : [])];
    const lookups = read.flatMap((submission) => routes.map((route) => lookupsFor(route, submission, destination)));
    const known = await this.records.look(
      tx,
      { keys: lookups.flatMap(({ keys }) => keys), deals: lookups.some(({ deals }) => deals) },
      uniqueFieldsOf(destination.fields),
    );
    for (const submission of read) {
      const after = planOf(afterDefinition, submission, known, destination);
      findings.after[after.outcome] += 1;
      if (!beforeDefinition) continue;
      const before = planOf(beforeDefinition, submission, known, destination);
      findings.before[before.outcome] += 1;
      note(findings, submission, before, after, destination);
    }
  }

  async #row(tx: WorkspaceTx, id: string): Promise<Row | undefined> {
    const [row] = await tx.db
      .select()
      .from(routeComparison)
      .where(and(eq(routeComparison.workspaceId, tx.workspaceId), eq(routeComparison.id, id)));
    return row;
  }

  async #set(tx: WorkspaceTx, id: string, change: Partial<Row>): Promise<void> {
    await tx.db
      .update(routeComparison)
      .set(change)
      .where(
        and(
          eq(routeComparison.workspaceId, tx.workspaceId),
          eq(routeComparison.id, id),
          eq(routeComparison.state, 'working'),
        ),
      );
  }
}

function planOf(route: RouteDefinition, submission: Submission, known: KnownRecords, destination: Destination): Plan {
  // A route that does not take from this intake leaves it out.
  if (!route.from.includes(submission.intake))
    return planRun({ ...route, onlyWhen: { any: [] } }, submission, known, { destination, newIds: {} });
  const newIds = Object.fromEntries(route.writes.map(({ as }) => [as, `new:${as}`]));
  return planRun(route, submission, known, { destination, newIds });
}

function note(findings: Findings, submission: Submission, before: Plan, after: Plan, destination: Destination): void {
  const differences = comparePlans(before, after, destination);
  if (differences.length) findings.differ += 1;
  for (const { kind, text, before: one, after: other } of differences) {
    let group = findings.groups.get(kind);
    if (!group) {
      if (findings.groups.size >= MOST_GROUPS) continue;
      findings.groups.set(kind, (group = { kind, text, count: 0, examples: [] }));
    }
    group.count += 1;
    if (group.examples.length < EXAMPLES) {
      const { who, email } = whoSent(submission.payload);
      group.examples.push({ submission: submission.id, who: who || email, before: one, after: other });
    }
  }
}

function shapeOf(row: Row): ComparisonShape {
  const { id, state, total, looked, differ, groups, beforeName, beforeOutcomes, afterName, afterOutcomes } = row;
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
  };
}
