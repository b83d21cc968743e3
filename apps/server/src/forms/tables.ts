import type { Device, FormDefinition, FormDid, Theme } from '@haycart/core';
import { sql } from 'drizzle-orm';
import {
  date,
  foreignKey,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { intake } from '../intakes/tables';
import { time, workspaceId } from '../platform/database/columns';
import { person } from '../workspaces/tables';

/** Every form as it was published, for ever: a submission names the version that it answered. */
export const formVersion = pgTable(
  'form_version',
  {
    workspaceId: workspaceId(),
    intakeId: uuid('intake_id').notNull(),
    version: integer('version').notNull(),
    form: jsonb('form').$type<FormDefinition>().notNull(),
    note: text('note'),
    publishedBy: text('published_by').notNull(),
    publishedAt: time('published_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.intakeId, t.version] }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
  ],
);

/** How forms look; shared by those that wear it. */
export const theme = pgTable(
  'theme',
  {
    workspaceId: workspaceId(),
    key: text('key').notNull(),
    name: text('name').notNull(),
    theme: jsonb('theme').$type<Theme>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.workspaceId, t.key] }), unique('theme_name').on(t.workspaceId, t.name)],
);

/** How often something happened at a form in a day. No visitor is known in it. */
export const formCount = pgTable(
  'form_count',
  {
    workspaceId: workspaceId(),
    intakeId: uuid('intake_id').notNull(),
    day: date('day').notNull(),
    version: integer('version').notNull(),
    /** The page that the form stood on or was linked from; blank when it is not known. */
    page: text('page').notNull(),
    /** Where visitors came from, by the channel rules of that day; the campaign blank without one. */
    channel: text('channel').notNull().default(''),
    source: text('source').notNull(),
    campaign: text('campaign').notNull().default(''),
    device: text('device').$type<Device>().notNull(),
    did: text('did').$type<FormDid>().notNull(),
    /** For those who stopped: the question that they were last at. */
    item: text('item').notNull(),
    count: integer('count').notNull(),
    /** For those who sent: the seconds that all of them took together. */
    seconds: integer('seconds').notNull().default(0),
  },
  (t) => [
    primaryKey({
      columns: [
        t.workspaceId,
        t.intakeId,
        t.day,
        t.version,
        t.page,
        t.channel,
        t.source,
        t.campaign,
        t.device,
        t.did,
        t.item,
      ],
      name: 'form_count_pk',
    }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
  ],
);

/** A person's own way into a form for colleagues: whoever has it enters in their name, without signing in. */
export const entryLink = pgTable(
  'entry_link',
  {
    workspaceId: workspaceId(),
    intakeId: uuid('intake_id').notNull(),
    personId: uuid('person_id').notNull(),
    /** Part of an address that is shown again whenever its person asks for it, so it is kept, sealed. */
    secret: text('secret').notNull(),
    /** SHA-256 of the secret, by which it is found. */
    hash: text('hash').notNull().unique(),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.intakeId, t.personId] }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
    foreignKey({ columns: [t.workspaceId, t.personId], foreignColumns: [person.workspaceId, person.id] }),
  ],
);

/** A domain of the company's own under which its forms can be reached, once it was shown to be theirs. */
export const formDomain = pgTable(
  'form_domain',
  {
    workspaceId: workspaceId(),
    /** `forms.example.com`, in ASCII. */
    host: text('host').notNull(),
    /** What stands in its DNS when it is theirs. */
    proof: text('proof').notNull(),
    /** When it was first found there; until then the domain leads nowhere. */
    provenAt: time('proven_at'),
    checkedAt: time('checked_at'),
    /** What was wrong at the last check. */
    problem: text('problem'),
    createdAt: time('created_at').notNull().defaultNow(),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.host] }),
    // Anybody may claim a domain; only one can prove it.
    uniqueIndex('form_domain_proven')
      .on(t.host)
      .where(sql`${t.provenAt} is not null`),
  ],
);
