import type { AnswerPromise } from '../people/answer-promise';
import type { Pipeline, Stage } from './destination';

/** One change to a pipeline. Keys never change. */
export type PipelineEdit =
  | { do: 'rename'; name: string }
  | { do: 'default-stage'; stage: string }
  | { do: 'promise'; promise: AnswerPromise | null }
  | { do: 'add-stage'; stage: Stage; before?: string | undefined }
  | { do: 'change-stage'; stage: string; change: Partial<Omit<Stage, 'key'>> }
  | { do: 'move-stage'; stage: string; to: number }
  | { do: 'remove-stage'; stage: string };

/** The pipeline after a change. What names a stage that is not there changes nothing. */
export function editPipeline(pipeline: Pipeline, edit: PipelineEdit): Pipeline {
  const { stages } = pipeline;
  switch (edit.do) {
    case 'rename':
      return { ...pipeline, name: edit.name.trim() };
    case 'default-stage':
      return { ...pipeline, defaultStage: edit.stage };
    case 'promise': {
      const { promise: _, ...rest } = pipeline;
      return edit.promise ? { ...rest, promise: edit.promise } : rest;
    }
    case 'add-stage': {
      const at = stages.findIndex(({ key }) => key === edit.before);
      const end = at === -1 ? endOfOpen(stages, edit.stage) : at;
      return { ...pipeline, stages: stages.toSpliced(end, 0, { ...edit.stage, name: edit.stage.name.trim() }) };
    }
    case 'change-stage': {
      const { name, ...rest } = edit.change;
      const change = name === undefined ? rest : { ...rest, name: name.trim() };
      return withDefault({
        ...pipeline,
        stages: stages.map((stage) => (stage.key === edit.stage ? { ...stage, ...change } : stage)),
      });
    }
    case 'move-stage': {
      const from = stages.findIndex(({ key }) => key === edit.stage);
      if (from === -1) return pipeline;
      const to = Math.max(0, Math.min(stages.length - 1, edit.to));
      return { ...pipeline, stages: stages.toSpliced(from, 1).toSpliced(to, 0, stages[from]!) };
    }
    case 'remove-stage':
      return withDefault({ ...pipeline, stages: stages.filter(({ key }) => key !== edit.stage) });
  }
}

/** Where a record goes that is placed without a stage: the one chosen, else the first that is open. */
export function defaultStageOf({ defaultStage, stages }: Pipeline): Stage | undefined {
  const open = stages.filter(({ state }) => state === 'open');
  return open.find(({ key }) => key === defaultStage) ?? open[0];
}

/** A new open stage goes after the last open one, before those that close a deal; a closing one goes to the end. */
function endOfOpen(stages: readonly Stage[], { state }: Stage): number {
  return state === 'open' ? stages.findLastIndex((stage) => stage.state === 'open') + 1 : stages.length;
}

function withDefault(pipeline: Pipeline): Pipeline {
  const stage = defaultStageOf(pipeline);
  return stage ? { ...pipeline, defaultStage: stage.key } : pipeline;
}
