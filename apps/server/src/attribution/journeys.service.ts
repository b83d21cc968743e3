import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { AfterChanges } from '../platform/jobs/after-changes';
import { manyWait, WHILE_MANY_WAIT } from '../submissions/many-wait';
import { AFFECTED_SQL, FORGET_SQL, MAKE_SQL, PACK_SQL } from './journey-sql';

const TASK = 'follow-journeys';
const REST_SECONDS = 2;
/** Changes that are handled in one transaction. Many of them are of the same record, whose journey is made once. */
const CHANGES = 5_000;
/** Journeys that one statement makes. */
const JOURNEYS = 500;

/** Keeps the journeys that led to deals, leads and contacts as touches, links and records change, a moment later. */
@Injectable()
export class JourneysService implements OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AfterChanges) private readonly after: AfterChanges,
    @Inject(Events) private readonly events: Events,
  ) {}

  onModuleInit(): void {
    this.after.follow({
      task: TASK,
      topic: 'records',
      restSeconds: REST_SECONDS,
      work: (workspaceId, stopping) => this.follow(workspaceId, stopping),
    });
  }

  /** Makes the journeys again of all records that changed. While many submissions wait, it is put off. */
  async follow(workspaceId: string, stopping = new AbortController().signal): Promise<void> {
    if (await this.database.inWorkspace(workspaceId, manyWait))
      return this.after.again(TASK, workspaceId, WHILE_MANY_WAIT);
    let more = true;
    while (more) {
      stopping.throwIfAborted();
      more = await this.database.inWorkspace(workspaceId, (tx) => this.#some(tx));
    }
  }

  async #some(tx: WorkspaceTx): Promise<boolean> {
    // One at a time in a workspace: two could make the same journey.
    await tx.statement('journeys_lock', `select pg_advisory_xact_lock(hashtextextended('journeys ' || $1, 0))`, [
      tx.workspaceId,
    ]);
    const due = await tx.statement<{ record: string }>(
      'due_journeys',
      `delete from journey_due where workspace_id = $1 and id in (
         select id from journey_due where workspace_id = $1 order by id limit ${CHANGES} for update skip locked) returning record_id as record`,
      [tx.workspaceId],
    );
    if (!due.length) return false;
    const given = [...new Set(due.map(({ record }) => record))];
    const affected = await tx.statement<{ id: string }>('affected_journeys', AFFECTED_SQL, [tx.workspaceId, given]);
    const ids = affected.map(({ id }) => id);
    for (let from = 0; from < ids.length; from += JOURNEYS) {
      const some = [tx.workspaceId, ids.slice(from, from + JOURNEYS)];
      await tx.statement('forget_journeys', FORGET_SQL, some);
      await tx.statement('make_journeys', MAKE_SQL, some);
      await tx.statement('pack_journeys', PACK_SQL, some);
    }
    await this.events.tell(tx, 'sources');
    return due.length === CHANGES;
  }
}
