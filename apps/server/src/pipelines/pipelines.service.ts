import { Inject, Injectable } from '@nestjs/common';
import { checkPipeline, editPipeline, newKey, type Pipeline, type PipelineEdit } from '@haycart/core';
import type { PipelineShape } from '@haycart/api';
import { and, asc, eq, sql } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { newId } from '../platform/new-id';
import { PipelinesStore } from './pipelines.store';
import { pipeline, retiredPlace, stage } from './tables';

/** Pipelines and their stages, in order. Names may change, keys never do. */
@Injectable()
export class PipelinesService {
  constructor(@Inject(PipelinesStore) private readonly store: PipelinesStore) {}

  async all(tx: WorkspaceTx): Promise<PipelineShape[]> {
    return this.store.all(tx);
  }

  async one(tx: WorkspaceTx, idOrKey: string): Promise<PipelineShape> {
    const found = (await this.all(tx)).find(({ id, key }) => id === idOrKey || key === idOrKey);
    if (!found) throw new ProblemError('not-found', `There is no pipeline ${idOrKey}.`);
    return found;
  }

  /** The same, kept from being changed by others until the transaction ends. */
  async held(tx: WorkspaceTx, idOrKey: string): Promise<PipelineShape> {
    const { id } = await this.one(tx, idOrKey);
    await tx.db
      .select({ id: pipeline.id })
      .from(pipeline)
      .where(and(eq(pipeline.workspaceId, tx.workspaceId), eq(pipeline.id, id)))
      .for('update');
    return this.one(tx, id);
  }

  /** Lets nothing more be placed in a pipeline's stages until the transaction ends; what is under way is waited for. */
  async closeStages(tx: WorkspaceTx, { key }: Pipeline): Promise<void> {
    await tx.db
      .select({ key: stage.key })
      .from(stage)
      .where(and(eq(stage.workspaceId, tx.workspaceId), eq(stage.pipelineKey, key)))
      .orderBy(asc(stage.key))
      .for('update');
  }

  /** Adds pipelines whose keys are chosen already. */
  async add(tx: WorkspaceTx, pipelines: readonly Pipeline[]): Promise<void> {
    const [{ last } = { last: 0 }] = await tx.db
      .select({ last: sql<number>`coalesce(max(${pipeline.position}), 0)::int` })
      .from(pipeline);
    for (const [index, { key, name, record, defaultStage = null, promise = null, stages }] of pipelines.entries()) {
      const position = last + index + 1;
      await tx.db
        .insert(pipeline)
        .values({ workspaceId: tx.workspaceId, id: newId(), key, name, record, position, defaultStage, promise });
      await this.store.saveStages(tx, key, stages);
    }
  }

  /** Makes a pipeline with a key of its own. */
  async make(tx: WorkspaceTx, { name, record, stages }: Omit<Pipeline, 'key'>): Promise<PipelineShape> {
    await oneAtATime(tx, 'pipelines');
    const all = await this.all(tx);
    const made = {
      key: newKey(name, [...all.map(({ key }) => key), ...(await this.store.retired(tx, null))]),
      name,
      record,
      stages,
    };
    refuseWrong(made);
    refuseTakenName(made, all);
    await this.add(tx, [{ ...made, name: name.trim() }]);
    return this.one(tx, made.key);
  }

  /** A key for a new stage, which no stage of the pipeline has or had. */
  async newStageKey(tx: WorkspaceTx, { key, stages }: Pipeline, name: string): Promise<string> {
    return newKey(name, [...stages.map((one) => one.key), ...(await this.store.retired(tx, key))]);
  }

  /** Changes a pipeline. @throws ProblemError 422 naming what would be wrong with it then. */
  async edit(tx: WorkspaceTx, idOrKey: string, edit: PipelineEdit): Promise<PipelineShape> {
    if (edit.do === 'rename') await oneAtATime(tx, 'pipelines');
    const before = await this.held(tx, idOrKey);
    const after = editPipeline(before, edit);
    refuseWrong(after);
    if (edit.do === 'rename') refuseTakenName(after, await this.all(tx));
    await tx.db
      .update(pipeline)
      .set({ name: after.name, defaultStage: after.defaultStage ?? null, promise: after.promise ?? null })
      .where(and(eq(pipeline.workspaceId, tx.workspaceId), eq(pipeline.id, before.id)));
    await this.store.saveStages(tx, before.key, after.stages);
    const gone = before.stages.filter((one) => !after.stages.some(({ key }) => key === one.key));
    await this.store.retire(
      tx,
      gone.map((one) => ({ pipeline: before.key, stage: one.key })),
    );
    return this.one(tx, before.id);
  }

  /** Puts the pipelines into an order. Those not named keep theirs, after them. */
  async reorder(tx: WorkspaceTx, ids: readonly string[]): Promise<PipelineShape[]> {
    const all = await this.all(tx);
    const named = ids.flatMap((id) => all.find((one) => one.id === id) ?? []);
    const order = [...new Set([...named, ...all])];
    for (const [position, { id }] of order.entries())
      await tx.db
        .update(pipeline)
        .set({ position })
        .where(and(eq(pipeline.workspaceId, tx.workspaceId), eq(pipeline.id, id)));
    return order;
  }

  /** Removes a pipeline in whose stages nothing stands any more. */
  async remove(tx: WorkspaceTx, { id, key, stages }: PipelineShape): Promise<void> {
    await tx.db.delete(pipeline).where(and(eq(pipeline.workspaceId, tx.workspaceId), eq(pipeline.id, id)));
    await this.store.retire(tx, [
      { pipeline: key, stage: '' },
      ...stages.map((one) => ({ pipeline: key, stage: one.key })),
    ]);
  }

  /**
   * Brings back what was removed: a whole pipeline, or the stages that it lacks, each where it stood. What has a name
   * that was given to another meanwhile is told apart by its key.
   */
  async bringBack(tx: WorkspaceTx, was: PipelineShape): Promise<void> {
    const all = await this.all(tx);
    const now = all.find(({ key }) => key === was.key);
    if (!now) {
      await this.add(tx, [toldApart(was, all)]);
      await tx.db
        .update(pipeline)
        .set({ id: was.id })
        .where(and(eq(pipeline.workspaceId, tx.workspaceId), eq(pipeline.key, was.key)));
    } else {
      const stages = [...now.stages];
      was.stages.forEach((one, index) => {
        if (!stages.some(({ key }) => key === one.key))
          stages.splice(Math.min(index, stages.length), 0, toldApart(one, stages));
      });
      await this.store.saveStages(tx, was.key, stages);
    }
    const back = was.stages.map(({ key }) => key);
    await tx.db
      .delete(retiredPlace)
      .where(
        and(
          eq(retiredPlace.workspaceId, tx.workspaceId),
          eq(retiredPlace.pipelineKey, was.key),
          sql`${retiredPlace.stageKey} = any(${sql.param(['', ...back])}::text[])`,
        ),
      );
  }
}

function toldApart<Thing extends { key: string; name: string }>(thing: Thing, others: readonly Thing[]): Thing {
  const taken = others.some(({ name }) => name.toLowerCase() === thing.name.toLowerCase());
  return taken ? { ...thing, name: `${thing.name} (${thing.key})` } : thing;
}

function refuseWrong(changed: Pipeline): void {
  const problems = checkPipeline(changed);
  if (problems.length) throw new ProblemError('refused', problems[0]!.text, problemsAt(problems));
}

function refuseTakenName({ key, name }: Pipeline, all: readonly Pipeline[]): void {
  const other = all.find((one) => one.key !== key && one.name.toLowerCase() === name.trim().toLowerCase());
  if (!other) return;
  throw new ProblemError('refused', `There is a pipeline called “${other.name}” already. Give this one another name.`, [
    { at: '/name', code: 'name-taken', message: 'Another pipeline has this name.' },
  ]);
}
