import { Injectable } from '@nestjs/common';
import type { PlaceKeys, Stage } from '@haycart/core';
import type { PipelineShape } from '@haycart/api';
import { and, asc, eq, notInArray, sql } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { pipeline, retiredPlace, stage } from './tables';

/** Pipelines and stages as rows, and the keys of those that are gone. */
@Injectable()
export class PipelinesStore {
  async all(tx: WorkspaceTx): Promise<PipelineShape[]> {
    const pipelines = await tx.db
      .select()
      .from(pipeline)
      .where(eq(pipeline.workspaceId, tx.workspaceId))
      .orderBy(asc(pipeline.position), asc(pipeline.id));
    const stages = await tx.db
      .select()
      .from(stage)
      .where(eq(stage.workspaceId, tx.workspaceId))
      .orderBy(asc(stage.position), asc(stage.key));
    return pipelines.map(({ id, key, name, record, defaultStage, promise }) => ({
      id,
      key,
      name,
      record,
      ...(defaultStage === null ? {} : { defaultStage }),
      ...(promise === null ? {} : { promise }),
      stages: stages.filter(({ pipelineKey }) => pipelineKey === key).map(stageFrom),
    }));
  }

  /** Keeps a pipeline's stages as they are now, in their order; those that are not among them go. */
  async saveStages(tx: WorkspaceTx, pipelineKey: string, stages: readonly Stage[]): Promise<void> {
    const rows = stages.map(({ key, name, state, probability = null, stuckAfter = null }, position) => ({
      workspaceId: tx.workspaceId,
      pipelineKey,
      key,
      name,
      state,
      position,
      probability,
      stuckAfter,
    }));
    const excluded = (column: string) => sql.raw(`excluded.${column}`);
    await tx.db
      .insert(stage)
      .values(rows)
      .onConflictDoUpdate({
        target: [stage.workspaceId, stage.pipelineKey, stage.key],
        set: {
          name: excluded('name'),
          state: excluded('state'),
          position: excluded('position'),
          probability: excluded('probability'),
          stuckAfter: excluded('stuck_after'),
        },
      });
    await tx.db.delete(stage).where(
      and(
        eq(stage.workspaceId, tx.workspaceId),
        eq(stage.pipelineKey, pipelineKey),
        notInArray(
          stage.key,
          stages.map(({ key }) => key),
        ),
      ),
    );
  }

  /** Notes the keys of what has gone. */
  async retire(tx: WorkspaceTx, places: readonly PlaceKeys[]): Promise<void> {
    if (!places.length) return;
    await tx.db
      .insert(retiredPlace)
      .values(
        places.map((place) => ({ workspaceId: tx.workspaceId, pipelineKey: place.pipeline, stageKey: place.stage })),
      )
      .onConflictDoNothing();
  }

  /** Keys that are gone: of the stages of one pipeline, or of pipelines. */
  async retired(tx: WorkspaceTx, pipelineKey: string | null): Promise<string[]> {
    const rows = await tx.db.select().from(retiredPlace).where(eq(retiredPlace.workspaceId, tx.workspaceId));
    return pipelineKey === null
      ? rows.filter(({ stageKey }) => stageKey === '').map((row) => row.pipelineKey)
      : rows.filter((row) => row.pipelineKey === pipelineKey && row.stageKey !== '').map(({ stageKey }) => stageKey);
  }
}

function stageFrom(row: typeof stage.$inferSelect): Stage {
  const { key, name, state, probability, stuckAfter } = row;
  return {
    key,
    name,
    state,
    ...(probability === null ? {} : { probability }),
    ...(stuckAfter === null ? {} : { stuckAfter }),
  };
}
