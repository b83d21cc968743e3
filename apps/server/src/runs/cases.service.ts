import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import {
  comparePlans,
  counted,
  KnownRecords,
  listInWords,
  lookupsFor,
  planRun,
  uniqueFieldsOf,
  type Destination,
  type Plan,
  type RouteDefinition,
  type Submission,
  POSTED,
} from '@haycart/core';
import type { CaseResult, RouteCaseShape } from '@haycart/api';
import { and, asc, eq } from 'drizzle-orm';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { newId } from '../platform/new-id';
import { isId } from '../platform/paging';
import { RecordsService } from '../records/records.service';
import { readPlannable } from '../routes/read-definition';
import { RoutesService } from '../routes/routes.service';
import { DestinationService } from '../destination/destination.service';
import { PeopleService } from '../workspaces/people.service';
import { RehearsalService, type Sample } from './rehearsal.service';
import { routeCase } from './tables';

type Row = typeof routeCase.$inferSelect;

const MOST_CASES = 200;

/** Samples with the outcome agreed on: every one is planned again before a route is published. */
@Injectable()
export class CasesService implements OnModuleInit {
  constructor(
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(RehearsalService) private readonly rehearsals: RehearsalService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  onModuleInit(): void {
    this.routes.guardPublishing(async (tx, id, draft) => {
      const otherwise = (await this.check(tx, id, draft)).filter(({ differences }) => differences.length);
      if (!otherwise.length) return;
      throw new ProblemError(
        'cases-differ',
        `${counted(otherwise.length, 'saved case')} ${otherwise.length === 1 ? 'comes' : 'come'} out otherwise than agreed: ${listInWords(otherwise.map(({ name }) => `“${name}”`))}. Look at them, then publish knowingly or change the draft.`,
        otherwise.map(({ id: one, differences }) => ({
          at: `/cases/${one}`,
          code: 'differs',
          message: differences.map(({ text }) => text).join('; '),
        })),
      );
    });
  }

  async all(tx: WorkspaceTx, routeId: string): Promise<RouteCaseShape[]> {
    await this.routes.one(tx, routeId);
    return (await this.#rows(tx, routeId)).map(shapeOf);
  }

  /** Keeps a sample with what the route’s draft does with it now, and the records that it was done with. */
  async add(tx: WorkspaceTx, routeId: string, name: string, sample: Sample, by: Caller['by']): Promise<RouteCaseShape> {
    const { draft } = await this.routes.one(tx, routeId);
    if ((await this.#rows(tx, routeId)).length >= MOST_CASES)
      throw new ProblemError('conflict', `A route has at most ${MOST_CASES} saved cases. Take one away first.`);
    const definition = readPlannable(draft);
    // Under the id by which it is planned ever after: whose turn it is, and what is sent, depend on it.
    const id = newId();
    const submission = { ...(await this.rehearsals.submission(tx, sample, definition.from[0] ?? '')), id };
    const destination = await this.destinations.load(tx);
    // All who share a block are kept with it: a later draft may ask about more of them.
    const { keys, deals, blocks } = lookupsFor(definition, submission, destination);
    const known = await this.records.look(tx, { keys, deals, blocks }, destination);
    const [row] = await tx.db
      .insert(routeCase)
      .values({
        workspaceId: tx.workspaceId,
        id,
        routeId,
        name,
        intake: submission.intake,
        payload: submission.payload,
        visit: submission.visit,
        origin: submission.origin ?? POSTED,
        receivedAt: new Date(submission.receivedAt),
        records: known.all(),
        links: known.links(),
        expected: planWith(definition, submission, known, destination),
        savedBy: await this.people.nameOf(tx, by),
      })
      .returning();
    return shapeOf(row!);
  }

  async remove(tx: WorkspaceTx, routeId: string, id: string): Promise<void> {
    await this.#one(tx, routeId, id);
    await tx.db.delete(routeCase).where(and(eq(routeCase.workspaceId, tx.workspaceId), eq(routeCase.id, id)));
  }

  /** Agrees on what the draft does with a case now. */
  async agree(tx: WorkspaceTx, routeId: string, id: string): Promise<CaseResult> {
    const row = await this.#one(tx, routeId, id);
    const { draft } = await this.routes.one(tx, routeId);
    const definition = readPlannable(draft);
    const expected = await this.#plan(tx, definition, row);
    await tx.db
      .update(routeCase)
      .set({ expected })
      .where(and(eq(routeCase.workspaceId, tx.workspaceId), eq(routeCase.id, id)));
    return { id, name: row.name, differences: [] };
  }

  /** What a definition, or else the draft, does with each saved case: how it differs from what was agreed. */
  async check(tx: WorkspaceTx, routeId: string, definition?: unknown): Promise<CaseResult[]> {
    const { draft } = await this.routes.one(tx, routeId);
    const rows = await this.#rows(tx, routeId);
    if (!rows.length) return [];
    const wanted = definition ?? draft;
    const route = readPlannable(wanted);
    const destination = await this.destinations.load(tx);
    const results: CaseResult[] = [];
    for (const row of rows) {
      const differences = comparePlans(row.expected, await this.#plan(tx, route, row), destination);
      results.push({ id: row.id, name: row.name, differences });
    }
    return results;
  }

  async #plan(tx: WorkspaceTx, route: RouteDefinition, row: Row): Promise<Plan> {
    const destination = await this.destinations.load(tx);
    const known = new KnownRecords(row.records, row.links, uniqueFieldsOf(destination.fields));
    const { id, intake, payload, visit, origin } = row;
    return planWith(
      route,
      { id, intake, payload, visit, origin, receivedAt: row.receivedAt.toISOString() },
      known,
      destination,
    );
  }

  #rows(tx: WorkspaceTx, routeId: string): Promise<Row[]> {
    if (!isId(routeId)) throw new ProblemError('not-found', 'There is no such route.');
    return tx.db
      .select()
      .from(routeCase)
      .where(and(eq(routeCase.workspaceId, tx.workspaceId), eq(routeCase.routeId, routeId)))
      .orderBy(asc(routeCase.savedAt), asc(routeCase.id));
  }

  async #one(tx: WorkspaceTx, routeId: string, id: string): Promise<Row> {
    const row = (await this.#rows(tx, routeId)).find((one) => one.id === id);
    if (!row) throw new ProblemError('not-found', 'There is no such saved case.');
    return row;
  }
}

function planWith(route: RouteDefinition, submission: Submission, known: KnownRecords, destination: Destination): Plan {
  const newIds = Object.fromEntries(route.writes.map(({ as }) => [as, `new:${as}`]));
  return planRun(route, submission, known, { destination, newIds });
}

function shapeOf({ id, name, payload, receivedAt, savedBy, savedAt, expected }: Row): RouteCaseShape {
  return {
    id,
    name,
    payload,
    receivedAt: receivedAt.toISOString(),
    savedBy,
    savedAt: savedAt.toISOString(),
    outcome: expected.outcome,
  };
}
