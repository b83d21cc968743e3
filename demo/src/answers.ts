import type { Services } from '@haycart/server/seeding';
import type { Random } from './random';
import type { Tx } from './tx';

const HOUR = 3_600_000;

/** How soon the teams promise to answer, in minutes of working time. */
const PROMISES: Record<string, number> = {
  'builds-north': 120,
  'builds-south': 120,
  continental: 240,
  'dealer-desk': 180,
};

export async function promiseAnswers(services: Services, tx: Tx): Promise<void> {
  for (const [team, minutes] of Object.entries(PROMISES))
    await services.teams.changeTeam(tx, team, { promise: { minutes, missed: { do: 'task', person: 'robin-nye' } } });
}

/** People call back what they were given: most in time, some late. */
export async function answerEnquiries(
  services: Services,
  workspaceId: string,
  random: Random,
  { until, now }: { until: Date; now: Date },
): Promise<void> {
  await services.database.inWorkspace(workspaceId, async (tx) => {
    const rows = await tx.statement<{ record: string; at: Date; due: Date | null; name: string }>(
      'demo_unanswered',
      `select a.record_id as record, a.at, a.due_at as due, p.name from assignment a join person p on p.workspace_id = a.workspace_id and p.key = a.person
       where a.workspace_id = $1 and a.touched_at is null and a.at < $2 order by a.at, a.id`,
      [workspaceId, until],
    );
    for (const { record, at, due, name } of rows) {
      const allowed = due ? due.getTime() - at.getTime() : 20 * HOUR;
      const late = random.chance(0.12);
      const answered = new Date(
        at.getTime() + (allowed * (late ? random.between(110, 300) : random.between(5, 95))) / 100,
      );
      if (answered < now) await services.assignments.touched(tx, [record], name, answered);
    }
    // What was late in the year was looked after then.
    await tx.statement(
      'demo_missed',
      `update assignment set missed_at = due_at where workspace_id = $1 and missed_at is null and due_at < least(coalesce(touched_at, $2), $2)`,
      [workspaceId, now],
    );
  });
}

/** What came last waits for its answer still, and one of the day before is late, whatever else was done about them. */
export async function leaveTheLatest(services: Services, workspaceId: string, now: Date): Promise<void> {
  await services.database.inWorkspace(workspaceId, (tx) =>
    tx.statement(
      'demo_latest',
      `update assignment set touched_at = null, touched_by = null, missed_at = case when due_at < $2 then due_at end
       where workspace_id = $1 and id in (
         (select id from assignment where workspace_id = $1 and due_at >= $2 and at < $2 order by at desc limit 6)
         union all (select id from assignment where workspace_id = $1 and due_at < $2 and record_kind = 'deal' order by at desc limit 3))`,
      [workspaceId, now],
    ),
  );
}
