import { integer, pgTable, text } from 'drizzle-orm/pg-core';
import { time } from '../database/columns';

/** Who does jobs, and when that was last seen. Belongs to no workspace: only the gate functions reach it. */
export const jobWorker = pgTable('job_worker', {
  id: text('id').primaryKey(),
  host: text('host').notNull(),
  pid: integer('pid').notNull(),
  seenAt: time('seen_at').notNull(),
});
