import { Injectable } from '@nestjs/common';
import type { Pipeline } from '@haycart/core';
import type { PipelineShape } from '@haycart/api';
import { and, asc, eq, sql } from 'drizzle-orm';
import { newId } from '../platform/new-id';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { pipeline, stage } from './tables';

/** Pipelines and their stages, in order. Names may change, keys never do. */
@Injectable()
export class PipelinesService {
  async all(tx: WorkspaceTx): Promise<PipelineShape[]> {
    const pipelines = await tx.db
      .select()
      .from(pipeline)
      .where(eq(pipeline.workspaceId, tx.workspaceId))
      .orderBy(asc(pipeline.position));
    const stages = await tx.db
      .select()
      .from(stage)
      .where(eq(stage.workspaceId, tx.workspaceId))
      .orderBy(asc(stage.position));
    return pipelines.map(({ id, key, name, record }) => ({
      id,
      key,
      name,
      record,
      stages: stages
        .filter(({ pipelineKey }) => pipelineKey === key)
        .map((row) => ({ key: row.key, name: row.name, state: row.state })),
    }));
  }

  async one(tx: WorkspaceTx, idOrKey: string): Promise<PipelineShape> {
    const found = (await this.all(tx)).find(({ id, key }) => id === idOrKey || key === idOrKey);
    if (!found) throw new ProblemError('not-found', `There is no pipeline ${idOrKey}.`);
    return found;
  }

  async add(tx: WorkspaceTx, pipelines: readonly Pipeline[]): Promise<void> {
    const [{ last } = { last: 0 }] = await tx.db
      .select({ last: sql<number>`coalesce(max(${pipeline.position}), 0)::int` })
      .from(pipeline);
    for (const [index, { key, name, record, stages }] of pipelines.entries()) {
      await tx.db
        .insert(pipeline)
        .values({ workspaceId: tx.workspaceId, id: newId(), key, name, record, position: last + index + 1 });
      await tx.db
        .insert(stage)
        .values(stages.map((one, position) => ({ workspaceId: tx.workspaceId, pipelineKey: key, position, ...one })));
    }
  }

  /** Removes a stage in which nothing stands. Routes that still name it end their runs failed, saying so. */
  async removeStage(tx: WorkspaceTx, idOrKey: string, stageKey: string, inIt: number): Promise<void> {
    const { key, name, stages } = await this.one(tx, idOrKey);
    const found = stages.find((candidate) => candidate.key === stageKey);
    if (!found) throw new ProblemError('not-found', `${name} has no stage ${stageKey}.`);
    if (inIt > 0)
      throw new ProblemError('in-use', `${inIt} records stand in ${found.name}. Move them to another stage first.`);
    if (stages.filter(({ state }) => state === 'open').length === 1 && found.state === 'open') {
      throw new ProblemError('conflict', `${found.name} is the only open stage of ${name}; a pipeline needs one.`);
    }
    await tx.db
      .delete(stage)
      .where(and(eq(stage.workspaceId, tx.workspaceId), eq(stage.pipelineKey, key), eq(stage.key, stageKey)));
  }
}
