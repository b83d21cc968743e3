import { AGE_BANDS, type AgeBand, type DealCard as Card, type PipelineGrid, type PipelineShape } from '@haycart/api';
import { useDroppable } from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState } from 'react';
import { useWords } from '../api/words';
import { count, percent, shortMoney } from '../components/format';
import { DealCard } from './deal-card';

type Row = PipelineGrid['rows'][number];

/** How many cards a cell shows before one asks for more. */
const SHOWN = 2;
/** A card with the gap beneath it, in pixels. */
const CARD = 54;
const GROUND: Record<AgeBand, string> = { day: '', week: '', month: 'bg-straw-soft/25', longer: 'bg-brick-soft/40' };

/** One stage: its figures, and its cards by how long they have been in it. */
export function StageRow({
  row,
  pipeline,
  period,
  move,
}: {
  row: Row;
  pipeline: PipelineShape;
  /** Over what the figures of the past are counted. */
  period: string;
  move: (card: Card, to: string) => void;
}) {
  const words = useWords();
  const { setNodeRef, isOver } = useDroppable({ id: row.stage });
  const stage = pipeline.stages.find(({ key }) => key === row.stage);
  const { byCurrency, total, without } = row.worth;
  const several = byCurrency.length > 1 && without.length < byCurrency.length;
  return (
    <div
      role="row"
      ref={setNodeRef}
      className={`grid grid-cols-[168px_repeat(4,minmax(0,1fr))] border-b border-line ${isOver ? 'outline-2 -outline-offset-2 outline-straw' : ''}`}
    >
      <div role="rowheader" className="px-2.5 py-2.5">
        <h2 className="text-base leading-5">{stage?.name ?? row.stage}</h2>
        <dl className="mt-1 grid grid-cols-[auto_1fr] text-small text-muted [&>dd]:text-right [&>dd]:text-ink">
          <dt>{words.many(pipeline.record)}</dt>
          <dd>{count(row.count)}</dd>
          {byCurrency
            .slice(0, 3)
            .map(({ currency, amount }, index) => [
              <dt key={`t${currency}`}>{index === 0 ? 'value' : ''}</dt>,
              <dd key={currency}>{shortMoney({ currency, amount })}</dd>,
            ])}
          {several && (
            <>
              <dt title={without.length ? `without ${without.join(', ')}, which no rate converts` : "by today's rates"}>
                total
              </dt>
              <dd className="border-t border-line">{shortMoney(total)}</dd>
            </>
          )}
          <dt title={`Of the ${row.left} that left this stage in ${period}, those that moved forward`}>conversion</dt>
          <dd>{row.goOn === null ? '–' : percent(row.goOn)}</dd>
        </dl>
      </div>
      {AGE_BANDS.map((band) => (
        <Cell key={band} band={band} cell={row.cells[band]} stage={row.stage} pipeline={pipeline} move={move} />
      ))}
    </div>
  );
}

interface CellProps {
  band: AgeBand;
  cell: Row['cells'][AgeBand];
  stage: string;
  pipeline: PipelineShape;
  move: (card: Card, to: string) => void;
}

function Cell(props: CellProps) {
  const { band, cell, stage, pipeline, move } = props;
  const [all, setAll] = useState(false);
  const hidden = cell.count - Math.min(SHOWN, cell.deals.length);
  return (
    <div role="cell" className={`flex min-h-[92px] min-w-0 flex-col gap-1 border-l border-line p-1.5 ${GROUND[band]}`}>
      {all ? (
        <AllCards {...props} />
      ) : (
        cell.deals
          .slice(0, SHOWN)
          .map((card) => (
            <DealCard
              key={card.id}
              card={card}
              stage={stage}
              pipeline={pipeline}
              stuck={band === 'longer'}
              move={move}
            />
          ))
      )}
      {(all || hidden > 0) && (
        <button
          type="button"
          onClick={() => setAll(!all)}
          className="self-start px-2 py-0.5 text-small text-slate hover:underline"
        >
          {all ? 'show fewer' : `+ ${count(hidden)} more`}
        </button>
      )}
      {all && cell.count > cell.deals.length && (
        <span className="px-2 text-small text-muted">and {count(cell.count - cell.deals.length)} older</span>
      )}
    </div>
  );
}

/** Every card of a cell, however many: only those in sight are drawn. */
function AllCards({ band, cell, stage, pipeline, move }: CellProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: cell.deals.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => CARD,
    overscan: 6,
  });
  return (
    <div ref={scroller} className="max-h-[432px] overflow-y-auto">
      <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const card = cell.deals[index]!;
          return (
            <div key={card.id} className="absolute inset-x-0" style={{ transform: `translateY(${start}px)` }}>
              <DealCard card={card} stage={stage} pipeline={pipeline} stuck={band === 'longer'} move={move} />
            </div>
          );
        })}
      </div>
    </div>
  );
}
