import type { MailSender } from '@haycart/api';
import type { MailTexts, WorkingHours } from '@haycart/core';
import { sql } from 'drizzle-orm';
import { check, integer, json, jsonb, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import { bytea, time, workspaceId } from '../platform/database/columns';

/** A chat or a phone that several read, where messages go. */
export const channel = pgTable(
  'channel',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    /** How routes name it; never changes. */
    key: text('key').notNull(),
    name: text('name').notNull(),
    by: text('by').$type<'chat' | 'text'>().notNull(),
    /** The incoming address of a chat, sealed: whoever has it can write there. */
    address: text('address'),
    /** The number of a phone (E.164). */
    number: text('number'),
    /** When somebody reads it, for messages that wait for that; the usual hours of an office while it has none. */
    timeZone: text('time_zone'),
    hours: jsonb('hours').$type<WorkingHours>().notNull().default({}),
    /** How many messages it takes a minute; any number where it is null. */
    perMinute: integer('per_minute'),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('channel_key').on(t.workspaceId, t.key),
    unique('channel_name').on(t.workspaceId, t.name),
    check(
      'channel_reached',
      sql`case ${t.by} when 'chat' then ${t.address} is not null when 'text' then ${t.number} is not null end`,
    ),
  ],
);

/** By what mails are written. */
export const mailTemplate = pgTable(
  'mail_template',
  {
    workspaceId: workspaceId(),
    /** How routes name it; never changes. */
    key: text('key').notNull(),
    name: text('name').notNull(),
    subject: text('subject').notNull(),
    text: text('text').notNull(),
    html: text('html'),
    /** The texts in other languages, by language. */
    translations: json('translations').$type<Record<string, MailTexts>>().notNull().default({}),
    changedAt: time('changed_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.key] }), unique('mail_template_name').on(t.workspaceId, t.name)],
);

/** A file of the workspace that mails can have attached. */
export const mailFile = pgTable(
  'mail_file',
  {
    workspaceId: workspaceId(),
    /** How routes name it; never changes. */
    key: text('key').notNull(),
    name: text('name').notNull(),
    type: text('type').notNull(),
    size: integer('size').notNull(),
    bytes: bytea('bytes').notNull(),
    changedAt: time('changed_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.key] })],
);

/** The server that takes a workspace's mail (SMTP), and in whose name it is sent. */
export const mailServer = pgTable(
  'mail_server',
  {
    workspaceId: workspaceId(),
    host: text('host').notNull(),
    port: integer('port').notNull(),
    /** `tls`: from the beginning; `starttls`: from the greeting on, or nothing is sent; `none`: in the clear. */
    security: text('security').$type<'tls' | 'starttls' | 'none'>().notNull(),
    user: text('user_name'),
    /** Sealed. */
    password: text('password'),
    fromName: text('from_name').notNull(),
    fromAddress: text('from_address').notNull(),
    replyTo: text('reply_to'),
    /** The domain that mail which cannot be delivered comes back to; to the sender where it is null. */
    returnDomain: text('return_domain'),
    /** How many mails it takes a minute; any number where it is null. */
    perMinute: integer('per_minute'),
    /** In whose name teams write, by the team’s key. */
    senders: json('senders').$type<Record<string, MailSender>>().notNull().default({}),
    setAt: time('set_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId] }),
    check('mail_server_security', sql`${t.security} in ('tls', 'starttls', 'none')`),
  ],
);

/** What sends text messages for a workspace. */
export const textGateway = pgTable(
  'text_gateway',
  {
    workspaceId: workspaceId(),
    /** Where messages are posted to, sealed. */
    address: text('address').notNull(),
    setAt: time('set_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId] })],
);
