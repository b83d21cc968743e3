import { Inject, Injectable } from '@nestjs/common';
import { AGE_BANDS, type AgeBand, type DealCard, type PipelineGrid } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { PipelinesService } from '../pipelines/pipelines.service';

/** How many cards of one cell are sent at first; the count tells of the others. */
const CARDS = 50;
const CLOSED_DAYS = 90;

interface CardRow {
  stage: string;
  band: AgeBand;
  place: string;
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
  status: 'open' | 'won' | 'lost';
  band: AgeBand;
  currency: string | null;
  count: number;
  amount: string;
}

/** Stuck is what the stage says, else a month; a stuck deal stands at the far right however short the others' bands are. */
const BAND = `case when d.stage_since < now() - make_interval(days => coalesce(s.stuck_after, 30)) then 'longer'
  when d.stage_since >= now() - interval '24 hours' then 'day'
  when d.stage_since >= now() - interval '7 days' then 'week'
  else 'month' end`;
const WITH_STAGE =
  'join stage s on s.workspace_id = d.workspace_id and s.pipeline_key = d.pipeline and s.key = d.stage';

/** The deals of a pipeline as a grid: a row for each open stage, a column for how long a deal has been in it. */
@Injectable()
export class DealGridService {
  constructor(@Inject(PipelinesService) private readonly pipelines: PipelinesService) {}

  async grid(tx: WorkspaceTx, idOrKey: string): Promise<PipelineGrid> {
    const pipeline = await this.pipelines.one(tx, idOrKey);
    const cards = await this.#cards(tx, pipeline.key);
    const worths = await this.#worths(tx, pipeline.key);
    const moves = await this.#moves(tx, pipeline.key);
    const position = new Map(pipeline.stages.map(({ key }, index) => [key, index]));
    const open = pipeline.stages.filter(({ state }) => state === 'open');
    return {
      pipeline,
      rows: open.map(({ key }) => {
        const own = worths.filter(({ stage, status }) => stage === key && status === 'open');
        const left = moves.filter(({ from }) => from === key);
        const forward = left.filter(
          ({ from, to }) =>
            position.get(to)! > position.get(from)! && pipeline.stages[position.get(to)!]?.state !== 'lost',
        );
        const count = (rows: readonly { count: number }[]) => rows.reduce((sum, row) => sum + row.count, 0);
        return {
          stage: key,
          count: count(own),
          worth: worthOf(own),
          goOn: left.length ? count(forward) / count(left) : null,
          cells: Object.fromEntries(
            AGE_BANDS.map((band) => [
              band,
              {
                count: count(own.filter((row) => row.band === band)),
                deals: cards.filter((row) => row.stage === key && row.band === band).map(card),
              },
            ]),
          ) as PipelineGrid['rows'][number]['cells'],
        };
      }),
      closed: (['won', 'lost'] as const).map((state) => {
        const own = worths.filter(({ status }) => status === state);
        return { state, count: own.reduce((sum, row) => sum + row.count, 0), worth: worthOf(own) };
      }),
    };
  }

  #cards(tx: WorkspaceTx, pipeline: string): Promise<CardRow[]> {
    return tx.statement<CardRow>(
      'grid_cards',
      `select * from (
         select d.stage, ${BAND} as band, row_number() over (partition by d.stage, ${BAND} order by d.stage_since desc, d.id) as place,
           d.id, d.number, d.name, d.value_amount, d.value_currency, p.name as owner, d.source, d.stage_since
         from deal d ${WITH_STAGE} left join person p on p.workspace_id = d.workspace_id and p.id = d.owner_id
         where d.workspace_id = $1 and d.pipeline = $2 and d.status = 'open') c
       where c.place <= ${CARDS} order by c.stage, c.band, c.place`,
      [tx.workspaceId, pipeline],
    );
  }

  #worths(tx: WorkspaceTx, pipeline: string): Promise<WorthRow[]> {
    return tx.statement<WorthRow>(
      'grid_worths',
      `select d.stage, d.status, ${BAND} as band, d.value_currency as currency, count(*)::int as count, coalesce(sum(d.value_amount), 0) as amount
       from deal d ${WITH_STAGE} where d.workspace_id = $1 and d.pipeline = $2 and (d.status = 'open' or d.closed_at >= now() - interval '${CLOSED_DAYS} days')
       group by 1, 2, 3, 4`,
      [tx.workspaceId, pipeline],
    );
  }

  /** How many deals went from which stage to which, read from what was changed. */
  #moves(tx: WorkspaceTx, pipeline: string): Promise<{ from: string; to: string; count: number }[]> {
    return tx.statement(
      'grid_moves',
      `select m.value -> 'fields' -> 'stage' ->> 'before' as "from", m.value -> 'fields' -> 'stage' ->> 'after' as "to", count(*)::int as count
       from record_change c cross join lateral jsonb_each(c.diff -> 'changed') m
       join deal d on d.workspace_id = c.workspace_id and d.id = c.record_id and d.pipeline = $2
       where c.workspace_id = $1 and c.record_kind = 'deal' and c.at >= now() - interval '${CLOSED_DAYS} days' and m.value -> 'fields' ? 'stage'
       group by 1, 2`,
      [tx.workspaceId, pipeline],
    );
  }
}

function worthOf(rows: readonly WorthRow[]): { currency: string; amount: number }[] {
  const sums = new Map<string, number>();
  for (const { currency, amount } of rows) if (currency) sums.set(currency, (sums.get(currency) ?? 0) + Number(amount));
  return [...sums].map(([currency, amount]) => ({ currency, amount })).sort((a, b) => b.amount - a.amount);
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
