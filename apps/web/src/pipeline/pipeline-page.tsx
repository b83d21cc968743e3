import { AGE_BANDS, type AgeBand, type DealCard, type PipelineGrid } from '@haycart/api';
import { counted } from '@haycart/core';
import { DndContext, DragOverlay, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { gridQuery, pipelinesQuery } from '../api/queries';
import { count, shortMoney } from '../components/format';
import { Key, PageHead } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Empty, Failed, Loading, messageOf } from '../components/status';
import { CardFace } from './deal-card';
import { ClosingRow } from './closing-row';
import { StageRow } from './stage-row';

const BAND_WORDS: Record<AgeBand, string> = {
  day: 'in this stage up to a day',
  week: 'up to a week',
  month: 'up to a month',
  longer: 'longer than usual',
};

/** The pipeline as a grid: stages are rows, and what sits still drifts to the right. */
export function PipelinePage() {
  const { key } = useParams();
  const navigate = useNavigate();
  const pipelines = useQuery(pipelinesQuery);
  const deals = pipelines.data?.filter(({ record }) => record === 'deal');
  const chosen = key ?? deals?.[0]?.key;
  if (pipelines.isError) return <Failed error={pipelines.error} retry={() => void pipelines.refetch()} />;
  if (!deals) return <Loading />;
  if (!chosen) return <Empty title="There is no pipeline yet">Deals need a pipeline with stages.</Empty>;
  return (
    <div className="h-full overflow-y-auto p-5">
      <PipelineBoard key={chosen} id={chosen}>
        <label>
          <span className="sr-only">Pipeline</span>
          <select
            value={chosen}
            onChange={({ target }) => void navigate(`/pipeline/${target.value}`)}
            className="h-8 cursor-pointer rounded border-[1.5px] border-line bg-sheet px-2 font-semibold"
          >
            {deals.map((pipeline) => (
              <option key={pipeline.key} value={pipeline.key}>
                {pipeline.name}
              </option>
            ))}
          </select>
        </label>
      </PipelineBoard>
    </div>
  );
}

function PipelineBoard({ id, children }: { id: string; children: React.ReactNode }) {
  const grid = useQuery(gridQuery(id));
  const move = useMove(id);
  const [dragged, setDragged] = useState<DealCard | null>(null);
  // A card moves only after five pixels, so that a click still opens it.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  if (grid.isPending) return <Loading lines={18} />;
  if (grid.isError) return <Failed error={grid.error} retry={() => void grid.refetch()} />;
  const { pipeline, rows, closed } = grid.data;
  const total = rows.reduce((sum, row) => sum + row.count, 0);
  const drop = ({ active, over }: DragEndEvent) => {
    setDragged(null);
    const { card, stage } = active.data.current as { card: DealCard; stage: string };
    if (over && over.id !== stage) move.mutate({ card, from: stage, to: String(over.id) });
  };
  return (
    <>
      <PageHead
        title={pipeline.name}
        aside={`${counted(total, 'open deal')}${worthText(rows.flatMap(({ worth }) => worth))}`}
      >
        {children}
      </PageHead>
      <DndContext
        sensors={sensors}
        onDragStart={({ active }) => setDragged((active.data.current as { card: DealCard }).card)}
        onDragCancel={() => setDragged(null)}
        onDragEnd={drop}
      >
        <div
          role="table"
          aria-label={`Deals in ${pipeline.name}`}
          className="overflow-x-auto rounded border border-line bg-sheet"
        >
          <div role="rowgroup" className="min-w-[920px]">
            <div
              role="row"
              className="grid grid-cols-[168px_repeat(4,minmax(0,1fr))] border-b border-line text-label font-semibold text-muted"
            >
              <span role="columnheader" className="px-2.5 py-2">
                Stage
              </span>
              {AGE_BANDS.map((band) => (
                <span role="columnheader" key={band} className="border-l border-line px-2.5 py-2">
                  {BAND_WORDS[band]}
                </span>
              ))}
            </div>
            {rows.map((row) => (
              <StageRow
                key={row.stage}
                row={row}
                pipeline={pipeline}
                move={(card, to) => move.mutate({ card, from: row.stage, to })}
              />
            ))}
            <ClosingRow pipeline={pipeline} dragging={dragged !== null} />
          </div>
        </div>
        <DragOverlay dropAnimation={null}>
          {dragged && (
            <div className="w-64 rounded border border-ink bg-raised shadow-xl">
              <CardFace card={dragged} />
            </div>
          )}
        </DragOverlay>
      </DndContext>
      <p className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-small text-muted">
        {closed.map(({ state, count: deals, worth }) => (
          <span key={state} className="flex items-center gap-2">
            <StateShape state={state === 'won' ? 'written' : 'skipped'} /> {state === 'won' ? 'Won' : 'Lost'}{' '}
            {count(deals)}
            {worthText(worth)}
          </span>
        ))}
        <span>
          in the last 90 days. Drag a card to another stage, or focus it and press <Key>1</Key> to{' '}
          <Key>{pipeline.stages.length}</Key>.
        </span>
      </p>
    </>
  );
}

function worthText(worth: readonly { currency: string; amount: number }[]): string {
  const sums = new Map<string, number>();
  for (const { currency, amount } of worth) sums.set(currency, (sums.get(currency) ?? 0) + amount);
  const texts = [...sums].sort((a, b) => b[1] - a[1]).map(([currency, amount]) => shortMoney({ currency, amount }));
  return texts.length ? `, ${texts.join(' + ')}` : '';
}

/** Moves a deal at once on the screen, and back with a word when the server would not. */
function useMove(id: string) {
  const client = useQueryClient();
  const { queryKey } = gridQuery(id);
  return useMutation({
    mutationFn: ({ card, to }: { card: DealCard; from: string; to: string }) =>
      call('POST', `/deals/${card.id}/move`, { stage: to }),
    onMutate: async ({ card, from, to }) => {
      await client.cancelQueries({ queryKey });
      const before = client.getQueryData(queryKey);
      if (before) client.setQueryData(queryKey, moved(before, card, from, to));
      return before;
    },
    onError: (error, _move, before) => {
      if (before) client.setQueryData(queryKey, before);
      toast.error(messageOf(error));
    },
    onSuccess: (_answer, { card, from, to }) => {
      const stages = client.getQueryData(queryKey)?.pipeline.stages ?? [];
      const name = (key: string) => stages.find((stage) => stage.key === key)?.name ?? key;
      toast(`${card.name} is in ${name(to)} now.`, {
        action: {
          label: 'Undo',
          onClick: () =>
            void call('POST', `/deals/${card.id}/move`, { stage: from }).then(() =>
              client.invalidateQueries({ queryKey }),
            ),
        },
      });
    },
    onSettled: () => client.invalidateQueries({ queryKey: ['records'] }),
  });
}

function moved(grid: PipelineGrid, card: DealCard, from: string, to: string): PipelineGrid {
  const now = { ...card, stageSince: new Date().toISOString() };
  return {
    ...grid,
    rows: grid.rows.map((row) => {
      if (row.stage === from) {
        const cells = Object.fromEntries(
          AGE_BANDS.map((band) => {
            const { count: deals, deals: cards } = row.cells[band];
            const left = cards.filter(({ id }) => id !== card.id);
            return [band, { count: deals - (cards.length - left.length), deals: left }];
          }),
        ) as PipelineGrid['rows'][number]['cells'];
        return { ...row, count: row.count - 1, cells };
      }
      if (row.stage !== to) return row;
      const { day } = row.cells;
      return {
        ...row,
        count: row.count + 1,
        cells: { ...row.cells, day: { count: day.count + 1, deals: [now, ...day.deals] } },
      };
    }),
  };
}
