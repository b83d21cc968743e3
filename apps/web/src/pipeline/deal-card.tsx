import type { DealCard as Card, PipelineShape } from '@haycart/api';
import { useDraggable } from '@dnd-kit/core';
import { useNavigate } from 'react-router';
import { PLURALS } from '../api/record-kinds';
import { age, shortMoney } from '../components/format';

/** A deal in the grid. Dragged by mouse or touch; by keyboard a number moves it to that stage, and Enter opens it. */
export function DealCard({
  card,
  stage,
  pipeline,
  stuck,
  move,
}: {
  card: Card;
  stage: string;
  pipeline: PipelineShape;
  stuck: boolean;
  move: (card: Card, to: string) => void;
}) {
  const navigate = useNavigate();
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: card.id, data: { card, stage } });
  const open = () => void navigate(`/records/${PLURALS[pipeline.record]}/${card.id}`);
  const press = (event: React.KeyboardEvent) => {
    if (event.key === 'Enter') open();
    const target = pipeline.stages[Number(event.key) - 1];
    if (target && target.key !== stage) {
      event.preventDefault();
      event.stopPropagation();
      move(card, target.key);
    }
  };
  return (
    <div
      ref={setNodeRef}
      {...listeners}
      role="button"
      tabIndex={0}
      aria-label={`${card.name}, ${card.value ? shortMoney(card.value) : 'no value'}, ${age(card.stageSince)} in this stage`}
      aria-keyshortcuts={pipeline.stages.map((_, index) => index + 1).join(' ')}
      onClick={open}
      onKeyDown={press}
      className={`touch-manipulation rounded border border-line bg-raised select-none hover:border-muted ${stuck ? 'border-l-[3px] border-l-brick' : ''} ${isDragging ? 'opacity-40' : ''}`}
    >
      <CardFace card={card} />
    </div>
  );
}

/** What a card shows. */
export function CardFace({ card }: { card: Card }) {
  return (
    <div className="px-2.5 py-1.5">
      <b className="block truncate text-[13px] leading-[17px] font-semibold">{card.name}</b>
      <span className="flex justify-between gap-2 text-label text-muted">
        <span className="truncate">
          {[card.value && shortMoney(card.value), card.source].filter(Boolean).join(' · ')}
        </span>
        <span className="flex-none">{age(card.stageSince)}</span>
      </span>
    </div>
  );
}
