import type { PipelineShape } from '@haycart/api';
import { useDroppable } from '@dnd-kit/core';
import { StateShape } from '../components/state-shape';

/** The stages that close a deal, as places to drop a card. */
export function ClosingRow({ pipeline, dragging }: { pipeline: PipelineShape; dragging: boolean }) {
  const closing = pipeline.stages.filter(({ state }) => state !== 'open');
  return (
    <div role="row" className="grid grid-cols-[168px_minmax(0,1fr)]">
      <span role="rowheader" className="px-2.5 py-2.5 text-small text-muted">
        Close
      </span>
      <div role="cell" className="flex gap-2 border-l border-line p-1.5">
        {closing.map(({ key, name, state }) => (
          <Target key={key} id={key} name={name} won={state === 'won'} dragging={dragging} />
        ))}
      </div>
    </div>
  );
}

function Target({ id, name, won, dragging }: { id: string; name: string; won: boolean; dragging: boolean }) {
  const { setNodeRef, isOver } = useDroppable({ id });
  return (
    <div
      ref={setNodeRef}
      className={`flex h-8 flex-1 items-center gap-2 rounded border border-dashed px-2.5 ${isOver ? 'border-straw bg-straw-soft' : dragging ? 'border-ink' : 'border-line text-muted'}`}
    >
      <StateShape state={won ? 'written' : 'skipped'} /> {name}
    </div>
  );
}
