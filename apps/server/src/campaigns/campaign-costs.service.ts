import { Inject, Injectable } from '@nestjs/common';
import type { CampaignCost, CostsKept } from '@haycart/api';
import { asRulesWant, counted, daysBetween, MOST_COST_DAYS, spreadCost, type CostRow } from '@haycart/core';
import { and, asc, between, eq } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { CampaignsService } from './campaigns.service';
import { LinkRulesService } from './link-rules.service';
import { campaignCost } from './tables';

/** A cost of a day or a period, of a campaign by its name or code. */
export type CostWish = Omit<CostRow, 'row'>;
/** What happens where a day has a cost already. */
export type WhereThereIsOne = 'refuse' | 'replace' | 'add';

type Row = typeof campaignCost.$inferInsert;

/** The most days of costs in one request. */
const MOST_ROWS = 100_000;
/** Rows written by one statement. */
const AT_ONCE = 5_000;

/** What campaigns cost, by day and source. */
@Injectable()
export class CampaignCosts {
  constructor(
    @Inject(CampaignsService) private readonly campaigns: CampaignsService,
    @Inject(Events) private readonly events: Events,
    @Inject(LinkRulesService) private readonly rules: LinkRulesService,
  ) {}

  async of(tx: WorkspaceTx, key: string): Promise<CampaignCost[]> {
    await this.campaigns.one(tx, key);
    return tx.db
      .select({
        day: campaignCost.day,
        source: campaignCost.source,
        medium: campaignCost.medium,
        amount: campaignCost.amount,
        currency: campaignCost.currency,
      })
      .from(campaignCost)
      .where(and(eq(campaignCost.workspaceId, tx.workspaceId), eq(campaignCost.campaignKey, key)))
      .orderBy(asc(campaignCost.day), asc(campaignCost.source), asc(campaignCost.medium));
  }

  /**
   * Stores costs. A cost of a period is spread over its days; costs of the same day, campaign and source are added up.
   *
   * @param addCampaigns Whether campaigns that nobody knows are added to the register.
   * @throws ProblemError 409 for days that have a cost already, 422 for unknown campaigns and for two currencies on one day
   */
  async keep(
    tx: WorkspaceTx,
    wishes: readonly CostWish[],
    { over, addCampaigns }: { over: WhereThereIsOne; addCampaigns: boolean },
  ): Promise<CostsKept> {
    await oneAtATime(tx, 'campaign-costs');
    const added = await this.#addUnknown(tx, wishes, addCampaigns);
    const find = await this.campaigns.finder(tx);
    const rows = new Map<string, Row>();
    for (const wish of wishes) {
      const days = daysBetween(wish.from, wish.to);
      if (!days.length)
        throw new ProblemError('refused', `A cost is of at most ${MOST_COST_DAYS} days, and ends after it begins.`);
      const { source = '', medium = '', currency } = wish;
      const campaignKey = find(wish.campaign)!.key;
      for (const { day, amount } of spreadCost(wish.amount, days))
        addUp(rows, { workspaceId: tx.workspaceId, campaignKey, day, source, medium, amount, currency });
      if (rows.size > MOST_ROWS)
        throw new ProblemError('refused', `At most ${MOST_ROWS.toLocaleString('en-GB')} days are brought at once.`);
    }
    const before = await this.#thereAlready(tx, rows);
    const replaced = before.length;
    if (replaced && over === 'refuse') throw new ProblemError('conflict', alreadyText(before));
    if (over === 'add') for (const row of before) addUp(rows, row);
    await this.#write(tx, [...rows.values()]);
    await this.events.tell(tx, 'sources');
    return { days: rows.size, replaced, added };
  }

  /** Deletes a campaign's costs in a period. Returns the number of days that had a cost. */
  async remove(tx: WorkspaceTx, key: string, from: string, to: string): Promise<number> {
    await this.campaigns.one(tx, key);
    const gone = await tx.db
      .delete(campaignCost)
      .where(
        and(
          eq(campaignCost.workspaceId, tx.workspaceId),
          eq(campaignCost.campaignKey, key),
          between(campaignCost.day, from, to),
        ),
      )
      .returning({ day: campaignCost.day });
    await this.events.tell(tx, 'sources');
    return gone.length;
  }

  async #addUnknown(tx: WorkspaceTx, wishes: readonly CostWish[], add: boolean): Promise<string[]> {
    const find = await this.campaigns.finder(tx);
    const names = [...new Map(wishes.map(({ campaign }) => [campaign.toLowerCase(), campaign])).values()];
    const unknown = names.filter((name) => !find(name));
    if (!unknown.length) return [];
    if (!add) {
      const message = `The register has no campaign ${unknown
        .slice(0, 5)
        .map((name) => `“${name.slice(0, 60)}”`)
        .join(', ')}${unknown.length > 5 ? ` and ${unknown.length - 5} more` : ''}.`;
      throw new ProblemError('refused', message);
    }
    const rules = await this.rules.rules(tx);
    for (const name of unknown) await this.campaigns.add(tx, { name, code: asRulesWant(name, rules) });
    return unknown;
  }

  /** Stored costs for the same days, campaigns and sources. */
  async #thereAlready(tx: WorkspaceTx, rows: ReadonlyMap<string, Row>): Promise<Row[]> {
    const days = [...rows.values()].map(({ day }) => day).sort();
    if (!days.length) return [];
    const known = await tx.db
      .select()
      .from(campaignCost)
      .where(and(eq(campaignCost.workspaceId, tx.workspaceId), between(campaignCost.day, days[0]!, days.at(-1)!)));
    return known.filter((row) => rows.has(placeOf(row)));
  }

  async #write(tx: WorkspaceTx, rows: readonly Row[]): Promise<void> {
    for (let from = 0; from < rows.length; from += AT_ONCE)
      await tx.statement(
        'keep_costs',
        `insert into campaign_cost (workspace_id, campaign_key, day, source, medium, amount, currency)
         select $1::uuid, * from unnest($2::text[], $3::date[], $4::text[], $5::text[], $6::bigint[], $7::text[])
         on conflict (workspace_id, campaign_key, day, source, medium) do update set amount = excluded.amount, currency = excluded.currency`,
        [tx.workspaceId, ...columnsOf(rows.slice(from, from + AT_ONCE))],
      );
  }
}

function columnsOf(rows: readonly Row[]): unknown[] {
  return (['campaignKey', 'day', 'source', 'medium', 'amount', 'currency'] as const).map((name) =>
    rows.map((row) => row[name]),
  );
}

function placeOf({ campaignKey, day, source, medium }: Row): string {
  return JSON.stringify([campaignKey, day, source, medium]);
}

function addUp(rows: Map<string, Row>, row: Row): void {
  const place = placeOf(row);
  const known = rows.get(place);
  if (known && known.currency !== row.currency)
    throw new ProblemError('refused', `On ${row.day} there are costs in ${known.currency} and in ${row.currency}.`);
  rows.set(place, known ? { ...known, amount: known.amount + row.amount } : row);
}

function alreadyText(rows: readonly Row[]): string {
  const days = [...new Set(rows.map(({ day }) => day))].sort();
  const span = days.length === 1 ? days[0]! : `${days[0]!} to ${days.at(-1)!}`;
  return `${counted(days.length, 'day has', 'days have')} a cost already (${span}). Say whether it is replaced or added to.`;
}
