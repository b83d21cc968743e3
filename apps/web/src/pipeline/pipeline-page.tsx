import {
  AGE_BANDS,
  type AgeBand,
  type DealCard,
  type PipelineGrid,
  type PipelineShape,
  type Worth,
} from '@haycart/api';
import { listedFields, stageOf, type RecordCondition } from '@haycart/core';
import { DndContext, DragOverlay, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Table } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { fieldsQuery, gridQuery, pipelinesQuery, teamsQuery } from '../api/queries';
import { useWords } from '../api/words';
import { PLURALS } from '../api/record-kinds';
import { buttonLook } from '../components/button';
import { ClosingReason } from '../components/closing-reason';
import { FilterWords } from '../components/filter-words';
import { count, shortMoney } from '../components/format';
import { Key, PageHead } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Empty, Failed, Loading } from '../components/status';
import { useAddress } from '../state/use-address';
import { ClosingRow } from './closing-row';
import { CardFace } from './deal-card';
import { StageRow } from './stage-row';
import { useMove, type Move } from './use-move';

const BAND_WORDS: Record<AgeBand, string> = {
  day: 'in this stage up to a day',
  week: 'up to a week',
  month: 'up to a month',
  longer: 'longer than usual',
};
const PERIODS: Record<string, string> = { 30: '30 days', 90: '90 days', 180: 'half a year', 365: 'a year' };
const USUAL_DAYS = '90';

/** The pipeline as a grid: stages are rows, and what sits still drifts to the right. */
export function PipelinePage() {
  const { key } = useParams();
  const pipelines = useQuery(pipelinesQuery);
  const chosen = key ?? pipelines.data?.find(({ record }) => record === 'deal')?.key;
  if (pipelines.isError) return <Failed error={pipelines.error} retry={() => void pipelines.refetch()} />;
  if (!pipelines.data) return <Loading />;
  const pipeline = pipelines.data.find((one) => one.key === chosen);
  if (!pipeline) return <Empty title="There is no such pipeline">Choose another, or make one in the set-up.</Empty>;
  return (
    <div className="h-full overflow-y-auto p-5">
      <PipelineBoard key={pipeline.key} pipeline={pipeline} pipelines={pipelines.data} />
    </div>
  );
}

function PipelineBoard({ pipeline, pipelines }: { pipeline: PipelineShape; pipelines: readonly PipelineShape[] }) {
  const words = useWords();
  const [params, set] = useAddress();
  const days = params.get('days') ?? USUAL_DAYS;
  const filter = params.get('filter') ?? '';
  const wish = { filter: filter || undefined, days: Number(days) };
  // What is shown stays until what was asked for is there, with the filter that is being written.
  const grid = useQuery({ ...gridQuery(pipeline.key, wish), placeholderData: keepPreviousData });
  const move = useMove(pipeline, wish);
  const [dragged, setDragged] = useState<DealCard | null>(null);
  const [closing, setClosing] = useState<Move | null>(null);
  // A card moves only after five pixels, so that a click still opens it.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const start = (wanted: Move) => {
    if (stageOf(pipeline, wanted.to)?.state === 'open') move.mutate(wanted);
    else setClosing(wanted);
  };
  const drop = ({ active, over }: DragEndEvent) => {
    setDragged(null);
    const { card, stage } = active.data.current as { card: DealCard; stage: string };
    if (over && over.id !== stage) start({ card, from: stage, to: String(over.id) });
  };
  const target = closing && stageOf(pipeline, closing.to);
  if (grid.isPending) return <Loading lines={18} />;
  if (grid.isError) return <Failed error={grid.error} retry={() => void grid.refetch()} />;
  const { rows, closed, worth } = grid.data;
  const total = rows.reduce((sum, row) => sum + row.count, 0);
  return (
    <>
      <PageHead title={pipeline.name} aside={`${words.counted(total, pipeline.record)} open${worthText(worth)}`}>
        <Choices
          pipeline={pipeline}
          pipelines={pipelines}
          days={days}
          choose={(next) => set('days', next === USUAL_DAYS ? null : next)}
        />
      </PageHead>
      <div className="mb-2">
        <GridFilter
          pipeline={pipeline}
          filter={filter}
          change={(next) => set('filter', next ? JSON.stringify(next) : null)}
        />
      </div>
      <DndContext
        sensors={sensors}
        onDragStart={({ active }) => setDragged((active.data.current as { card: DealCard }).card)}
        onDragCancel={() => setDragged(null)}
        onDragEnd={drop}
      >
        <div
          role="table"
          aria-label={`${words.Many(pipeline.record)} in ${pipeline.name}`}
          aria-busy={grid.isPlaceholderData}
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
                period={PERIODS[days] ?? `${days} days`}
                move={(card, to) => start({ card, from: row.stage, to })}
              />
            ))}
            {pipeline.record === 'deal' && <ClosingRow pipeline={pipeline} dragging={dragged !== null} />}
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
      <Closed closed={closed} period={PERIODS[days] ?? `${days} days`} stages={pipeline.stages.length} />
      {closing && target && (
        <ClosingReason
          title={`${closing.card.name}: ${target.name}`}
          won={target.state === 'won'}
          action={target.name}
          close={() => setClosing(null)}
          decide={(reason) => {
            setClosing(null);
            move.mutate({ ...closing, ...(reason ? { reason } : {}) });
          }}
        />
      )}
    </>
  );
}

const SELECT = 'h-8 cursor-pointer rounded border-[1.5px] border-line bg-sheet px-2 font-semibold';

function Choices({
  pipeline,
  pipelines,
  days,
  choose,
}: {
  pipeline: PipelineShape;
  pipelines: readonly PipelineShape[];
  days: string;
  choose: (days: string) => void;
}) {
  const navigate = useNavigate();
  const words = useWords();
  const [params] = useSearchParams();
  const parts: RecordCondition[] = [{ of: { field: 'pipeline' }, test: 'is', value: pipeline.key }];
  const filter = params.get('filter');
  if (filter) parts.push(JSON.parse(filter) as RecordCondition);
  const table = new URLSearchParams({ filter: JSON.stringify({ all: parts }), sort: 'stage' });
  return (
    <>
      <label>
        <span className="sr-only">Pipeline</span>
        <select
          value={pipeline.key}
          onChange={({ target }) => void navigate(`/pipeline/${target.value}`)}
          className={SELECT}
        >
          {(['deal', 'lead'] as const).map((record) => {
            const own = pipelines.filter((one) => one.record === record);
            return (
              own.length > 0 && (
                <optgroup key={record} label={words.Many(record)}>
                  {own.map((one) => (
                    <option key={one.key} value={one.key}>
                      {one.name}
                    </option>
                  ))}
                </optgroup>
              )
            );
          })}
        </select>
      </label>
      <label className="flex items-center gap-2 text-muted">
        over
        <select aria-label="Period" value={days} onChange={({ target }) => choose(target.value)} className={SELECT}>
          {Object.entries(PERIODS).map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <Link to={`/records/${PLURALS[pipeline.record]}?${table.toString()}`} className={buttonLook('quiet')}>
        <Table className="size-4" aria-hidden /> As a table
      </Link>
    </>
  );
}

function GridFilter({
  pipeline,
  filter,
  change,
}: {
  pipeline: PipelineShape;
  filter: string;
  change: (filter: RecordCondition | undefined) => void;
}) {
  const fields = useQuery(fieldsQuery).data;
  const teams = useQuery(teamsQuery).data ?? [];
  if (!fields) return <div className="h-7" />;
  return (
    <FilterWords
      filter={filter ? (JSON.parse(filter) as RecordCondition) : undefined}
      change={change}
      terms={{ fields: listedFields(pipeline.record, fields).filter(({ key }) => key !== 'pipeline'), teams }}
    />
  );
}

function Closed({ closed, period, stages }: { closed: PipelineGrid['closed']; period: string; stages: number }) {
  return (
    <p className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-small text-muted">
      {closed.map(({ state, count: records, worth }) => (
        <span key={state} className="flex items-center gap-2">
          <StateShape state={state === 'won' ? 'written' : 'skipped'} /> {state === 'won' ? 'Won' : 'Lost'}{' '}
          {count(records)}
          {worthText(worth)}
        </span>
      ))}
      <span>
        in {period}. Drag a card to another stage, or focus it and press <Key>1</Key> to <Key>{stages}</Key>.
      </span>
    </p>
  );
}

/** What it is worth in all, by today's rates; the currencies that no rate converts stand by themselves. */
export function worthText({ byCurrency, total, without }: Worth): string {
  if (!byCurrency.length) return '';
  const alone = byCurrency.filter(({ currency }) => without.includes(currency));
  const parts = [...(alone.length < byCurrency.length ? [total] : []), ...alone].map(shortMoney);
  return `, ${parts.join(' + ')}`;
}
