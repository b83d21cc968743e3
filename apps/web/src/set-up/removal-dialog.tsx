import type { PipelineShape, PlaceUse } from '@haycart/api';
import { capitalised, listInWords, type RecordKind, type Stage } from '@haycart/core';
import { useState } from 'react';
import { useWords } from '../api/words';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { SelectField } from '../components/text-field';
import { useRemoval } from './use-pipeline-changes';

/** Says what stands in what is to be removed and what names it, and asks where that goes. */
export function RemovalDialog({
  pipeline,
  stage,
  all,
  uses,
  close,
}: {
  pipeline: PipelineShape;
  stage: Stage | 'pipeline';
  all: readonly PipelineShape[];
  uses: readonly PlaceUse[];
  close: () => void;
}) {
  const { remove } = useRemoval();
  const gone = (key: string) => stage === 'pipeline' || stage.key === key;
  const inIt = uses.filter((use) => gone(use.stage));
  const records = inIt.reduce((sum, use) => sum + use.records, 0);
  const routes = [...new Set(inIt.flatMap((use) => use.routes.map(({ name }) => name)))];
  const views = [...new Set(inIt.flatMap((use) => use.views.map((view) => view.name)))];
  const used = records > 0 || routes.length > 0 || views.length > 0;
  const choices = all
    .filter(({ record }) => record === pipeline.record)
    .map((one) => ({ ...one, stages: one.stages.filter(({ key }) => one.id !== pipeline.id || !gone(key)) }))
    .filter(({ stages }) => stages.length > 0);
  const words = useWords();
  const [moveTo, setMoveTo] = useState(() => neighbour(pipeline, stage, choices));
  const name = stage === 'pipeline' ? pipeline.name : stage.name;
  const submit = (event: React.FormEvent) => {
    event.preventDefault();
    remove.mutate(
      {
        pipeline: pipeline.id,
        stage: stage === 'pipeline' ? null : stage.key,
        moveTo: used ? moveTo : null,
      },
      { onSuccess: close },
    );
  };
  return (
    <Dialog
      open
      close={close}
      title={`Remove ${name}`}
      description={usesInWords(records, { route: routes, view: views }, words, pipeline.record)}
    >
      <form className="flex flex-col gap-4" onSubmit={submit}>
        {used && (
          <SelectField
            label={routes.length ? `${words.Many(pipeline.record)} and routes go to` : 'They go to'}
            help={
              routes.length ? 'A route that runs gets a new version that names this stage.' : 'Each keeps its history.'
            }
            value={moveTo ?? ''}
            onChange={({ target }) => setMoveTo(target.value)}
          >
            {choices.map((one) => (
              <optgroup key={one.key} label={one.name}>
                {one.stages.map(({ key, name: stageName }) => (
                  <option key={key} value={`${one.key}/${key}`}>
                    {stageName}
                  </option>
                ))}
              </optgroup>
            ))}
          </SelectField>
        )}
        <DialogActions
          error={remove.error}
          close={close}
          action={`Remove ${name}`}
          disabled={remove.isPending || (used && !moveTo)}
          note="This can be taken back."
        />
      </form>
    </Dialog>
  );
}

function usesInWords(
  records: number,
  named: { route: readonly string[]; view: readonly string[] },
  words: ReturnType<typeof useWords>,
  record: RecordKind,
): string {
  const parts = [
    ...(records ? [`${words.counted(records, record)} ${records === 1 ? 'is' : 'are'} in it`] : []),
    ...(['route', 'view'] as const).flatMap((what) => {
      const names = named[what];
      return names.length
        ? [
            `the ${names.length === 1 ? what : `${what}s`} ${listInWords(names)} ${names.length === 1 ? 'names' : 'name'} it`,
          ]
        : [];
    }),
  ];
  if (!parts.length) return `No ${words.one(record)} is in it, and no route or view names it.`;
  return `${capitalised(listInWords(parts))}. Where do they go?`;
}

/** The stage after it, or before it where it is the last; of another pipeline the first. */
function neighbour(
  pipeline: PipelineShape,
  stage: Stage | 'pipeline',
  choices: readonly PipelineShape[],
): string | null {
  const near =
    stage === 'pipeline'
      ? undefined
      : (pipeline.stages[pipeline.stages.indexOf(stage) + 1] ?? pipeline.stages[pipeline.stages.indexOf(stage) - 1]);
  const [first] = choices;
  if (near) return `${pipeline.key}/${near.key}`;
  return first ? `${first.key}/${first.stages[0]!.key}` : null;
}
