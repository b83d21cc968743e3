import { Inject, Injectable } from '@nestjs/common';
import type { CampaignShape } from '@haycart/api';
import { campaignCodes, newKey, plainName, type Campaign, type CampaignCodes, type Money } from '@haycart/core';
import { and, asc, count, eq, sum } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { databaseFailure } from '../platform/database/failure';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { ProblemError } from '../platform/errors/problem-error';
import { PeopleService } from '../workspaces/people.service';
import { campaign, campaignCost, campaignLink } from './tables';

/** The details of a campaign. */
export interface CampaignWish extends Campaign {
  owner?: string | null | undefined;
  archived?: boolean | undefined;
}

/** The register of campaigns. */
@Injectable()
export class CampaignsService {
  constructor(@Inject(PeopleService) private readonly people: PeopleService) {}

  /** Ordered by name; archived campaigns last. */
  async all(tx: WorkspaceTx): Promise<CampaignShape[]> {
    const rows = await tx.db
      .select()
      .from(campaign)
      .where(eq(campaign.workspaceId, tx.workspaceId))
      .orderBy(asc(campaign.archived), asc(campaign.name));
    const costs = await tx.db
      .select({ key: campaignCost.campaignKey, currency: campaignCost.currency, amount: sum(campaignCost.amount) })
      .from(campaignCost)
      .where(eq(campaignCost.workspaceId, tx.workspaceId))
      .groupBy(campaignCost.campaignKey, campaignCost.currency)
      .orderBy(asc(campaignCost.currency));
    const links = await tx.db
      .select({ key: campaignLink.campaignKey, links: count() })
      .from(campaignLink)
      .where(eq(campaignLink.workspaceId, tx.workspaceId))
      .groupBy(campaignLink.campaignKey);
    const linksOf = new Map(links.map((row) => [row.key, row.links]));
    const costOf = (key: string): Money[] =>
      costs.flatMap((row) => (row.key === key ? [{ amount: Number(row.amount), currency: row.currency }] : []));
    return rows.map(({ workspaceId: _, createdAt: __, ...row }) => ({
      ...row,
      links: linksOf.get(row.key) ?? 0,
      cost: costOf(row.key),
    }));
  }

  /** The codes of all campaigns, by each of their spellings. */
  async codes(tx: WorkspaceTx): Promise<CampaignCodes> {
    const rows = await tx.db
      .select({ code: campaign.code, spellings: campaign.spellings })
      .from(campaign)
      .where(eq(campaign.workspaceId, tx.workspaceId))
      .orderBy(asc(campaign.code));
    return campaignCodes(rows);
  }

  async one(tx: WorkspaceTx, key: string): Promise<CampaignShape> {
    const found = (await this.all(tx)).find((one) => one.key === key);
    if (!found) throw new ProblemError('not-found', `There is no campaign “${key.slice(0, 60)}”.`);
    return found;
  }

  /** @throws ProblemError 409 where the name or the code is taken, 422 for a period the wrong way round */
  async add(tx: WorkspaceTx, wish: CampaignWish): Promise<CampaignShape> {
    await oneAtATime(tx, 'campaigns');
    const keys = await tx.db
      .select({ key: campaign.key })
      .from(campaign)
      .where(eq(campaign.workspaceId, tx.workspaceId));
    const key = newKey(
      wish.name,
      keys.map((row) => row.key),
    );
    const row = await this.#row(tx, wish);
    await kept(wish, () => tx.db.insert(campaign).values({ workspaceId: tx.workspaceId, key, ...row }));
    return this.one(tx, key);
  }

  async change(tx: WorkspaceTx, key: string, wish: Partial<CampaignWish>): Promise<CampaignShape> {
    const before = await this.one(tx, key);
    const after = { ...plainly(before), ...wish };
    const row = await this.#row(tx, after);
    await kept(after, () =>
      tx.db
        .update(campaign)
        .set(row)
        .where(and(eq(campaign.workspaceId, tx.workspaceId), eq(campaign.key, key))),
    );
    return this.one(tx, key);
  }

  /** @throws ProblemError 409 while it has costs or links: they would be lost */
  async remove(tx: WorkspaceTx, key: string): Promise<void> {
    const { links, cost } = await this.one(tx, key);
    if (links || cost.length)
      throw new ProblemError('conflict', 'It has costs or links, which would be lost. Put it away instead.');
    await tx.db.delete(campaign).where(and(eq(campaign.workspaceId, tx.workspaceId), eq(campaign.key, key)));
  }

  /** Returns a function that finds a campaign by name, code or spelling; capitals, accents and spaces do not matter. */
  async finder(tx: WorkspaceTx): Promise<(name: string) => CampaignShape | undefined> {
    const all = await this.all(tx);
    const byName = new Map(
      all.flatMap((one) => [one.name, one.code, ...one.spellings].map((text) => [plainName(text), one])),
    );
    return (name) => byName.get(plainName(name));
  }

  async #row(tx: WorkspaceTx, wish: CampaignWish) {
    const { name, code, source = '', medium = '', starts = null, ends = null, owner = null, archived = false } = wish;
    const spellings = [...new Set((wish.spellings ?? []).map((spelling) => spelling.trim()).filter(Boolean))];
    if (starts && ends && ends < starts)
      throw new ProblemError('refused', 'It ends before it begins.', [
        { at: '/ends', code: 'wrong-value', message: 'It ends before it begins.' },
      ]);
    if (owner && !(await this.people.choices(tx)).some(({ key }) => key === owner))
      throw new ProblemError('refused', `There is no person “${owner.slice(0, 60)}”.`);
    return {
      name: name.trim(),
      code: code.trim(),
      source: source.trim(),
      medium: medium.trim(),
      spellings,
      starts,
      ends,
      owner,
      archived,
    };
  }
}

function plainly({
  name,
  code,
  source,
  medium,
  spellings,
  starts,
  ends,
  owner,
  archived,
}: CampaignShape): CampaignWish {
  return {
    name,
    code,
    source,
    medium,
    spellings,
    owner,
    archived,
    ...(starts ? { starts } : {}),
    ...(ends ? { ends } : {}),
  };
}

async function kept({ name, code }: Pick<Campaign, 'name' | 'code'>, write: () => Promise<unknown>): Promise<void> {
  try {
    await write();
  } catch (cause) {
    if (databaseFailure(cause) !== 'refused') throw cause;
    throw new ProblemError('conflict', `There is a campaign named “${name}”, or one with the code “${code}”, already.`);
  }
}
