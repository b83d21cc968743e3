import { Inject, Injectable } from '@nestjs/common';
import { SOURCE_PARTS, type SourceFigure, type SourcePart, type SourceRecord, type SourceRecords } from '@haycart/api';
import { creditedRecords } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import type { ListSetting } from '../records/lists/record-lists.service';
import { DEALS_BEHIND_SQL, MOST_BEHIND, peopleBehindSql, submissionsBehindSql } from './behind-sql';
import { creditWish } from './columns/credit-wish';
import { JourneyColumnsService } from './columns/journey-columns.service';
import { partsAsked } from './columns/records-asked';
import { CostsService } from './costs.service';
import { figuresOf } from './figures-of';
import type { ReportWish } from './report-wish';
import { aboutPeople, aboutSubmissions } from './statement';

/** Which row a figure stands in; of the total nothing is said. */
export type SourcePath = Partial<Record<SourcePart | 'splitValue', string>>;

type Row = Omit<SourceRecord, 'at'> & { at: Date; total: number };
type DealRow = Omit<SourceRecord, 'at'> & { nr: number; madeAt: Date; wonAt: Date | null };

/** The records behind a figure of the report. */
@Injectable()
export class SourceRecordsService {
  constructor(
    @Inject(JourneyColumnsService) private readonly columns: JourneyColumnsService,
    @Inject(CostsService) private readonly costs: CostsService,
  ) {}

  /** None for a figure that such a report does not tell. */
  async behind(
    tx: WorkspaceTx,
    wish: ReportWish,
    { figure, path }: { figure: SourceFigure; path: SourcePath },
    setting: ListSetting,
  ): Promise<SourceRecords> {
    if (!figuresOf(wish).includes(figure)) return { total: 0, items: [] };
    if (figure === 'cost') return this.#costs(tx, wish, path);
    const rows = await this.#rows(tx, wish, figure, path, setting);
    return {
      total: rows[0]?.total ?? 0,
      items: rows.map(({ total: _, at, ...row }) => ({ ...row, at: at.toISOString() })),
    };
  }

  /** Campaigns with their costs, which add up to the figure. */
  async #costs(tx: WorkspaceTx, { from, to }: ReportWish, path: SourcePath): Promise<SourceRecords> {
    const { costs } = await this.costs.costs(tx, from, to);
    const items = costs
      .filter(({ place }) => isAt({ ...place, campaign: place.campaign ?? '', page: '' }, path))
      .sort((one, other) => other.amount - one.amount)
      .map(({ key, name, amount, until }) => ({
        kind: 'campaign' as const,
        id: key,
        name,
        at: `${until}T00:00:00.000Z`,
        worth: amount,
      }));
    return { total: items.length, items };
  }

  async #rows(
    tx: WorkspaceTx,
    wish: ReportWish,
    figure: SourceFigure,
    path: SourcePath,
    setting: ListSetting,
  ): Promise<Row[]> {
    const ids = await sourcesOf(tx, path);
    const asked = { ...wish, split: path.splitValue === undefined ? null : wish.split };
    switch (figure) {
      case 'submissions':
      case 'contacts':
      case 'qualified': {
        const { wish: about, values } = (figure === 'submissions' ? aboutSubmissions : aboutPeople)(tx, asked, setting);
        const sources = values.add(ids, 'int[]');
        const value = asked.split ? values.add(path.splitValue, 'text') : null;
        const sql =
          figure === 'submissions'
            ? submissionsBehindSql(about, sources, value)
            : peopleBehindSql(about, figure === 'contacts' ? 'contact' : 'lead', sources, value);
        return tx.unnamed<Row & Record<string, unknown>>(sql, values.all);
      }
      default:
        return this.#deals(tx, asked, figure === 'deals' || figure === 'value' ? 'made' : 'won', {
          sources: new Set(ids),
          value: path.splitValue,
          setting,
        });
    }
  }

  /** Deals, those credited with most first. */
  async #deals(
    tx: WorkspaceTx,
    wish: ReportWish,
    figure: 'made' | 'won',
    { sources, value, setting }: { sources: ReadonlySet<number>; value: string | undefined; setting: ListSetting },
  ): Promise<Row[]> {
    const asked = await creditWish(tx, wish, setting);
    const { names, partOf } = await partsAsked(tx, wish.split);
    const columns = await this.columns.current(tx);
    const behind = {
      figure,
      sources,
      part: partOf && { of: partOf, is: names.indexOf(value ?? '') },
      most: MOST_BEHIND,
    };
    const { total, records } = creditedRecords(columns, asked, behind);
    const rows = await tx.statement<DealRow>('deals_behind', DEALS_BEHIND_SQL, [
      tx.workspaceId,
      records.map(({ nr }) => nr),
    ]);
    const credit = new Map(records.map((record) => [record.nr, record]));
    return rows.map(({ nr, madeAt, wonAt, ...row }) => {
      const { worth, credited } = credit.get(nr)!;
      const at = figure === 'won' ? (wonAt ?? madeAt) : madeAt;
      return { ...row, at, total, ...(worth !== null && credited !== null && { worth, credited }) };
    });
  }
}

function isAt(place: Readonly<Record<SourcePart, string>>, path: SourcePath): boolean {
  return SOURCE_PARTS.every((part) => path[part] === undefined || path[part] === place[part]);
}

/** The ids of the sources of a row. Id 0 is among them where records without any touch are meant too. */
async function sourcesOf(tx: WorkspaceTx, path: SourcePath): Promise<number[]> {
  const asked = SOURCE_PARTS.filter((part) => path[part] !== undefined);
  const rows = await tx.unnamed<{ id: number }>(
    `select id from touch_source where workspace_id = $1 ${asked.map((part, index) => `and coalesce(${part}, '') = $${index + 2}`).join(' ')}`,
    [tx.workspaceId, ...asked.map((part) => path[part])],
  );
  const ids = rows.map(({ id }) => id);
  return asked.every((part) => path[part] === '') ? [...ids, 0] : ids;
}
