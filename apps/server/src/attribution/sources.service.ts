import { Inject, Injectable } from '@nestjs/common';
import {
  apportion,
  ADDED,
  COUNTED,
  CREDITED,
  creditModel,
  creditTree,
  type Destination,
  type SourceLeaf,
  type SourceNode,
} from '@haycart/core';
import { JOURNEY_BASES, type JourneyBasis, type SourcePart, type SourceRow, type SourcesReport } from '@haycart/api';
import { DestinationService } from '../destination/destination.service';
import type { WorkspaceTx } from '../platform/database/database';
import { CostsService, type PlacedCost } from './costs.service';
import type { StepsWish } from './share-sql';
import {
  CAMPAIGNS_SQL,
  dealsInAllSql,
  dealsSql,
  monthsInAllSql,
  monthsSql,
  PEOPLE_SQL,
  SOURCES_SQL,
  SUBMISSIONS_SQL,
  type SumsWish,
} from './sources-sql';
import { rateParameters } from './worth-sql';

/** What a report is asked for. */
export interface ReportWish extends StepsWish {
  /** From, and until before. */
  from: Date;
  to: Date;
  basis: JourneyBasis;
  /** What rows go by, from the outside in; the first so many of all parts. */
  by: readonly SourcePart[];
}

type SourceOf = Record<SourcePart, string>;
/** Sums of records by source and level (see `journeyStep`). The source is null for records without any touch. */
interface Sums extends Record<string, unknown> {
  source: number | null;
  level?: number;
}
interface DealSums extends Sums {
  deals: number;
  wonDeals: number;
  value: number;
  won: number;
  /** What is shared out, at last touches. */
  ofMade: number;
  ofWon: number;
  /** Deals whose amount no rate converts, at last touches. */
  without: number;
}
interface MonthSums extends Sums {
  month: string;
  won: number | null;
  ofWon: number;
}
type InAll = Record<'deals' | 'wonDeals' | 'ofMade' | 'ofWon' | 'without', number> & { currency: string | null };

/** How many months are told apart. */
const MONTHS = 12;
const FIGURES = [...ADDED, ...COUNTED, ...CREDITED];
/** The level of the last touch of all: each journey has one. */
const LAST = 5;
/** The path of records without any touch. */
const UNKNOWN: SourceOf = { channel: '', source: '', campaign: '', page: '' };

/** Where business came from in a period, by what somebody came by before. */
@Injectable()
export class SourcesService {
  constructor(
    @Inject(CostsService) private readonly costs: CostsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  async report(tx: WorkspaceTx, wish: ReportWish): Promise<SourcesReport> {
    const destination = await this.destinations.load(tx);
    // Sums over all records are made in memory, and by statements that take longer to compile than to run.
    await tx.statement('room_for_sums', `select set_config('work_mem', '64MB', true), set_config('jit', 'off', true)`);
    const { parameters, hasRates } = dealParameters(tx, wish, destination);
    const sums = { ...wish, hasRates };
    const period = parameters.slice(0, 3);
    const deals = await tx.unnamed<DealSums>(dealsSql(sums), parameters);
    // Two things need the sums of all deals: deals whose touches are all outside the window, and currencies without a rate.
    const asksForAll = wish.window !== null || deals.some(({ without }) => without > 0);
    const inAll = asksForAll ? await tx.unnamed<InAll>(dealsInAllSql(sums), parameters) : [];
    if (wish.window !== null) deals.push(unknownDeals(deals, inAll));
    const people = await tx.statement<Sums>('source_people', PEOPLE_SQL, period);
    const submissions = await tx.statement<Sums>('source_submissions', SUBMISSIONS_SQL, period);
    const months = await this.#months(tx, sums, parameters.with(1, monthsBefore(wish.to, MONTHS)));
    const rows = [...deals, ...people, ...submissions];
    const sources = await this.#sources(tx, [...rows, ...months]);
    const { costs, without } = await this.costs.costs(tx, wish.from, wish.to);
    const leaves = [
      ...rows.map((row) => leafOf(row, pathOf(sources.get(row.source), wish.by))),
      ...costs.map((cost) => costLeaf(cost, wish.by)),
    ];
    const whole = creditTree(leaves, { value: sumOf(deals, 'ofMade'), won: sumOf(deals, 'ofWon') });
    const told = rowsOf(whole, wish.by).filter(isSomething);
    const deepest = wish.by.at(-1)!;
    return {
      currency: destination.defaultCurrency,
      model: creditModel(wish.model)!.describe(wish),
      rows: told.filter((row) => row[deepest] !== undefined),
      groups: told.filter((row) => row[deepest] === undefined),
      total: whole.figures,
      months: byMonth(months, sources, wish.to),
      withoutRate: inAll.flatMap(({ currency, without }) =>
        without && currency ? [{ currency, deals: without }] : [],
      ),
      costsWithoutRate: without,
      campaigns: await tx.statement('campaigns_named', CAMPAIGNS_SQL, [tx.workspaceId]),
    };
  }

  /** What was won by month and source. With a window, deals without a touch inside it count as unknown. */
  async #months(tx: WorkspaceTx, wish: SumsWish, parameters: unknown[]): Promise<MonthSums[]> {
    const months = await tx.unnamed<MonthSums>(monthsSql(wish), parameters);
    if (wish.window === null) return months;
    const inAll = await tx.unnamed<MonthSums>(monthsInAllSql(wish), parameters);
    const unknown = inAll.map(({ month, ofWon }): MonthSums => {
      const led = sumOf(
        months.filter((row) => row.month === month),
        'ofWon',
      );
      return { source: null, month, won: ofWon - led, ofWon: ofWon - led };
    });
    return [...months, ...unknown];
  }

  async #sources(tx: WorkspaceTx, rows: readonly Sums[]): Promise<Map<number | null, SourceOf>> {
    const ids = new Set(rows.map(({ source }) => source));
    ids.delete(null);
    const named = await tx.statement<SourceOf & { id: number }>('sources_named', SOURCES_SQL, [
      tx.workspaceId,
      [...ids],
    ]);
    return new Map<number | null, SourceOf>([[null, UNKNOWN], ...named.map((row) => [row.id, row] as const)]);
  }
}

/** The parameters of every statement about deals, and whether rates are among them. */
export function dealParameters(
  tx: WorkspaceTx,
  { from, to, basis }: ReportWish,
  { defaultCurrency: own, rates = [] }: Destination,
): { parameters: unknown[]; hasRates: boolean } {
  const parameters = [tx.workspaceId, from, to, own, JOURNEY_BASES.indexOf(basis), ...rateParameters(rates, own)];
  return { parameters, hasRates: rates.length > 0 };
}

/** Deals whose touches are all outside the window: the sums of all deals, less those of deals with a touch inside it. */
function unknownDeals(deals: readonly DealSums[], inAll: readonly InAll[]): DealSums {
  const last = deals.filter(({ level }) => level === LAST);
  const left = (key: 'deals' | 'wonDeals' | 'ofMade' | 'ofWon') => sumOf(inAll, key) - sumOf(last, key);
  const [ofMade, ofWon] = [left('ofMade'), left('ofWon')];
  const counts = { deals: left('deals'), wonDeals: left('wonDeals'), without: 0 };
  return { source: null, level: LAST, ...counts, ofMade, ofWon, value: ofMade, won: ofWon };
}

function leafOf(row: Sums, path: string[]): SourceLeaf {
  const number = (key: string) => Number(row[key] ?? 0);
  // A record that counts at a level counts at all that are less far apart.
  const depths = (count: number) =>
    Array.from({ length: LAST }, (_, depth) => ((row.level ?? 0) >= LAST - depth ? count : 0));
  return {
    path,
    added: { submissions: number('submissions') },
    counted: Object.fromEntries(COUNTED.flatMap((key) => (row[key] ? [[key, depths(number(key))]] : []))),
    credited: { value: number('value'), won: number('won') },
  };
}

function costLeaf({ place: { channel, source, campaign }, amount }: PlacedCost, by: readonly SourcePart[]): SourceLeaf {
  const path = pathOf({ channel, source, campaign: campaign ?? '', page: '' }, by);
  return { path, added: { cost: amount }, counted: {}, credited: {} };
}

function pathOf(source: SourceOf = UNKNOWN, by: readonly SourcePart[]): string[] {
  return by.map((part) => source[part]);
}

/** Each node before those below it. */
function rowsOf({ children }: SourceNode, by: readonly SourcePart[], above: Partial<SourceOf> = {}): SourceRow[] {
  const part = by[Object.keys(above).length];
  if (part === undefined) return [];
  return children.flatMap((child) => {
    const own = { ...above, [part]: child.name };
    return [{ ...own, ...child.figures }, ...rowsOf(child, by, own)];
  });
}

/** Whether anything stands in a row. */
function isSomething(row: SourceRow): boolean {
  return FIGURES.some((figure) => row[figure] !== 0);
}

function sumOf<Key extends string>(rows: readonly Readonly<Record<Key, number>>[], key: Key): number {
  return rows.reduce((sum, row) => sum + Number(row[key]), 0);
}

/** The first moment of the month that is the last of so many, which end with the one before a moment. */
function monthsBefore(end: Date, count: number): Date {
  const last = new Date(end.getTime() - 1);
  return new Date(Date.UTC(last.getUTCFullYear(), last.getUTCMonth() - count + 1, 1));
}

/** The channels of each month, rounded so that they add up to what was won in it; of a month without, none. */
function byMonth(
  rows: readonly MonthSums[],
  sources: ReadonlyMap<number | null, SourceOf>,
  end: Date,
): SourcesReport['months'] {
  return Array.from({ length: MONTHS }, (_, ago) => monthsBefore(end, MONTHS - ago)).map((first) => {
    const month = first.toISOString().slice(0, 7);
    const own = rows.filter((row) => row.month === month);
    const channels = new Map<string, number>();
    for (const { source, won } of own) {
      const { channel } = sources.get(source) ?? UNKNOWN;
      channels.set(channel, (channels.get(channel) ?? 0) + Number(won ?? 0));
    }
    const brought = [...channels].filter(([, won]) => won > 0);
    const parts = apportion(
      sumOf(own, 'ofWon'),
      brought.map(([, won]) => won),
    );
    return { month, channels: brought.map(([channel], index) => ({ channel, won: parts[index]! })) };
  });
}
