import { useWords } from '../api/words';
import type { PipelineShape, PlaceUse } from '@haycart/api';
import type { Stage } from '@haycart/core';
import { closestCenter, DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../components/button';
import { Key, Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { ColumnHeads, type ColumnHead } from './column-heads';
import { CopyKey } from '../components/copy-key';
import { PromiseField } from './promise-field';
import { RemovalDialog } from './removal-dialog';
import { SavedField } from './saved-field';
import { STAGE_GRID, StageLine } from './stage-line';
import { usePipelineChange, useRemoval, useShownPipeline } from './use-pipeline-changes';

/** One pipeline and its stages in order, edited in their places. */
export function PipelineEditor({
  pipeline: saved,
  all,
  uses,
}: {
  pipeline: PipelineShape;
  all: readonly PipelineShape[];
  uses: readonly PlaceUse[];
}) {
  const pipeline = useShownPipeline(saved);
  const change = usePipelineChange(saved);
  const { remove } = useRemoval();
  const [removing, setRemoving] = useState<Stage | 'pipeline' | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const [said, setSaid] = useState('');
  const move = (stage: string, to: number) => {
    const { stages } = pipeline;
    if (to < 0 || to >= stages.length) return;
    change.mutate({ do: 'move-stage', stage, to });
    setSaid(`${stages.find(({ key }) => key === stage)!.name} is at place ${to + 1} of ${stages.length}.`);
  };
  const own = uses.filter((use) => use.pipeline === pipeline.key);
  const ask = (what: Stage | 'pipeline') => {
    const inIt = own.filter(({ stage }) => what === 'pipeline' || stage === what.key);
    if (inIt.some(({ records, routes }) => records > 0 || routes.length > 0) || what === 'pipeline') setRemoving(what);
    else
      remove.mutate(
        { pipeline: pipeline.id, stage: what.key, moveTo: null },
        { onError: (error) => toast.error(messageOf(error)) },
      );
  };
  const stageKeys = pipeline.stages.map(({ key }) => key);
  return (
    <Sheet className="min-w-0">
      <header className="flex flex-wrap items-center gap-2 border-b border-line px-3 py-2">
        <span className="min-w-40 flex-1">
          <SavedField
            label="Name of the pipeline"
            value={pipeline.name}
            className="font-heading text-lg font-semibold"
            check={(name) => (name.trim() === '' ? 'A pipeline needs a name' : null)}
            save={(name) => change.mutate({ do: 'rename', name })}
          />
        </span>
        <CopyKey text={pipeline.key} />
        <Button look="danger" onClick={() => ask('pipeline')}>
          Remove…
        </Button>
      </header>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => {
          if (over && over.id !== active.id) move(String(active.id), stageKeys.indexOf(String(over.id)));
        }}
      >
        <div role="table" aria-label={`Stages of ${pipeline.name}`}>
          <ColumnHeads grid={STAGE_GRID} columns={columnsFor(useWords().Many(pipeline.record))} />
          <SortableContext items={stageKeys} strategy={verticalListSortingStrategy}>
            {pipeline.stages.map((stage, index) => (
              <StageLine
                key={stage.key}
                stage={stage}
                index={index}
                pipeline={pipeline}
                use={own.find((use) => use.stage === stage.key)}
                change={change.mutate}
                move={(to) => move(stage.key, to)}
                remove={() => ask(stage)}
              />
            ))}
          </SortableContext>
        </div>
      </DndContext>
      <p role="status" className="sr-only">
        {said}
      </p>
      <div className="border-b border-line px-3 py-2.5">
        <PromiseField
          promise={pipeline.promise ?? null}
          change={(promise) => change.mutate({ do: 'promise', promise })}
        />
      </div>
      <AddStage add={(name) => change.mutateAsync({ do: 'add-stage', stage: { key: '', name, state: 'open' } })} />
      {removing && (
        <RemovalDialog pipeline={pipeline} stage={removing} all={all} uses={own} close={() => setRemoving(null)} />
      )}
    </Sheet>
  );
}

function columnsFor(records: string): ColumnHead[] {
  return [
    { name: 'Order', silent: true, narrow: true },
    { name: 'Stage', look: 'px-2', narrow: true },
    { name: 'State', look: 'px-2', narrow: true },
    { name: 'Probability', look: 'pr-9 text-right' },
    { name: 'Stuck after', look: 'pr-9 text-right whitespace-nowrap' },
    { name: 'Begin here', look: 'text-center' },
    { name: records, look: 'text-right' },
    { name: 'Key', look: 'px-1.5' },
    { name: 'Remove', silent: true, narrow: true },
  ];
}

/** One name after the other: Enter adds a stage, and the next can be typed. */
function AddStage({ add }: { add: (name: string) => Promise<unknown> }) {
  const [name, setName] = useState('');
  const field = useRef<HTMLInputElement>(null);
  const submit = (event: React.FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return field.current?.focus();
    // What is refused is said in a toast, and what was typed stays.
    add(name).then(
      () => setName(''),
      () => {},
    );
  };
  return (
    <form onSubmit={submit} className="flex flex-wrap items-center gap-2 px-3 py-2.5">
      <input
        ref={field}
        aria-label="Name of a new stage"
        placeholder="Another stage"
        maxLength={100}
        value={name}
        onChange={({ target }) => setName(target.value)}
        className="h-8 min-w-0 flex-1 rounded border border-faint bg-raised px-2.5 placeholder:text-faint sm:max-w-[280px]"
      />
      <Button type="submit">Add the stage</Button>
      <span className="text-small text-muted max-lg:hidden">
        <Key>Alt</Key> <Key>↑</Key> <Key>↓</Key> move the stage that you are in.
      </span>
    </form>
  );
}
