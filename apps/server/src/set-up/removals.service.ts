import { Inject, Injectable } from '@nestjs/common';
import {
  checkPipeline,
  counted,
  countedRecords,
  editPipeline,
  emptyDiff,
  listInWords,
  pipelineOf,
  placesNamed,
  replacePlace,
  replaceStageInView,
  sameJson,
  stageOf,
  viewNamesStage,
  type JsonValue,
  recordWords,
  type Destination,
  type PlaceKeys,
  type RouteDefinition,
} from '@haycart/core';
import type { PipelineShape, PlaceUse, SetUpChange } from '@haycart/api';
import { and, desc, eq } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import type { Caller } from '../platform/auth/caller';
import { Events } from '../platform/events/events';
import { newId } from '../platform/new-id';
import { isId } from '../platform/paging';
import { PipelinesService } from '../pipelines/pipelines.service';
import { DealMovesService } from '../records/stages/deal-moves.service';
import { RoutesService, type RouteDefinitions } from '../routes/routes.service';
import { ViewsService } from '../views/views.service';
import { DestinationService } from '../destination/destination.service';
import { PeopleService } from '../workspaces/people.service';
import { setUpChange, type ChangedRoute, type ChangedView, type Removal } from './tables';

const MOST_SHOWN = 50;

/** Removing a stage or a pipeline together with all that follows from it, in one transaction, and taking that back. */
@Injectable()
export class RemovalsService {
  constructor(
    @Inject(PipelinesService) private readonly pipelines: PipelinesService,
    @Inject(DealMovesService) private readonly deals: DealMovesService,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(ViewsService) private readonly views: ViewsService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** What stands where, and which routes name it, for every stage of every pipeline. */
  async uses(tx: WorkspaceTx): Promise<PlaceUse[]> {
    const counts = await this.deals.countByPlace(tx);
    return (await this.named(tx)).map((named) => ({
      ...named,
      records: counts.find(({ pipeline, stage }) => pipeline === named.pipeline && stage === named.stage)?.count ?? 0,
    }));
  }

  /** Which routes and views name each stage of every pipeline. */
  async named(tx: WorkspaceTx): Promise<Omit<PlaceUse, 'records'>[]> {
    const routes = await this.routes.definitions(tx);
    const views = await this.views.everybodys(tx);
    return (await this.pipelines.all(tx)).flatMap(({ key: pipeline, stages, record }) =>
      stages.map(({ key: stage }) => ({
        pipeline,
        stage,
        routes: routes.filter((route) => names(route, { pipeline, stage })).map(({ id, name }) => ({ id, name })),
        views: views
          .filter((one) => one.record === record && viewNamesStage(one.view, stage))
          .map(({ id, name }) => ({ id, name })),
      })),
    );
  }

  /**
   * Removes a stage, or a whole pipeline where no stage is said. What stands there moves to `to`, and routes that name
   * it name `to` from then on, those that run with a new version. Without `to`, nothing may stand there, and routes that
   * name it end their runs failed, saying so.
   */
  async remove(
    tx: WorkspaceTx,
    idOrKey: string,
    stageKey: string | null,
    to: PlaceKeys | null,
    by: Caller['by'],
  ): Promise<SetUpChange> {
    const pipeline = await this.pipelines.held(tx, idOrKey);
    const all = await this.pipelines.all(tx);
    const words = await this.destinations.load(tx);
    const stages = stageKey === null ? pipeline.stages : pipeline.stages.filter(({ key }) => key === stageKey);
    if (!stages.length) throw new ProblemError('not-found', `${pipeline.name} has no stage ${stageKey}.`);
    if (stageKey === null) refuseLastPipeline(pipeline, all, words);
    else refuseWithout(pipeline, stageKey);
    const removed = stages.map(({ key }) => ({ pipeline: pipeline.key, stage: key }));
    const what =
      stageKey === null ? `the pipeline ${pipeline.name}` : `the stage ${stages[0]!.name} of ${pipeline.name}`;
    const uses = (await this.uses(tx)).filter((use) => removed.some((place) => same(place, use)));
    const target = targetOf(to, removed, pipeline, all);
    if (!target) refuseUsed(what, uses, pipeline, words);
    if (target && by.kind !== 'person')
      throw new ProblemError('not-allowed', 'This moves records in somebody’s name, so a person must be signed in.');

    await this.pipelines.closeStages(tx, pipeline);
    const byName = await this.people.nameOf(tx, by);
    const at = new Date();
    const records = target ? await this.deals.moveAll(tx, removed, target, by.id, at.toISOString()) : emptyDiff();
    const note = `${capital(what)} was removed.`;
    const routes = target && to ? await this.#rewriteRoutes(tx, removed, to, byName, note) : [];
    const views = target && to ? await this.#rewriteViews(tx, pipeline.record, removed, to) : [];
    if (stageKey === null) await this.pipelines.remove(tx, pipeline);
    else await this.pipelines.edit(tx, pipeline.id, { do: 'remove-stage', stage: stageKey });

    const text = `Removed ${what}${followed(Object.keys(records.changed).length, routes.length, target, words)}`;
    const removal: Removal = {
      pipeline,
      position: all.findIndex(({ id }) => id === pipeline.id),
      records,
      routes,
      views,
    };
    const change = { id: newId(), at, by: byName, text, removal, takenBackAt: null };
    await tx.db.insert(setUpChange).values({ workspaceId: tx.workspaceId, ...change });
    await this.events.tell(tx, 'pipelines');
    return shape(change);
  }

  /** The latest removals. */
  async changes(tx: WorkspaceTx): Promise<SetUpChange[]> {
    const rows = await tx.db
      .select()
      .from(setUpChange)
      .where(eq(setUpChange.workspaceId, tx.workspaceId))
      .orderBy(desc(setUpChange.at))
      .limit(MOST_SHOWN);
    return rows.map(shape);
  }

  /** Brings back what a removal took, with the records and routes that nobody changed since. */
  async takeBack(tx: WorkspaceTx, id: string, by: string): Promise<SetUpChange> {
    const mine = and(eq(setUpChange.workspaceId, tx.workspaceId), eq(setUpChange.id, id));
    const [row] = isId(id) ? await tx.db.select().from(setUpChange).where(mine).for('update') : [];
    if (!row) throw new ProblemError('not-found', 'There is no such change.');
    if (row.takenBackAt) throw new ProblemError('conflict', 'This was taken back already.');
    const { pipeline, position, records, routes, views = [] } = row.removal;
    const byName = await this.people.nameOf(tx, { kind: 'person', id: by });
    const at = new Date();
    await this.pipelines.bringBack(tx, pipeline);
    const order = (await this.pipelines.all(tx)).filter(({ id: other }) => other !== pipeline.id).map((one) => one.id);
    await this.pipelines.reorder(tx, order.toSpliced(position, 0, pipeline.id));
    await this.deals.takeBack(tx, records, by, at.toISOString());
    for (const route of routes) await this.#routeBack(tx, route, byName);
    for (const { id: view, before, after } of views) await this.views.replace(tx, view, after, before);
    await tx.db.update(setUpChange).set({ takenBackAt: at }).where(mine);
    await this.events.tell(tx, 'pipelines');
    return shape({ ...row, takenBackAt: at });
  }

  async #rewriteRoutes(
    tx: WorkspaceTx,
    removed: readonly PlaceKeys[],
    to: PlaceKeys,
    by: string,
    note: string,
  ): Promise<ChangedRoute[]> {
    const changed: ChangedRoute[] = [];
    const rewritten = (definition: RouteDefinition) =>
      removed.reduce((route, place) => replacePlace(route, place, to), definition);
    for (const { id, name, draft, published } of await this.routes.definitions(tx)) {
      const after = { draft: rewritten(draft), published: published && rewritten(published) };
      for (const left of removed)
        if (namesPlace(after.draft, left) || (after.published && namesPlace(after.published, left)))
          throw new ProblemError(
            'conflict',
            `A table of ${name} says a stage that is to go, in a pipeline that the route names itself. Choose a stage of the same pipeline, or change the table first.`,
          );
      const newDraft = differs(draft, after.draft) ? after.draft : null;
      const newPublished = published && differs(published, after.published!) ? after.published : null;
      if (!newDraft && !newPublished) continue;
      const version = await this.routes.rewrite(tx, id, { draft: newDraft, published: newPublished }, by, note);
      changed.push({
        id,
        draft: newDraft && { before: draft, after: newDraft },
        published: version === null ? null : { before: published!, version },
      });
    }
    return changed;
  }

  async #rewriteViews(
    tx: WorkspaceTx,
    record: PipelineShape['record'],
    removed: readonly PlaceKeys[],
    to: PlaceKeys,
  ): Promise<ChangedView[]> {
    const changed: ChangedView[] = [];
    for (const { id, view, record: own } of await this.views.everybodys(tx)) {
      const after = removed.reduce((one, { stage }) => replaceStageInView(one, stage, to.stage), view);
      if (own !== record || after === view) continue;
      await this.views.replace(tx, id, view, after);
      changed.push({ id, before: view, after });
    }
    return changed;
  }

  async #routeBack(tx: WorkspaceTx, { id, draft, published }: ChangedRoute, by: string): Promise<void> {
    const now = (await this.routes.definitions(tx)).find((route) => route.id === id);
    if (!now) return;
    await this.routes.rewrite(
      tx,
      id,
      {
        draft: draft && !differs(now.draft, draft.after) ? draft.before : null,
        published: published && now.version === published.version ? published.before : null,
      },
      by,
      'A removal was taken back.',
    );
  }
}

type Words = Pick<Destination, 'dealWord'>;

/** Where things go, checked: it must exist, stay, and hold the same kind of record. */
function targetOf(
  to: PlaceKeys | null,
  removed: readonly PlaceKeys[],
  { record }: PipelineShape,
  pipelines: readonly PipelineShape[],
) {
  if (!to) return null;
  const pipeline = pipelineOf({ pipelines: [...pipelines] }, to.pipeline);
  const stage = stageOf(pipeline, to.stage);
  if (!pipeline || !stage || pipeline.record !== record || removed.some((place) => same(place, to)))
    throw new ProblemError('refused', 'These records cannot move there. Choose a stage that stays.', [
      { at: '/moveTo', code: 'unknown-place', message: 'moveTo takes PIPELINE/STAGE, by their keys.' },
    ]);
  return { pipeline, stage };
}

function refuseUsed(what: string, uses: readonly PlaceUse[], { record }: PipelineShape, words: Words): void {
  const records = uses.reduce((sum, use) => sum + use.records, 0);
  if (!records) return;
  const stand = `${countedRecords(words, records, record)} ${records === 1 ? 'is' : 'are'} in ${what}`;
  throw new ProblemError('in-use', `${stand}. Say with moveTo where ${records === 1 ? 'it goes' : 'they go'}.`);
}

function refuseWithout(pipeline: PipelineShape, stageKey: string): void {
  const problems = checkPipeline(editPipeline(pipeline, { do: 'remove-stage', stage: stageKey }));
  if (problems.length) throw new ProblemError('conflict', problems[0]!.text, problemsAt(problems));
}

function refuseLastPipeline({ id, name, record }: PipelineShape, all: readonly PipelineShape[], words: Words): void {
  if (record === 'deal' && !all.some((other) => other.id !== id && other.record === 'deal'))
    throw new ProblemError(
      'conflict',
      `${name} is the only pipeline for ${recordWords(words, record)}, and a workspace needs one.`,
    );
}

function followed(records: number, routes: number, target: ReturnType<typeof targetOf>, words: Words): string {
  if (!target || (!records && !routes)) return '.';
  const parts = [
    ...(records ? [countedRecords(words, records, target.pipeline.record)] : []),
    ...(routes ? [`what ${counted(routes, 'route')} named`] : []),
  ];
  return `; ${listInWords(parts)} went to ${target.pipeline.name}, ${target.stage.name}.`;
}

function names({ draft, published }: RouteDefinitions, place: PlaceKeys): boolean {
  return [draft, published].some((definition) => definition && namesPlace(definition, place));
}

function namesPlace(definition: RouteDefinition, place: PlaceKeys): boolean {
  return placesNamed(definition).some((named) => same(named, place));
}

function same(a: PlaceKeys, b: PlaceKeys): boolean {
  return a.pipeline === b.pipeline && a.stage === b.stage;
}

function differs(a: RouteDefinition, b: RouteDefinition): boolean {
  return !sameJson(a as unknown as JsonValue, b as unknown as JsonValue);
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

function shape({ id, at, by, text, takenBackAt }: Omit<typeof setUpChange.$inferSelect, 'workspaceId'>): SetUpChange {
  return { id, at: at.toISOString(), by, text, takenBackAt: takenBackAt?.toISOString() ?? null };
}
