import { Inject, Injectable } from '@nestjs/common';
import { totalIn, type ExchangeRate, type Money, type RecordKind } from '@haycart/core';
import { AGE_BANDS, type AgeBand, type DealCard, type PipelineGrid, type Worth } from '@haycart/api';
import type { WorkspaceTx } from '../../platform/database/database';
import { PipelinesService } from '../../pipelines/pipelines.service';
import { RatesService } from '../../workspaces/rates.service';
import { Values } from '../../platform/database/values';
import { whereSql, type ListSetting, type RecordQuery } from '../lists/record-lists.service';

/** How many cards of one cell are sent; the count tells of the others. */
const CARDS = 200;

interface CardRow {
  stage: string;
  band: AgeBand;
  id: string;
  number: string;
  name: string;
  value_amount: string | null;
  value_currency: string | null;
  owner: string | null;
  source: string | null;
  stage_since: Date;
}

interface WorthRow {
  stage: string;
  state: 'open' | 'won' | 'lost';
  band: AgeBand;
  currency: string | null;
  count: number;
  amount: string;
}

/** What the grid is narrowed to, and the days over which it tells how deals go on. */
export interface GridWish {
  query: RecordQuery;
  days: number;
}

/**
 * Each open stage `s` with each band `b` of it, whose deals began to stand there from `begins` until before `ends`. Stuck is
 * what the stage says, else a month; a stuck deal stands at the far right however short the others' bands are.
 */
const CELLS = `(select key, pipeline_key, state, now() - make_interval(days => coalesce(stuck_after, 30)) as stuck, now() - interval '24 hours' as day, now() - interval '7 days' as week
     from stage where workspace_id = $1 and state = 'open') s
   cross join lateral (values ('day', greatest(s.stuck, s.day), 'infinity'::timestamptz), ('week', greatest(s.stuck, s.week), s.day),
     ('month', s.stuck, s.week), ('longer', '-infinity'::timestamptz, s.stuck)) b (band, begins, ends)`;
/** Whether a record `r` stands in a cell, as a range of the index of places. */
const IN_CELL = `s.pipeline_key = r.pipeline and r.stage = s.key and r.status = 'open' and r.stage_since >= b.begins and r.stage_since < b.ends`;

/** What stands in a pipeline as a grid: a row for each open stage, a column for how long it has been in it. */
@Injectable()
export class DealGridService {
  constructor(
    @Inject(PipelinesService) private readonly pipelines: PipelinesService,
    @Inject(RatesService) private readonly rates: RatesService,
  ) {}

  async grid(tx: WorkspaceTx, idOrKey: string, { query, days }: GridWish, setting: ListSetting): Promise<PipelineGrid> {
    const pipeline = await this.pipelines.one(tx, idOrKey);
    const shown = (values: Values) =>
      `${whereSql(pipeline.record, query, setting, values)} and r.pipeline = ${values.add(pipeline.key, 'text')}`;
    const cards = await cardsOf(tx, pipeline.record, shown);
    const worths = await worthsOf(tx, pipeline.record, days, shown);
    const moves = await movesOf(tx, pipeline.record, days, shown);
    const worth = worthBy(await this.rates.all(tx), setting);
    const position = new Map(pipeline.stages.map(({ key }, index) => [key, index]));
    const open = pipeline.stages.filter(({ state }) => state === 'open');
    return {
      pipeline,
      days,
      rows: open.map(({ key }) => {
        const own = worths.filter(({ stage }) => stage === key);
        const left = moves.filter(({ from }) => from === key);
        const forward = left.filter(
          ({ from, to }) =>
            position.get(to)! > position.get(from)! && pipeline.stages[position.get(to)!]?.state !== 'lost',
        );
        return {
          stage: key,
          count: sum(own),
          worth: worth(own),
          left: sum(left),
          goOn: left.length ? sum(forward) / sum(left) : null,
          cells: Object.fromEntries(
            AGE_BANDS.map((band) => [
              band,
              {
                count: sum(own.filter((row) => row.band === band)),
                deals: cards.filter((row) => row.stage === key && row.band === band).map(card),
              },
            ]),
          ) as PipelineGrid['rows'][number]['cells'],
        };
      }),
      closed: (['won', 'lost'] as const).map((state) => {
        const own = worths.filter((row) => row.state === state);
        return { state, count: sum(own), worth: worth(own) };
      }),
      worth: worth(worths.filter(({ state }) => state === 'open')),
    };
  }
}

type Shown = (values: Values) => string;

/** A lead is worth nothing yet, and is not closed at a time but stands in a stage since one. */
const COLUMNS: Record<'deal' | 'lead', { amount: string; currency: string; closedAt: string }> = {
  deal: { amount: 'r.value_amount', currency: 'r.value_currency', closedAt: 'r.closed_at' },
  lead: { amount: 'null::bigint', currency: 'null::text', closedAt: 'r.stage_since' },
};

/** The latest of each cell, each cell read by itself: its times are a range of the index of places. */
function cardsOf(tx: WorkspaceTx, record: 'deal' | 'lead', shown: Shown): Promise<CardRow[]> {
  const values = new Values([tx.workspaceId]);
  const { amount, currency } = COLUMNS[record];
  return tx.unnamed<CardRow>(
    `select c.* from ${CELLS} cross join lateral (
       select r.stage, b.band, r.id, r.number, r.name, ${amount} as value_amount, ${currency} as value_currency, r.owner, r.source, r.stage_since
       from ${record} r where ${shown(values)} and ${IN_CELL} order by r.stage_since desc limit ${CARDS}) c
     order by c.stage, c.band, c.stage_since desc, c.id`,
    values.all,
  );
}

/** What stands in each cell, and what closed in the last days. Each is added up by itself, so that only currencies are told apart. */
function worthsOf(tx: WorkspaceTx, record: 'deal' | 'lead', days: number, shown: Shown): Promise<WorthRow[]> {
  const values = new Values([tx.workspaceId]);
  const { amount, currency, closedAt } = COLUMNS[record];
  const sums = (which: string) =>
    `(select ${currency} as currency, count(*)::int as count, coalesce(sum(${amount}), 0) as amount
      from ${record} r where ${shown(values)} and ${which} group by 1) w`;
  const closed = `s.pipeline_key = r.pipeline and r.stage = s.key and ${closedAt} >= now() - make_interval(days => ${values.add(days, 'int')})`;
  return tx.unnamed<WorthRow>(
    `select s.key as stage, s.state, b.band, w.* from ${CELLS} cross join lateral ${sums(IN_CELL)}
     union all
     select s.key, s.state, 'longer', w.* from stage s cross join lateral ${sums(closed)} where s.workspace_id = $1 and s.state <> 'open'`,
    values.all,
  );
}

/** How many went from which stage to which. */
function movesOf(
  tx: WorkspaceTx,
  record: RecordKind,
  days: number,
  shown: Shown,
): Promise<{ from: string; to: string; count: number }[]> {
  const values = new Values([tx.workspaceId]);
  return tx.unnamed(
    `select m.from_stage as "from", m.to_stage as "to", count(*)::int as count from stage_move m
     join ${record} r on r.workspace_id = m.workspace_id and r.id = m.record_id
     where ${shown(values)} and m.workspace_id = $1 and m.pipeline = r.pipeline and m.from_stage is not null
       and m.at >= now() - make_interval(days => ${values.add(days, 'int')}) group by 1, 2`,
    values.all,
  );
}

function sum(rows: readonly { count: number }[]): number {
  return rows.reduce((total, { count }) => total + count, 0);
}

/** Adds up what rows are worth: by currency, and in the workspace's own by today's rates. */
function worthBy(rates: readonly ExchangeRate[], { destination, condition }: ListSetting) {
  return (rows: readonly WorthRow[]): Worth => {
    const sums = new Map<string, number>();
    for (const { currency, amount } of rows)
      if (currency) sums.set(currency, (sums.get(currency) ?? 0) + Number(amount));
    const byCurrency = [...sums]
      .map(([currency, amount]): Money => ({ currency, amount }))
      .sort((a, b) => b.amount - a.amount);
    const day = condition.now.slice(0, 10);
    return { byCurrency, ...totalIn(byCurrency, destination.defaultCurrency, day, rates) };
  };
}

function card(row: CardRow): DealCard {
  return {
    id: row.id,
    number: Number(row.number),
    name: row.name,
    value: row.value_amount === null ? null : { amount: Number(row.value_amount), currency: row.value_currency! },
    owner: row.owner,
    source: row.source,
    stageSince: row.stage_since.toISOString(),
  };
}
