import { Inject, Injectable } from '@nestjs/common';
import { converted, sourceOfWay, type Destination, type Source } from '@haycart/core';
import { DestinationService } from '../destination/destination.service';
import type { WorkspaceTx } from '../platform/database/database';

/** What a campaign cost in a period at one source, in the workspace's currency. */
export interface PlacedCost {
  key: string;
  name: string;
  /** The source that its links have by the channel rules. */
  place: Source;
  amount: number;
  /** Its last day with a cost in the period (ISO 8601). */
  until: string;
}

interface Row extends Record<string, unknown> {
  key: string;
  name: string;
  code: string;
  source: string;
  medium: string;
  currency: string;
  /** Null for the workspace's own currency. */
  day: string | null;
  until: string;
  amount: number;
}

/** Campaign costs, placed under the source that the campaign's links have. */
@Injectable()
export class CostsService {
  constructor(@Inject(DestinationService) private readonly destinations: DestinationService) {}

  /** The costs of a period, and the currencies that have no exchange rate on their day. */
  async costs(tx: WorkspaceTx, from: Date, to: Date): Promise<{ costs: PlacedCost[]; without: string[] }> {
    const destination = await this.destinations.load(tx);
    const rows = await tx.statement<Row>('costs_of_period', COSTS_SQL, [
      tx.workspaceId,
      from,
      to,
      destination.defaultCurrency,
    ]);
    const without = new Set<string>();
    const costs = new Map<string, PlacedCost>();
    for (const row of rows) {
      const amount = inOwn(row, destination);
      if (amount === null) {
        without.add(row.currency);
        continue;
      }
      const place = placeOf(row, destination);
      const at = JSON.stringify([row.key, place]);
      const known = costs.get(at) ?? { key: row.key, name: row.name, place, amount: 0, until: row.until };
      const until = known.until > row.until ? known.until : row.until;
      costs.set(at, { ...known, amount: known.amount + amount, until });
    }
    return { costs: [...costs.values()], without: [...without].sort() };
  }
}

const COSTS_SQL = `select c.key, c.name, c.code, coalesce(nullif(k.source, ''), c.source) as source, coalesce(nullif(k.medium, ''), c.medium) as medium,
    k.currency, case when k.currency <> $4 then k.day::text end as day, max(k.day)::text as until, sum(k.amount)::float8 as amount
  from campaign_cost k join campaign c on c.workspace_id = k.workspace_id and c.key = k.campaign_key
  where k.workspace_id = $1 and k.day >= ($2::timestamptz at time zone 'utc')::date and k.day < ($3::timestamptz at time zone 'utc')::date
  group by 1, 2, 3, 4, 5, 6, 7`;

function inOwn({ amount, currency, day }: Row, { defaultCurrency, rates = [] }: Destination): number | null {
  return day === null ? amount : (converted({ amount, currency }, defaultCurrency, day, rates)?.amount ?? null);
}

/** The source of a campaign's links by the channel rules. */
function placeOf({ code, source, medium }: Row, destination: Destination): Source {
  const way = {
    utm_campaign: code,
    ...(source ? { utm_source: source } : {}),
    ...(medium ? { utm_medium: medium } : {}),
  };
  return sourceOfWay(way, destination);
}
