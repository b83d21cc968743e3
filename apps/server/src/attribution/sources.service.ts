import { Inject, Injectable } from '@nestjs/common';
import {
  apportion,
  COUNTED,
  creditModel,
  creditTree,
  type Destination,
  type SourceLeaf,
  type SourceNode,
} from '@haycart/core';
import {
  JOURNEY_BASES,
  SOURCE_PARTS,
  type JourneyBasis,
  type SourcePart,
  type SourceRow,
  type SourcesReport,
} from '@haycart/api';
import { DestinationService } from '../destination/destination.service';
import type { WorkspaceTx } from '../platform/database/database';
import type { StepsWish } from './share-sql';
import { dealsSql, monthsSql, PEOPLE_SQL, SOURCES_SQL, SUBMISSIONS_SQL, WITHOUT_RATE_SQL } from './sources-sql';
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
interface Sums extends Record<string, unknown> {
  source: number | null;
}

/** How many months are told apart. */
const MONTHS = 12;
/** Where nothing is known: no touch led to it. */
const UNKNOWN: SourceOf = { channel: '', source: '', campaign: '', page: '' };

/** Where business came from in a period, by what somebody came by before. */
@Injectable()
export class SourcesService {
  constructor(@Inject(DestinationService) private readonly destinations: DestinationService) {}

  async report(tx: WorkspaceTx, wish: ReportWish): Promise<SourcesReport> {
    const destination = await this.destinations.load(tx);
    const ofDeals = dealParameters(tx, wish, destination);
    const period = ofDeals.slice(0, 3);
    const deals = await tx.unnamed<Sums & DealSums>(dealsSql(wish), ofDeals);
    const people = await tx.statement<Sums>('source_people', PEOPLE_SQL, period);
    const submissions = await tx.statement<Sums>('source_submissions', SUBMISSIONS_SQL, period);
    const months = await tx.unnamed<Sums & MonthSums>(monthsSql(wish), ofDeals.with(1, monthsBefore(wish.to, MONTHS)));
    const all = [...deals, ...people, ...submissions, ...months];
    const sources = await this.#sources(
      tx,
      all.map(({ source }) => source),
    );
    const leaves = [...deals, ...people, ...submissions].map((row) =>
      leafOf(row, pathOf(sources.get(row.source), wish.by)),
    );
    const whole = creditTree(leaves, { value: sumOf(deals, 'valueTotal'), won: sumOf(deals, 'wonTotal') });
    const rows = rowsOf(whole, wish.by);
    return {
      currency: destination.defaultCurrency,
      model: creditModel(wish.model)!.describe(wish),
      rows: rows.filter((row) => row[wish.by.at(-1)!] !== undefined),
      groups: rows.filter((row) => row[wish.by.at(-1)!] === undefined),
      total: whole.figures,
      months: byMonth(months, sources, wish.to),
      withoutRate: await tx.unnamed<{ currency: string; deals: number }>(WITHOUT_RATE_SQL, ofDeals.slice(0, -1)),
    };
  }

  async #sources(tx: WorkspaceTx, ids: readonly (number | null)[]): Promise<Map<number | null, SourceOf>> {
    const rows = await tx.statement<SourceOf & { id: number }>('sources_named', SOURCES_SQL, [
      tx.workspaceId,
      [...new Set(ids.filter((id) => id !== null))],
    ]);
    return new Map<number | null, SourceOf>([[null, UNKNOWN], ...rows.map((row) => [row.id, row] as const)]);
  }
}

interface DealSums {
  valueTotal: string;
  wonTotal: string;
}
interface MonthSums {
  month: string;
  won: number | null;
  total: string;
}

/** Those of every statement about deals. */
export function dealParameters(tx: WorkspaceTx, { from, to, basis }: ReportWish, destination: Destination): unknown[] {
  const { defaultCurrency: own, rates = [] } = destination;
  return [tx.workspaceId, from, to, own, ...rateParameters(rates, own), JOURNEY_BASES.indexOf(basis)];
}

function leafOf(row: Sums, path: string[]): SourceLeaf {
  const number = (key: string) => Number(row[key] ?? 0);
  return {
    path,
    added: { submissions: number('submissions') },
    counted: Object.fromEntries(COUNTED.flatMap((key) => (row[key] ? [[key, row[key] as number[]]] : []))),
    credited: { value: number('value'), won: number('won') },
  };
}

function pathOf(source: SourceOf = UNKNOWN, by: readonly SourcePart[]): string[] {
  return by.map((part) => source[part]);
}

/** Each node before those below it. */
function rowsOf({ children }: SourceNode, by: readonly SourcePart[], above: Partial<SourceOf> = {}): SourceRow[] {
  const part = SOURCE_PARTS[Object.keys(above).length];
  if (part === undefined || !by.includes(part)) return [];
  return children.flatMap((child) => {
    const own = { ...above, [part]: child.name };
    return [{ ...own, ...child.figures }, ...rowsOf(child, by, own)];
  });
}

function sumOf<Key extends string>(rows: readonly Record<Key, string>[], key: Key): number {
  return rows.reduce((sum, row) => sum + Number(row[key]), 0);
}

/** The first moment of the month that is the last of so many, which end with the one before a moment. */
function monthsBefore(end: Date, count: number): Date {
  const last = new Date(end.getTime() - 1);
  return new Date(Date.UTC(last.getUTCFullYear(), last.getUTCMonth() - count + 1, 1));
}

/** The channels of each month, rounded so that they add up to what was won in it; of a month without, none. */
function byMonth(
  rows: readonly (Sums & MonthSums)[],
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
    const parts = apportion(sumOf(own, 'total'), [...channels.values()]);
    return { month, channels: [...channels.keys()].map((channel, index) => ({ channel, won: parts[index]! })) };
  });
}
