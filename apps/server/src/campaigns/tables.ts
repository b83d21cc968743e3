import type { LinkParameters, LinkRules } from '@haycart/core';
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  date,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';

/** A marketing campaign. */
export const campaign = pgTable(
  'campaign',
  {
    workspaceId: workspaceId(),
    /** Never changes. */
    key: text('key').notNull(),
    name: text('name').notNull(),
    /** `utm_campaign` of its links. `source` and `medium` are their usual `utm_source` and `utm_medium`. */
    code: text('code').notNull(),
    source: text('source').notNull().default(''),
    medium: text('medium').notNull().default(''),
    /** Other values of `utm_campaign` that count as this campaign. */
    spellings: text('spellings')
      .array()
      .notNull()
      .default(sql`'{}'`),
    starts: date('starts'),
    ends: date('ends'),
    /** The key of a person. */
    owner: text('owner'),
    archived: boolean('archived').notNull().default(false),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.key] }),
    uniqueIndex('campaign_name').on(t.workspaceId, sql`lower(${t.name})`),
    uniqueIndex('campaign_code').on(t.workspaceId, sql`lower(${t.code})`),
  ],
);

/** The cost of a campaign on one day at one source, in minor units. A blank source means the campaign's own. */
export const campaignCost = pgTable(
  'campaign_cost',
  {
    workspaceId: workspaceId(),
    campaignKey: text('campaign_key').notNull(),
    day: date('day').notNull(),
    source: text('source').notNull(),
    medium: text('medium').notNull(),
    amount: bigint('amount', { mode: 'number' }).notNull(),
    currency: text('currency').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.campaignKey, t.day, t.source, t.medium] }),
    foreignKey({ columns: [t.workspaceId, t.campaignKey], foreignColumns: [campaign.workspaceId, campaign.key] }),
    index('campaign_cost_day').on(t.workspaceId, t.day),
  ],
);

/** A link that was made for a campaign. */
export const campaignLink = pgTable(
  'campaign_link',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    campaignKey: text('campaign_key').notNull(),
    address: text('address').notNull(),
    parameters: jsonb('parameters').$type<LinkParameters>().notNull(),
    by: text('by').notNull(),
    at: time('at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.campaignKey], foreignColumns: [campaign.workspaceId, campaign.key] }),
    uniqueIndex('campaign_link_address').on(t.workspaceId, t.campaignKey, sql`md5(${t.address})`),
  ],
);

/** How the parameters of links are written, where that differs from what is usual. */
export const linkRules = pgTable(
  'link_rules',
  {
    workspaceId: workspaceId(),
    rules: jsonb('rules').$type<LinkRules>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId] })],
);

/** A link that brought a visit and breaks the link rules, or names a campaign that is not in the register. */
export const wrongLink = pgTable(
  'wrong_link',
  {
    workspaceId: workspaceId(),
    /** A digest of its source, medium and campaign. */
    id: text('id').notNull(),
    parameters: jsonb('parameters').$type<LinkParameters>().notNull(),
    /** What is wrong with it, in sentences. */
    problems: text('problems').array().notNull(),
    /** Whether its campaign is not in the register. */
    unknownCampaign: boolean('unknown_campaign').notNull(),
    at: time('at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.id] })],
);

/** How far the ways were checked for wrong links. */
export const linkWatch = pgTable(
  'link_watch',
  {
    workspaceId: workspaceId(),
    /** The id of the last way that was checked. */
    lookedUntil: integer('looked_until').notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId] })],
);
