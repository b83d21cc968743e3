import type { Plan } from '@haycart/core';
import { sql } from 'drizzle-orm';
import { check, foreignKey, index, integer, json, pgTable, primaryKey, text, unique, uuid } from 'drizzle-orm/pg-core';
import { time, workspaceId } from '../platform/database/columns';
import { routeVersion } from '../routes/tables';
import { submission } from '../submissions/tables';

export type RunOutcome = 'written' | 'held' | 'skipped' | 'failed' | 'taken-back';

/** One submission's passage through one route. The plan is kept without its diff, which stands in the record changes. */
export const run = pgTable(
  'run',
  {
    workspaceId: workspaceId(),
    id: uuid('id').notNull(),
    submissionId: uuid('submission_id').notNull(),
    routeId: uuid('route_id').notNull(),
    version: integer('version').notNull(),
    outcome: text('outcome').$type<RunOutcome>().notNull(),
    reasonCode: text('reason_code'),
    /** The outcome in a few words, for a line in a list. */
    summary: text('summary').notNull(),
    plan: json('plan').$type<Omit<Plan, 'diff'>>(),
    startedAt: time('started_at').notNull(),
    finishedAt: time('finished_at').notNull(),
    /** The act that took it back, if it was. */
    takenBackBy: uuid('taken_back_by'),
  },
  (t) => [
    primaryKey({ columns: [t.workspaceId, t.id] }),
    unique('run_once').on(t.workspaceId, t.submissionId, t.routeId),
    foreignKey({ columns: [t.workspaceId, t.submissionId], foreignColumns: [submission.workspaceId, submission.id] }),
    foreignKey({
      columns: [t.workspaceId, t.routeId, t.version],
      foreignColumns: [routeVersion.workspaceId, routeVersion.routeId, routeVersion.version],
    }),
    check('run_outcome', sql`${t.outcome} in ('written', 'held', 'skipped', 'failed', 'taken-back')`),
    index('run_finished').on(t.workspaceId, t.finishedAt.desc().nullsFirst()),
    index('run_taken_back')
      .on(t.workspaceId, t.takenBackBy)
      .where(sql`taken_back_by is not null`),
    index('run_unsettled')
      .on(t.workspaceId, t.routeId, t.outcome)
      .where(sql`outcome in ('held', 'failed')`),
  ],
);
