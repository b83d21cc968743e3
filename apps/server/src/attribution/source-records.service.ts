import { Inject, Injectable } from '@nestjs/common';
import { SOURCE_PARTS, type SourceFigure, type SourcePart, type SourceRecord, type SourceRecords } from '@haycart/api';
import { DestinationService } from '../destination/destination.service';
import type { WorkspaceTx } from '../platform/database/database';
import { CostsService } from './costs.service';
import { CONTACTS_BEHIND_SQL, dealsBehindSql, LEADS_BEHIND_SQL, SUBMISSIONS_BEHIND_SQL } from './behind-sql';
import { dealParameters, type ReportWish } from './sources.service';

/** Which row a figure stands in; of the total nothing is said. */
export type SourcePath = Partial<Record<SourcePart, string>>;

type Row = Omit<SourceRecord, 'at'> & { at: Date; total: number };

/** The records behind a figure of the report. */
@Injectable()
export class SourceRecordsService {
  constructor(
    @Inject(CostsService) private readonly costs: CostsService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
  ) {}

  async behind(tx: WorkspaceTx, wish: ReportWish, figure: SourceFigure, path: SourcePath): Promise<SourceRecords> {
    if (figure === 'cost') return this.#costs(tx, wish, path);
    const rows = await this.#rows(tx, wish, figure, await sourcesOf(tx, path));
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

  async #rows(tx: WorkspaceTx, wish: ReportWish, figure: SourceFigure, sources: number[]): Promise<Row[]> {
    const inPeriod = [tx.workspaceId, wish.from, wish.to, sources];
    switch (figure) {
      case 'submissions':
        return tx.statement('submissions_behind', SUBMISSIONS_BEHIND_SQL, inPeriod);
      case 'contacts':
        return tx.statement('contacts_behind', CONTACTS_BEHIND_SQL, inPeriod);
      case 'qualified':
        return tx.statement('leads_behind', LEADS_BEHIND_SQL, inPeriod);
      default: {
        const { parameters, hasRates } = dealParameters(tx, wish, await this.destinations.load(tx));
        const which = figure === 'deals' || figure === 'value' ? 'made' : 'won';
        const sql = dealsBehindSql({ ...wish, hasRates }, which, parameters.length + 1);
        return tx.unnamed(sql, [...parameters, sources]);
      }
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
