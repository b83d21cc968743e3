import { AGE_BANDS, type AgeBand, type DealCard as Card, type PipelineGrid, type PipelineShape } from '@haycart/api';
import { useDroppable } from '@dnd-kit/core';
import { useState } from 'react';
import { count, percent, shortMoney } from '../components/format';
import { DealCard } from './deal-card';

type Row = PipelineGrid['rows'][number];

/** How many cards a cell shows before one asks for more. */
const SHOWN = 2;
const GROUND: Record<AgeBand, string> = { day: '', week: '', month: 'bg-straw-soft/25', longer: 'bg-brick-soft/40' };

/** One stage: its figures, and its deals by how long they have been in it. */
export function StageRow({
  row,
  pipeline,
  move,
}: {
  row: Row;
  pipeline: PipelineShape;
  move: (card: Card, to: string) => void;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: row.stage });
  const stage = pipeline.stages.find(({ key }) => key === row.stage);
  return (
    <div
      role="row"
      ref={setNodeRef}
      className={`grid grid-cols-[168px_repeat(4,minmax(0,1fr))] border-b border-line ${isOver ? 'outline-2 -outline-offset-2 outline-straw' : ''}`}
    >
      <div role="rowheader" className="px-2.5 py-2.5">
        <h2 className="text-base leading-5">{stage?.name ?? row.stage}</h2>
        <dl className="mt-1 grid grid-cols-[auto_1fr] text-small text-muted [&>dd]:text-right [&>dd]:text-ink">
          <dt>deals</dt>
          <dd>{count(row.count)}</dd>
          {row.worth
            .slice(0, 2)
            .map(({ currency, amount }, index) => [
              <dt key={`t${currency}`}>{index === 0 ? 'worth' : ''}</dt>,
              <dd key={currency}>{shortMoney({ currency, amount })}</dd>,
            ])}
          <dt title="Of the deals that left this stage in 90 days, those that went forward">go on</dt>
          <dd>{row.goOn === null ? '–' : percent(row.goOn)}</dd>
        </dl>
      </div>
      {AGE_BANDS.map((band) => (
        <Cell key={band} band={band} cell={row.cells[band]} stage={row.stage} pipeline={pipeline} move={move} />
      ))}
    </div>
  );
}

function Cell({
  band,
  cell,
  stage,
  pipeline,
  move,
}: {
  band: AgeBand;
  cell: Row['cells'][AgeBand];
  stage: string;
  pipeline: PipelineShape;
  move: (card: Card, to: string) => void;
}) {
  const [all, setAll] = useState(false);
  const shown = all ? cell.deals : cell.deals.slice(0, SHOWN);
  const hidden = cell.count - shown.length;
  return (
    <div role="cell" className={`flex min-h-[92px] min-w-0 flex-col gap-1 border-l border-line p-1.5 ${GROUND[band]}`}>
      {shown.map((card) => (
        <DealCard key={card.id} card={card} stage={stage} pipeline={pipeline} stuck={band === 'longer'} move={move} />
      ))}
      {hidden > 0 && !all && (
        <button
          type="button"
          onClick={() => setAll(true)}
          className="self-start px-2 py-0.5 text-small text-slate hover:underline"
        >
          + {count(hidden)} more
        </button>
      )}
      {all && hidden > 0 && <span className="px-2 text-small text-muted">and {count(hidden)} older</span>}
      {all && (
        <button
          type="button"
          onClick={() => setAll(false)}
          className="self-start px-2 py-0.5 text-small text-slate hover:underline"
        >
          show fewer
        </button>
      )}
    </div>
  );
}
