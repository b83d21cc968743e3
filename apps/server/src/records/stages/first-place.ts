import {
  defaultStageOf,
  pipelineOf,
  stageOf,
  stageValues,
  type Destination,
  type FieldValues,
  type RecordKind,
} from '@haycart/core';
import { ProblemError } from '../../platform/errors/problem-error';

/** The values of the first place of a record made by hand; nothing for what is in no pipeline. */
export function firstPlace(
  kind: RecordKind,
  { pipeline: pipelineKey, stage: stageKey }: { pipeline?: string | undefined; stage?: string | undefined },
  destination: Destination,
  at: string,
): FieldValues {
  if (kind !== 'deal' && kind !== 'lead') return {};
  const pipeline =
    pipelineKey === undefined
      ? destination.pipelines.find(({ record }) => record === kind)
      : pipelineOf(destination, pipelineKey);
  if (!pipeline && kind === 'lead' && pipelineKey === undefined) return { status: 'open' };
  const stage = stageKey === undefined ? pipeline && defaultStageOf(pipeline) : stageOf(pipeline, stageKey);
  if (!pipeline || pipeline.record !== kind || !stage)
    throw new ProblemError('refused', `There is no such place for a ${kind}.`, [
      {
        at: pipeline ? '/stage' : '/pipeline',
        code: pipeline ? 'unknown-stage' : 'unknown-pipeline',
        message: 'Name a pipeline of this kind of record and one of its stages, by their keys.',
      },
    ]);
  return stageValues(pipeline, stage, at);
}
