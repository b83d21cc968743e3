import { Inject, Injectable } from '@nestjs/common';
import { SOURCE_PARTS, type SourceFigure, type SourcePart, type SourceRecord, type SourceRecords } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import type { ListSetting } from '../records/lists/record-lists.service';
import { dealsBehindSql, peopleBehindSql, submissionsBehindSql } from './behind-sql';
import { CostsService } from './costs.service';
import { figuresOf } from './figures-of';
import type { ReportWish } from './report-wish';
import { aboutDeals, aboutPeople, aboutSubmissions, type Statement } from './statement';

/** Which row a figure stands in; of the total nothing is said. */
export type SourcePath = Partial<Record<SourcePart | 'splitValue', string>>;

type Row = Omit<SourceRecord, 'at'> & { at: Date; total: number };

/** The records behind a figure of the report. */
@Injectable()
export class SourceRecordsService {
  constructor(@Inject(CostsService) private readonly costs: CostsService) {}

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
    const read = <Wish>(
      { wish: sums, values }: Statement<Wish>,
      sql: (sums: Wish, sources: string, value: string | null) => string,
    ) => {
      const sources = values.add(ids, 'int[]');
      const value = asked.split ? values.add(path.splitValue, 'text') : null;
      return tx.unnamed<Row & Record<string, unknown>>(sql(sums, sources, value), values.all);
    };
    switch (figure) {
      case 'submissions':
        return read(aboutSubmissions(tx, asked, setting), submissionsBehindSql);
      case 'contacts':
      case 'qualified':
        return read(aboutPeople(tx, asked, setting), (sums, ...rest) =>
          peopleBehindSql(sums, figure === 'contacts' ? 'contact' : 'lead', ...rest),
        );
      default:
        return read(aboutDeals(tx, asked, setting), (sums, ...rest) =>
          dealsBehindSql(sums, figure === 'deals' || figure === 'value' ? 'made' : 'won', ...rest),
        );
    }
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
