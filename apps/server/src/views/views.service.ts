import { Injectable } from '@nestjs/common';
import type { ListView, RecordKind } from '@haycart/core';
import type { SavedView } from '@haycart/api';
import { and, asc, eq, isNull, or, sql } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { newId } from '../platform/new-id';
import { isId } from '../platform/paging';
import { savedView } from './tables';

export interface ViewChange {
  name?: string | undefined;
  view?: ListView | undefined;
  shared?: boolean | undefined;
}

/** Views of lists that people kept, for themselves or for everybody. */
@Injectable()
export class ViewsService {
  /** The views that somebody may use: the shared ones and their own. */
  async all(tx: WorkspaceTx, personId: string | null): Promise<SavedView[]> {
    const rows = await tx.db
      .select()
      .from(savedView)
      .where(
        and(
          eq(savedView.workspaceId, tx.workspaceId),
          personId === null
            ? isNull(savedView.personId)
            : or(isNull(savedView.personId), eq(savedView.personId, personId)),
        ),
      )
      .orderBy(asc(savedView.name), asc(savedView.id));
    return rows.map(shape);
  }

  /** Every view, whoever's: for what names a field or stage. */
  async everybodys(tx: WorkspaceTx): Promise<SavedView[]> {
    const rows = await tx.db.select().from(savedView).where(eq(savedView.workspaceId, tx.workspaceId));
    return rows.map(shape);
  }

  async add(
    tx: WorkspaceTx,
    { record, name, view, shared }: { record: RecordKind; name: string; view: ListView; shared: boolean },
    personId: string | null,
  ): Promise<SavedView> {
    if (!shared && personId === null)
      throw new ProblemError('refused', 'A script has no views of its own; say shared: true.');
    const row = { id: newId(), record, name: name.trim(), view, personId: shared ? null : personId };
    await tx.db.insert(savedView).values({ workspaceId: tx.workspaceId, ...row });
    return shape(row);
  }

  async change(tx: WorkspaceTx, id: string, change: ViewChange, personId: string | null): Promise<SavedView> {
    const before = await this.#own(tx, id, personId);
    const { name = before.name, view = before.view, shared = before.personId === null } = change;
    if (!shared && personId === null) throw new ProblemError('refused', 'A script has no views of its own.');
    const after = { ...before, name: name.trim(), view, personId: shared ? null : (before.personId ?? personId) };
    await tx.db
      .update(savedView)
      .set({ name: after.name, view, personId: after.personId })
      .where(and(eq(savedView.workspaceId, tx.workspaceId), eq(savedView.id, id)));
    return shape(after);
  }

  /** Puts another way to look in the place of one, if the view still looks that way. */
  async replace(tx: WorkspaceTx, id: string, before: ListView, after: ListView): Promise<void> {
    await tx.db
      .update(savedView)
      .set({ view: after })
      .where(
        and(
          eq(savedView.workspaceId, tx.workspaceId),
          eq(savedView.id, id),
          sql`${savedView.view} = ${JSON.stringify(before)}::jsonb`,
        ),
      );
  }

  async remove(tx: WorkspaceTx, id: string, personId: string | null): Promise<void> {
    await this.#own(tx, id, personId);
    await tx.db.delete(savedView).where(and(eq(savedView.workspaceId, tx.workspaceId), eq(savedView.id, id)));
  }

  async #own(tx: WorkspaceTx, id: string, personId: string | null): Promise<typeof savedView.$inferSelect> {
    const [found] = isId(id)
      ? await tx.db
          .select()
          .from(savedView)
          .where(and(eq(savedView.workspaceId, tx.workspaceId), eq(savedView.id, id)))
      : [];
    if (!found || (found.personId !== null && found.personId !== personId))
      throw new ProblemError('not-found', 'There is no such view.');
    return found;
  }
}

type Row = Pick<typeof savedView.$inferSelect, 'id' | 'record' | 'name' | 'view' | 'personId'>;

function shape({ id, record, name, view, personId }: Row): SavedView {
  return { id, record, name, view, shared: personId === null };
}
