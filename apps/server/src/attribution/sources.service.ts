import { Inject, Injectable } from '@nestjs/common';
import { creditedMonths, creditedSums, creditModel, creditTree, peopleSums } from '@haycart/core';
import type { SourcesReport } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import type { ListSetting } from '../records/lists/record-lists.service';
import { creditWish, seconds } from './columns/credit-wish';
import { JourneyColumnsService } from './columns/journey-columns.service';
import { partsAsked } from './columns/records-asked';
import { CostsService } from './costs.service';
import { figuresOf } from './figures-of';
import { splitWords } from './narrowing/split-words';
import { leavesOf, placedLeaf, rowsOf, type RowPart, type SourceOf, type Sums } from './report-tree';
import type { ReportWish } from './report-wish';
import { CAMPAIGNS_SQL, FORM_VIEWS_SQL, SOURCES_SQL, submissionsSql } from './sources-sql';
import { aboutSubmissions } from './statement';
import { byMonth, firstOfMonths } from './won-months';

/** More changes than these are not counted. */
const MOST_WAITING = 1_000;

type PlacedViews = Pick<SourceOf, 'channel' | 'source' | 'campaign'> & { views: number } & Record<string, unknown>;

/** Where business came from in a period, by what somebody came by before. */
@Injectable()
export class SourcesService {
  constructor(
    @Inject(JourneyColumnsService) private readonly columns: JourneyColumnsService,
    @Inject(CostsService) private readonly costs: CostsService,
  ) {}

  async report(tx: WorkspaceTx, wish: ReportWish, setting: ListSetting): Promise<SourcesReport> {
    // Sums over all records are made in memory, and by statements that take longer to compile than to run.
    await tx.statement('room_for_sums', `select set_config('work_mem', '64MB', true), set_config('jit', 'off', true)`);
    const figures = figuresOf(wish);
    const credited = await this.#credited(tx, wish, setting);
    // The database counts submissions while the server adds up journeys.
    const [submissions, { deals, people, months }] = await Promise.all([
      figures.includes('submissions') ? this.#submissions(tx, wish, setting) : [],
      credited(),
    ]);
    const others = figures.includes('submissions') ? [...people, ...submissions] : [];
    const sources = await this.#sources(tx, [...deals.rows, ...others, ...months.rows]);
    const { costs, without } = figures.includes('cost')
      ? await this.costs.costs(tx, wish.from, wish.to)
      : { costs: [], without: [] };
    const views = figures.includes('views')
      ? await tx.statement<PlacedViews>('form_views', FORM_VIEWS_SQL, [tx.workspaceId, wish.from, wish.to])
      : [];
    const by: RowPart[] = wish.split ? ['splitValue', ...wish.by] : [...wish.by];
    const leaves = [
      ...leavesOf([...deals.rows, ...others], sources, by),
      ...costs.map((cost) => placedLeaf(cost.place, { cost: cost.amount }, by)),
      ...views.map(({ views: count, ...place }) => placedLeaf(place, { views: count }, by)),
    ];
    const whole = creditTree(leaves, deals.totals);
    const told = rowsOf(whole, by);
    const deepest = by.at(-1)!;
    const channelOf = (source: number | null) => sources.get(source)?.channel ?? '';
    return {
      currency: setting.destination.defaultCurrency,
      model: creditModel(wish.model)!.describe(wish),
      rows: told.filter((row) => row[deepest] !== undefined),
      groups: told.filter((row) => row[deepest] === undefined),
      total: whole.figures,
      figures,
      split: wish.split && (await splitWords(tx, wish.split, setting.destination)),
      months: byMonth(months, channelOf, wish.to),
      withoutRate: [...deals.withoutRate].map(([currency, count]) => ({ currency, deals: count })),
      costsWithoutRate: without,
      waiting: await this.#waiting(tx),
      campaigns: await tx.statement('campaigns_named', CAMPAIGNS_SQL, [tx.workspaceId]),
    };
  }

  /** Returns what adds up what came of journeys: all of it at one go, so that it is of one moment. */
  async #credited(tx: WorkspaceTx, wish: ReportWish, setting: ListSetting) {
    const asked = await creditWish(tx, wish, setting);
    const { names, partOf } = await partsAsked(tx, wish.split);
    const columns = await this.columns.current(tx);
    const named = <Row extends { part: number }>(row: Row) =>
      wish.split ? { ...row, splitValue: names[row.part]! } : row;
    return () => {
      const { rows, ...deals } = creditedSums(columns, asked, partOf);
      return {
        deals: { ...deals, rows: rows.map(named) },
        people: peopleSums(columns, asked, partOf).map(named),
        months: creditedMonths(columns, { ...asked, from: seconds(firstOfMonths(wish.to)) }),
      };
    };
  }

  #submissions(tx: WorkspaceTx, wish: ReportWish, setting: ListSetting): Promise<Sums[]> {
    const about = aboutSubmissions(tx, wish, setting);
    return tx.unnamed<Sums>(submissionsSql(about.wish), about.values.all);
  }

  async #waiting(tx: WorkspaceTx): Promise<number> {
    const [row] = await tx.statement<{ waiting: number }>(
      'journeys_waiting',
      `select count(*)::int as waiting from (select 1 from journey_due where workspace_id = $1 limit ${MOST_WAITING}) due`,
      [tx.workspaceId],
    );
    return row!.waiting;
  }

  /** What each source is, by its id. */
  async #sources(tx: WorkspaceTx, rows: readonly { source: number | null }[]): Promise<Map<number | null, SourceOf>> {
    const ids = new Set(rows.map(({ source }) => source));
    ids.delete(null);
    const named = await tx.statement<SourceOf & { id: number }>('sources_named', SOURCES_SQL, [
      tx.workspaceId,
      [...ids],
    ]);
    return new Map<number | null, SourceOf>(named.map((row) => [row.id, row]));
  }
}
