import type { RunOutcome } from '@haycart/api';
import { sql } from 'drizzle-orm';
import { boolean, date, foreignKey, index, integer, pgTable, primaryKey, text, uuid } from 'drizzle-orm/pg-core';
import { workspaceId } from '../platform/database/columns';
import { intake } from '../intakes/tables';
import { route } from '../routes/tables';

/**
 * How many runs ended how: by the day (UTC) on which their submission arrived, its intake, and the route. Rows are added up:
 * each statement that ends or changes runs adds what it changed (triggers), and a job folds rows into one. So nobody waits
 * for anybody, and a sum over years reads few rows.
 */
export const runCount = pgTable(
  'run_count',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull().defaultRandom(),
    day: date('day').notNull(),
    intakeId: uuid('intake_id').notNull(),
    routeId: uuid('route_id').notNull(),
    outcome: text('outcome').$type<RunOutcome>().notNull(),
    /** May be negative: so many fewer than the others tell. */
    runs: integer('runs').notNull(),
    folded: boolean('folded').notNull().default(false),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    foreignKey({ columns: [t.workspaceId, t.intakeId], foreignColumns: [intake.workspaceId, intake.id] }),
    foreignKey({ columns: [t.workspaceId, t.routeId], foreignColumns: [route.workspaceId, route.id] }),
    index('run_count_day').on(t.workspaceId, t.day),
    index('run_count_unfolded')
      .on(t.workspaceId, t.day)
      .where(sql`not folded`),
  ],
);
