import { Inject, Injectable } from '@nestjs/common';
import {
  checkRoute,
  senderNames,
  describeRoute,
  readRoute,
  sameJson,
  type JsonValue,
  type RouteDefinition,
  type RouteSurroundings,
} from '@haycart/core';
import type { RouteDefinitionLine, RouteLine, RouteShape, RouteVersionLine, RunOutcome } from '@haycart/api';
import { and, desc, eq } from 'drizzle-orm';
import { newId } from '../platform/new-id';
import { IntakesService } from '../intakes/intakes.service';
import type { WorkspaceTx } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { RunCounts } from '../counts/run-counts.service';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { isId } from '../platform/paging';
import { ProfilesService } from '../submissions/profiles.service';
import { DestinationService } from '../destination/destination.service';
import { readShape } from './read-definition';
import { route, routeVersion } from './tables';

interface Row {
  id: string;
  name: string;
  state: 'live' | 'paused';
  version: number | null;
  draft: RouteDefinition;
  draft_saved_at: Date;
  draft_saved_by: string | null;
  draft_revision: number;
  published: RouteDefinition | null;
}

/** What a route says: as its draft, and as what runs. */
export type RouteDefinitions = Pick<Row, 'id' | 'name' | 'state' | 'draft' | 'published' | 'version'>;

/** Looks at a definition that is about to be published. @throws ProblemError when somebody has to say so knowingly. */
export type PublishGuard = (tx: WorkspaceTx, id: string, draft: RouteDefinition) => Promise<void>;

/** Does what is to be done when a route that was paused runs again. */
export type RouteResumed = (tx: WorkspaceTx, id: string) => Promise<void>;

const SELECT = `select r.id, r.name, r.state, r.version, r.draft, r.draft_saved_at, r.draft_saved_by, r.draft_revision, v.definition as published from route r
  left join route_version v on v.workspace_id = r.workspace_id and v.route_id = r.id and v.version = r.version`;

/** Routes: a draft that is saved as one goes, and numbered versions that run. */
@Injectable()
export class RoutesService {
  readonly #guards: PublishGuard[] = [];
  readonly #resumed: RouteResumed[] = [];

  constructor(
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(IntakesService) private readonly intakes: IntakesService,
    @Inject(ProfilesService) private readonly profiles: ProfilesService,
    @Inject(Events) private readonly events: Events,
    @Inject(RunCounts) private readonly runs: RunCounts,
  ) {}

  /** Has something else looked at before a route is published. */
  guardPublishing(guard: PublishGuard): void {
    this.#guards.push(guard);
  }

  /** Has something else done when publishing resumes a route. */
  whenResumed(resumed: RouteResumed): void {
    this.#resumed.push(resumed);
  }

  async lines(tx: WorkspaceTx): Promise<RouteLine[]> {
    const rows = await this.#rows(tx);
    const surroundings = await this.surroundings(tx);
    const runs = await this.#runs(tx);
    return rows.map((row) => line(row, surroundings, runs));
  }

  async one(tx: WorkspaceTx, id: string): Promise<RouteShape> {
    const row = await this.#row(tx, id);
    const surroundings = await this.surroundings(tx, row.draft);
    const read = readRoute(row.draft);
    return {
      ...line(row, surroundings, await this.#runs(tx)),
      draft: row.draft,
      revision: row.draft_revision,
      published: row.published,
      problems: read.ok ? checkRoute(read.route, surroundings) : read.problems,
    };
  }

  async add(tx: WorkspaceTx, definition: unknown): Promise<RouteShape> {
    const draft = readShape(definition);
    const id = newId();
    await tx.db.insert(route).values({ workspaceId: tx.workspaceId, id, name: draft.name, draft });
    await this.events.tell(tx, 'routes');
    return this.one(tx, id);
  }

  /**
   * Saves a draft. A definition of the wrong shape is refused; one that is not ready yet is kept, with its problems told.
   *
   * @param upon The revision that it was made on; whoever does not say takes the latest.
   * @throws ProblemError 409 when somebody else saved it since.
   */
  async saveDraft(tx: WorkspaceTx, id: string, definition: unknown, by: string, upon?: number): Promise<RouteShape> {
    const draft = readShape(definition);
    const row = await this.#row(tx, id);
    if (upon !== undefined && upon !== row.draft_revision)
      throw new ProblemError(
        'changed-meanwhile',
        `${row.draft_saved_by ?? 'Somebody else'} changed this draft meanwhile. Read it again; nothing of it was overwritten.`,
      );
    await tx.db
      .update(route)
      .set({
        draft,
        name: draft.name,
        draftSavedAt: new Date(),
        draftSavedBy: by,
        draftRevision: row.draft_revision + 1,
      })
      .where(and(eq(route.workspaceId, tx.workspaceId), eq(route.id, id)));
    await this.events.tell(tx, 'routes');
    return this.one(tx, id);
  }

  /**
   * Publishes the draft as the next version and lets it run.
   *
   * @param knowingly Whether it is published although saved cases come out otherwise.
   * @throws ProblemError 422 naming what stands in the way, 409 naming the saved cases that come out otherwise.
   */
  async publish(
    tx: WorkspaceTx,
    id: string,
    by: string,
    note: string | null,
    knowingly = false,
  ): Promise<{ version: number }> {
    const row = await this.#row(tx, id);
    const draft = readShape(row.draft);
    const problems = checkRoute(draft, await this.surroundings(tx)).filter(({ severity }) => severity === 'error');
    if (problems.length) throw new ProblemError('refused', 'The draft cannot be published yet.', problemsAt(problems));
    if (!knowingly) for (const guard of this.#guards) await guard(tx, id, draft);
    const version = (row.version ?? 0) + 1;
    await tx.db
      .insert(routeVersion)
      .values({ workspaceId: tx.workspaceId, routeId: id, version, definition: draft, note, publishedBy: by });
    await tx.db.update(route).set({ version, state: 'live' }).where(eq(route.id, id));
    if (row.state === 'paused') for (const resumed of this.#resumed) await resumed(tx, id);
    await this.#callAnswers(tx, [...draft.from, ...(row.published?.from ?? [])]);
    await this.events.tell(tx, 'routes', 'submissions');
    return { version };
  }

  async setState(tx: WorkspaceTx, id: string, state: 'live' | 'paused'): Promise<void> {
    await tx.db
      .update(route)
      .set({ state })
      .where(and(eq(route.id, id), eq(route.workspaceId, tx.workspaceId)));
  }

  /** Lets intakes know what their routes take answers for. */
  async #callAnswers(tx: WorkspaceTx, intakes: readonly string[]): Promise<void> {
    const running = (await this.definitions(tx)).flatMap(({ published }) => published ?? []);
    for (const key of new Set(intakes)) {
      const names = running.filter(({ from }) => from.includes(key)).map(senderNames);
      await this.intakes.callAnswers(tx, key, Object.assign({}, ...names) as Record<string, string>);
    }
  }

  /** The versions of a route, latest first. */
  async versions(tx: WorkspaceTx, id: string): Promise<RouteVersionLine[]> {
    await this.#row(tx, id);
    const rows = await tx.db
      .select()
      .from(routeVersion)
      .where(and(eq(routeVersion.workspaceId, tx.workspaceId), eq(routeVersion.routeId, id)))
      .orderBy(desc(routeVersion.version));
    return rows.map(({ version, note, publishedBy, publishedAt, definition }) => ({
      version,
      note,
      publishedBy,
      publishedAt: publishedAt.toISOString(),
      definition,
    }));
  }

  /** What a route said in a version. @throws ProblemError 404 when there was none. */
  async definitionOf(tx: WorkspaceTx, id: string, version: number): Promise<RouteDefinition> {
    await this.#row(tx, id);
    const [row] = await tx.db
      .select()
      .from(routeVersion)
      .where(
        and(
          eq(routeVersion.workspaceId, tx.workspaceId),
          eq(routeVersion.routeId, id),
          eq(routeVersion.version, version),
        ),
      );
    if (!row) throw new ProblemError('not-found', `The route has no version ${version}.`);
    return row.definition;
  }

  /** Every route with the definitions in which it may name things: its draft and what runs. */
  async definitions(tx: WorkspaceTx): Promise<RouteDefinitions[]> {
    const rows = await this.#rows(tx);
    return rows.map(({ id, name, state, draft, published, version }) => ({
      id,
      name,
      state,
      draft,
      published,
      version,
    }));
  }

  /** What each route says, for whoever compares or learns from them. */
  async definitionLines(tx: WorkspaceTx): Promise<RouteDefinitionLine[]> {
    return (await this.definitions(tx)).map(({ id, draft, published }) => ({ id, definition: published ?? draft }));
  }

  /**
   * Rewrites what a route says without a person at its sheet: its draft, and with a new version also what runs. Whether
   * it is live or paused stays as it is. Answers the new version, if there is one.
   */
  async rewrite(
    tx: WorkspaceTx,
    id: string,
    { draft, published }: { draft: RouteDefinition | null; published: RouteDefinition | null },
    by: string,
    note: string,
  ): Promise<number | null> {
    const row = await this.#row(tx, id);
    const mine = and(eq(route.workspaceId, tx.workspaceId), eq(route.id, id));
    if (draft)
      await tx.db
        .update(route)
        .set({
          draft,
          name: draft.name,
          draftSavedAt: new Date(),
          draftSavedBy: by,
          draftRevision: row.draft_revision + 1,
        })
        .where(mine);
    const version = published ? (row.version ?? 0) + 1 : null;
    if (published && version) {
      await tx.db
        .insert(routeVersion)
        .values({ workspaceId: tx.workspaceId, routeId: id, version, definition: published, note, publishedBy: by });
      await tx.db.update(route).set({ version }).where(mine);
      await this.#callAnswers(tx, published.from);
    }
    await this.events.tell(tx, 'routes');
    return version;
  }

  /** What a definition may name; with a definition, also the fields seen in the intakes that it takes from. */
  async surroundings(tx: WorkspaceTx, definition?: RouteDefinition): Promise<RouteSurroundings> {
    const intakes: RouteSurroundings['intakes'] = [];
    for (const { key, name } of await this.intakes.all(tx)) {
      const seen = definition?.from?.includes(key) ? await this.profiles.fieldKeys(tx, key) : undefined;
      intakes.push(seen?.size ? { key, name, fieldKeys: seen } : { key, name });
    }
    return { destination: await this.destinations.load(tx), intakes };
  }

  async #runs(tx: WorkspaceTx): Promise<RunsOfRoutes> {
    return { counts: await this.runs.byRoute(tx, monthAgo()), lastDays: await this.runs.lastDays(tx) };
  }

  #rows(tx: WorkspaceTx): Promise<Row[]> {
    return tx.statement<Row>('routes', `${SELECT} where r.workspace_id = $1 order by r.created_at, r.id`, [
      tx.workspaceId,
    ]);
  }

  async #row(tx: WorkspaceTx, id: string): Promise<Row> {
    const [row] = isId(id)
      ? await tx.statement<Row>(
          'route_row',
          `${SELECT} where r.workspace_id = $1 and r.id = $2 for no key update of r`,
          [tx.workspaceId, id],
        )
      : [];
    if (!row) throw new ProblemError('not-found', 'There is no such route.');
    return row;
  }
}

/** Since when the runs of a route are told. */
function monthAgo(): Date {
  return new Date(Date.now() - 30 * 86_400_000);
}

/** How the runs of routes ended in the last month, and when there was one. */
interface RunsOfRoutes {
  counts: readonly { route_id: string; outcome: RunOutcome; count: number }[];
  lastDays: ReadonlyMap<string, string>;
}

function line(row: Row, surroundings: RouteSurroundings, { counts, lastDays }: RunsOfRoutes): RouteLine {
  const shown = row.published ?? row.draft;
  const count = (outcome: RunOutcome) =>
    counts.find((one) => one.route_id === row.id && one.outcome === outcome)?.count ?? 0;
  return {
    id: row.id,
    name: row.name,
    state: row.state,
    version: row.version,
    draftDiffers: !sameJson(row.draft as unknown as JsonValue, row.published as unknown as JsonValue),
    words: describeRoute(shown, surroundings),
    from: shown.from.map((key) => ({
      key,
      name: surroundings.intakes.find((intake) => intake.key === key)?.name ?? key,
    })),
    runs: {
      written: count('written'),
      held: count('held'),
      skipped: count('skipped'),
      failed: count('failed'),
      'taken-back': count('taken-back'),
    },
    lastRunOn: lastDays.get(row.id) ?? null,
    draftSavedAt: row.draft_saved_at.toISOString(),
    draftSavedBy: row.draft_saved_by,
  };
}
