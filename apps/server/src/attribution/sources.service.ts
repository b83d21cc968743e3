import { Inject, Injectable } from '@nestjs/common';
import { creditModel, creditTree, type Figure } from '@haycart/core';
import type { SourcesReport } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import type { ListSetting } from '../records/lists/record-lists.service';
import { CostsService } from './costs.service';
import { figuresOf } from './figures-of';
import { splitWords } from './narrowing/split-words';
import { LAST, leafOf, placedLeaf, rowsOf, type RowPart, type SourceOf, type Sums } from './report-tree';
import type { ReportWish } from './report-wish';
import {
  CAMPAIGNS_SQL,
  dealsInAllSql,
  dealsSql,
  FORM_VIEWS_SQL,
  monthsInAllSql,
  monthsSql,
  peopleSql,
  SOURCES_SQL,
  submissionsSql,
} from './sources-sql';
import { aboutDeals, aboutPeople, aboutSubmissions } from './statement';
import { byMonth, firstOfMonths } from './won-months';

/** What is known of deals in all, apart by level and source or by currency. */
interface DealCounts {
  splitValue?: string;
  deals: number;
  wonDeals: number;
  wonDays: number;
  /** What is shared out, at last touches. */
  ofMade: number;
  ofWon: number;
  /** Deals whose amount no rate converts, at last touches. */
  without: number;
}
type DealSums = Sums & DealCounts & { value: number; won: number };
interface MonthSums extends Sums {
  month: string;
  won: number | null;
  ofWon: number;
}
type InAll = DealCounts & { currency: string | null } & Record<string, unknown>;

type PlacedViews = Pick<SourceOf, 'channel' | 'source' | 'campaign'> & { views: number } & Record<string, unknown>;

/** Where business came from in a period, by what somebody came by before. */
@Injectable()
export class SourcesService {
  constructor(@Inject(CostsService) private readonly costs: CostsService) {}

  async report(tx: WorkspaceTx, wish: ReportWish, setting: ListSetting): Promise<SourcesReport> {
    // Sums over all records are made in memory, and by statements that take longer to compile than to run.
    await tx.statement('room_for_sums', `select set_config('work_mem', '64MB', true), set_config('jit', 'off', true)`);
    const figures = figuresOf(wish);
    const { deals, inAll } = await this.#deals(tx, wish, setting);
    const others = await this.#others(tx, wish, setting, figures);
    const months = await this.#months(tx, wish, setting);
    const sources = await this.#sources(tx, [...deals, ...others, ...months]);
    const { costs, without } = figures.includes('cost')
      ? await this.costs.costs(tx, wish.from, wish.to)
      : { costs: [], without: [] };
    const views = figures.includes('views')
      ? await tx.statement<PlacedViews>('form_views', FORM_VIEWS_SQL, [tx.workspaceId, wish.from, wish.to])
      : [];
    const by: RowPart[] = wish.split ? ['splitValue', ...wish.by] : [...wish.by];
    const leaves = [
      ...[...deals, ...others].map((row) => leafOf(row, sources.get(row.source), by)),
      ...costs.map((cost) => placedLeaf(cost.place, { cost: cost.amount }, by)),
      ...views.map(({ views: count, ...place }) => placedLeaf(place, { views: count }, by)),
    ];
    const whole = creditTree(leaves, { value: sumOf(deals, 'ofMade'), won: sumOf(deals, 'ofWon') });
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
      months: byMonth(
        months.map((row) => ({ ...row, channel: channelOf(row.source) })),
        wish.to,
      ),
      withoutRate: withoutRate(inAll),
      costsWithoutRate: without,
      campaigns: await tx.statement('campaigns_named', CAMPAIGNS_SQL, [tx.workspaceId]),
    };
  }

  async #deals(
    tx: WorkspaceTx,
    wish: ReportWish,
    setting: ListSetting,
  ): Promise<{ deals: DealSums[]; inAll: InAll[] }> {
    const about = aboutDeals(tx, wish, setting);
    const deals = await tx.unnamed<DealSums>(dealsSql(about.wish), about.values.all);
    // Two things need the sums of all deals: deals whose touches are all outside the window, and currencies without a rate.
    const asksForAll = wish.window !== null || deals.some(({ without }) => without > 0);
    const inAll = asksForAll ? await tx.unnamed<InAll>(dealsInAllSql(about.wish), about.values.all) : [];
    if (wish.window !== null) deals.push(...unknownDeals(deals, inAll));
    return { deals, inAll };
  }

  /** What is no deal: people, and submissions. */
  async #others(tx: WorkspaceTx, wish: ReportWish, setting: ListSetting, figures: readonly Figure[]): Promise<Sums[]> {
    if (!figures.includes('submissions')) return [];
    const people = aboutPeople(tx, wish, setting);
    const submissions = aboutSubmissions(tx, wish, setting);
    return [
      ...(await tx.unnamed<Sums>(peopleSql(people.wish), people.values.all)),
      ...(await tx.unnamed<Sums>(submissionsSql(submissions.wish), submissions.values.all)),
    ];
  }

  /** What was won by month and source. With a window, deals without a touch inside it count as unknown. */
  async #months(tx: WorkspaceTx, wish: ReportWish, setting: ListSetting): Promise<MonthSums[]> {
    const about = aboutDeals(tx, { ...wish, from: firstOfMonths(wish.to) }, setting, { split: null });
    const months = await tx.unnamed<MonthSums>(monthsSql(about.wish), about.values.all);
    if (wish.window === null) return months;
    const inAll = await tx.unnamed<MonthSums>(monthsInAllSql(about.wish), about.values.all);
    const unknown = inAll.map(({ month, ofWon }): MonthSums => {
      const led = sumOf(
        months.filter((row) => row.month === month),
        'ofWon',
      );
      return { source: null, month, won: ofWon - led, ofWon: ofWon - led };
    });
    return [...months, ...unknown];
  }

  /** What each source is, by its id. */
  async #sources(tx: WorkspaceTx, rows: readonly Sums[]): Promise<Map<number | null, SourceOf>> {
    const ids = new Set(rows.map(({ source }) => source));
    ids.delete(null);
    const named = await tx.statement<SourceOf & { id: number }>('sources_named', SOURCES_SQL, [
      tx.workspaceId,
      [...ids],
    ]);
    return new Map<number | null, SourceOf>(named.map((row) => [row.id, row]));
  }
}

/** Deals whose touches are all outside the window: the sums of all deals, less those of deals with a touch inside it. */
function unknownDeals(deals: readonly DealSums[], inAll: readonly InAll[]): DealSums[] {
  const last = deals.filter(({ level }) => level === LAST);
  return [...new Set(inAll.map(({ splitValue }) => splitValue))].map((splitValue) => {
    const isMeant = (row: DealCounts) => row.splitValue === splitValue;
    const left = (key: Exclude<keyof DealCounts, 'splitValue'>) =>
      sumOf(inAll.filter(isMeant), key) - sumOf(last.filter(isMeant), key);
    const [ofMade, ofWon] = [left('ofMade'), left('ofWon')];
    const counts = { deals: left('deals'), wonDeals: left('wonDeals'), wonDays: left('wonDays'), without: 0 };
    const split = splitValue === undefined ? {} : { splitValue };
    return { source: null, level: LAST, ...split, ...counts, ofMade, ofWon, value: ofMade, won: ofWon };
  });
}

function withoutRate(inAll: readonly InAll[]): SourcesReport['withoutRate'] {
  const deals = new Map<string, number>();
  for (const { currency, without } of inAll)
    if (currency && without) deals.set(currency, (deals.get(currency) ?? 0) + without);
  return [...deals].map(([currency, count]) => ({ currency, deals: count }));
}

function sumOf<Key extends string>(rows: readonly Readonly<Record<Key, number>>[], key: Key): number {
  return rows.reduce((sum, row) => sum + Number(row[key]), 0);
}
