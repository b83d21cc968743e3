import { Inject, Injectable } from '@nestjs/common';
import { and, eq, sql } from 'drizzle-orm';
import { Database } from '../../platform/database/database';
import { Events } from '../../platform/events/events';
import { outbox } from '../tables';

/** Notes with mails of the outbox that they came back. */
@Injectable()
export class ReturnNotes {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
  ) {}

  /**
   * A mail that was sent came back. Nothing is changed where it is not known. Returns whether that is noted: not while it is on
   * its way, since a report may be here before the answer to the mail is.
   */
  async cameBack(id: string, why: string): Promise<boolean> {
    const [of] = await this.database.gate<{ id: string }>('workspace_of_outgoing', id);
    if (!of) return true;
    return this.database.inWorkspace(of.id, async (tx) => {
      const [row] = await tx.db
        .select({ state: outbox.state })
        .from(outbox)
        .where(and(eq(outbox.workspaceId, tx.workspaceId), eq(outbox.id, id)))
        .for('update');
      if (row?.state === 'waiting') return false;
      await tx.db
        .update(outbox)
        .set({ state: 'returned', endedAt: sql`now()`, lastError: why })
        .where(
          and(
            eq(outbox.workspaceId, tx.workspaceId),
            eq(outbox.id, id),
            eq(outbox.kind, 'mail'),
            eq(outbox.state, 'done'),
          ),
        );
      await this.events.tell(tx, 'outbox');
      return true;
    });
  }
}
