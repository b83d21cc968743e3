import type { LinkParameters, Money } from '@haycart/core';

/** A campaign as the register has it. A blank text: nothing was said. */
export interface CampaignShape {
  key: string;
  name: string;
  /** What its links say: `utm_campaign`. */
  code: string;
  source: string;
  medium: string;
  /** Other values of `utm_campaign` that count as this campaign. */
  spellings: string[];
  /** ISO 8601 days. */
  starts: string | null;
  ends: string | null;
  /** The key of a person. */
  owner: string | null;
  archived: boolean;
  links: number;
  /** What it cost in all, by currency. */
  cost: Money[];
}

/** What a campaign cost on one day at one source; blank: at the campaign's own. */
export interface CampaignCost extends Money {
  day: string;
  source: string;
  medium: string;
}

/** The result of storing costs. */
export interface CostsKept {
  /** Days with a cost, of each campaign and source apart. */
  days: number;
  /** How many of these days had a cost before. */
  replaced: number;
  /** Campaigns that were added to the register, by name. */
  added: string[];
}

/** A link of a campaign with what it brought. */
export interface CampaignLink {
  id: string;
  address: string;
  parameters: LinkParameters;
  by: string;
  at: string;
  submissions: number;
  deals: number;
  wonDeals: number;
}
