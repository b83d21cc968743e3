import type { PipelineShape, PlaceUse } from '@haycart/api';
import { STAGE_LIMITS, type PipelineEdit, type Stage } from '@haycart/core';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical, Trash2 } from 'lucide-react';
import { useWords } from '../api/words';
import { IconButton } from '../components/button';
import { count } from '../components/format';
import { CopyKey } from '../components/copy-key';
import { SavedField } from './saved-field';

export const STAGE_GRID =
  'grid grid-cols-[28px_minmax(0,1fr)_96px_36px] items-center gap-x-2 px-2 lg:grid-cols-[28px_minmax(0,1.4fr)_96px_88px_96px_72px_72px_minmax(0,1fr)_36px]';

/** One stage: everything about it edited in its place. An arrow on its handle moves it, and Alt with an arrow anywhere in it. */
export function StageLine({
  stage,
  index,
  pipeline,
  use,
  change,
  move,
  remove,
}: {
  stage: Stage;
  index: number;
  pipeline: PipelineShape;
  use: PlaceUse | undefined;
  change: (edit: PipelineEdit) => void;
  /** Moves it to another place among the stages, counted from 0. */
  move: (to: number) => void;
  remove: () => void;
}) {
  const words = useWords();
  const { setNodeRef, listeners, transform, transition, isDragging } = useSortable({ id: stage.key });
  const edit = (part: Partial<Omit<Stage, 'key'>>) => change({ do: 'change-stage', stage: stage.key, change: part });
  const press = (event: React.KeyboardEvent) => {
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    const target = event.target as HTMLElement;
    if (!by || !(event.altKey || target.dataset.handle)) return;
    event.preventDefault();
    move(index + by);
    // Where the line goes to, the focus goes along.
    requestAnimationFrame(() => target.focus());
  };
  const open = stage.state === 'open';
  return (
    <div
      ref={setNodeRef}
      role="row"
      onKeyDown={press}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`${STAGE_GRID} min-h-10 border-b border-hair ${isDragging ? 'relative z-20 bg-straw-soft' : 'bg-sheet'}`}
    >
      <span role="cell">
        <button
          type="button"
          {...listeners}
          data-handle
          aria-label={`Move ${stage.name}`}
          title="Drag, or press an arrow key"
          className="flex size-7 cursor-grab touch-none items-center justify-center rounded text-muted hover:bg-hair"
        >
          <GripVertical className="size-4" aria-hidden />
        </button>
      </span>
      <span role="cell">
        <SavedField
          label={`Name of ${stage.name}`}
          value={stage.name}
          className="font-semibold"
          check={(name) => nameProblem(name, stage, pipeline)}
          save={(name) => edit({ name })}
        />
        <span className="-mt-1 block truncate px-2 pb-1 text-small text-muted lg:hidden">
          {use ? words.counted(use.records, pipeline.record) : ''}
        </span>
      </span>
      <span role="cell">
        <select
          aria-label={`State of ${stage.name}`}
          value={stage.state}
          onChange={({ target }) => edit({ state: target.value as Stage['state'] })}
          className="h-8 w-full cursor-pointer rounded border border-line bg-raised px-1.5"
        >
          <option value="open">open</option>
          <option value="won">won</option>
          <option value="lost">lost</option>
        </select>
      </span>
      <span role="cell" className="max-lg:hidden">
        {open && (
          <NumberField
            label={`Probability of ${stage.name}, percent`}
            limits={STAGE_LIMITS.probability}
            unit="%"
            value={stage.probability}
            save={(probability) => edit({ probability })}
          />
        )}
      </span>
      <span role="cell" className="max-lg:hidden">
        {open && (
          <NumberField
            label={`Days after which ${words.many(pipeline.record)} in ${stage.name} are stuck`}
            limits={STAGE_LIMITS.stuckAfter}
            unit="days"
            value={stage.stuckAfter}
            save={(stuckAfter) => edit({ stuckAfter })}
          />
        )}
      </span>
      <span role="cell" className="flex justify-center max-lg:hidden">
        {open && (
          <input
            type="radio"
            name="default-stage"
            aria-label={`New ${words.many(pipeline.record)} begin in ${stage.name}`}
            className="size-4 cursor-pointer accent-green"
            checked={
              (pipeline.defaultStage ?? pipeline.stages.find(({ state }) => state === 'open')?.key) === stage.key
            }
            onChange={() => change({ do: 'default-stage', stage: stage.key })}
          />
        )}
      </span>
      <span role="cell" className="text-right max-lg:hidden">
        {use ? count(use.records) : ''}
      </span>
      <span role="cell" className="min-w-0 max-lg:hidden">
        <CopyKey text={stage.key} />
      </span>
      <span role="cell">
        <IconButton label={`Remove ${stage.name}`} className="!size-7 text-muted" onClick={remove}>
          <Trash2 className="size-3.5" aria-hidden />
        </IconButton>
      </span>
    </div>
  );
}

function NumberField({
  label,
  limits: { least, most },
  unit,
  value,
  save,
}: {
  label: string;
  limits: { least: number; most: number };
  unit: string;
  value: number | undefined;
  save: (value: number | undefined) => void;
}) {
  const check = (text: string) =>
    text.trim() === '' || (/^\d+$/.test(text.trim()) && Number(text) >= least && Number(text) <= most)
      ? null
      : `A whole number from ${least} to ${most}, or nothing`;
  return (
    <span className="flex items-center">
      <SavedField
        label={label}
        inputMode="numeric"
        placeholder="–"
        className="text-right"
        value={value === undefined ? '' : String(value)}
        check={check}
        save={(text) => save(text === '' ? undefined : Number(text))}
      />
      <span className="w-9 flex-none text-small text-muted">{unit}</span>
    </span>
  );
}

function nameProblem(name: string, { key }: Stage, { stages }: PipelineShape): string | null {
  if (name.trim() === '') return 'A stage needs a name';
  const same = stages.find((other) => other.key !== key && other.name.toLowerCase() === name.trim().toLowerCase());
  return same ? 'Another stage has this name' : null;
}
