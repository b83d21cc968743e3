import { Inject, Injectable } from '@nestjs/common';
import type { FormDefinition } from '@haycart/core';
import type { IntakeShape } from '@haycart/api';
import { and, eq } from 'drizzle-orm';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { IntakesService } from './intakes.service';
import { hostedForm, intake, type Trial } from './tables';

export type { Trial };

/** A form's draft that nobody else can change meanwhile. */
export interface HeldDraft {
  intake: IntakeShape;
  draft: FormDefinition;
  revision: number;
  /** The id of the form that it is a copy of. */
  copiedFrom: string | null;
}

/** What intakes that are forms have beside others: a draft, the version that visitors see, perhaps a trial. */
@Injectable()
export class HostedForms {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
    @Inject(IntakesService) private readonly intakes: IntakesService,
  ) {}

  /** The draft of a form, with how often it was changed; held against others who change it, not against arrivals. */
  async draft(tx: WorkspaceTx, idOrKey: string): Promise<HeldDraft> {
    const { id } = await this.intakes.one(tx, idOrKey);
    const [row] = await tx.db.select().from(hostedForm).where(this.#of(tx, id)).for('no key update');
    if (!row) throw new ProblemError('not-found', 'This intake is no form.');
    const { draft, draftRevision: revision, copiedFrom } = row;
    return { intake: await this.intakes.one(tx, id), draft, revision, copiedFrom };
  }

  /** Keeps a draft, which must have been held before. Returns how often it was changed by now. */
  async saveDraft(tx: WorkspaceTx, { intake: { id }, revision }: HeldDraft, draft: FormDefinition): Promise<number> {
    await this.#set(tx, id, { draft, draftRevision: revision + 1 });
    return revision + 1;
  }

  /** Makes a version of a form the one that visitors see, or that shares them with an earlier one; an archived one comes back. */
  async publish(
    tx: WorkspaceTx,
    id: string,
    published: { form: FormDefinition; version: number; trial: Trial | null },
  ): Promise<void> {
    await tx.db
      .update(intake)
      .set({ state: 'live', archived: false })
      .where(and(eq(intake.workspaceId, tx.workspaceId), eq(intake.id, id)));
    await this.#set(tx, id, published);
  }

  /** The trial of a form that runs, if one does. */
  async trial(tx: WorkspaceTx, id: string): Promise<Trial | null> {
    const [row] = await tx.db.select({ trial: hostedForm.trial }).from(hostedForm).where(this.#of(tx, id));
    return row?.trial ?? null;
  }

  /** Ends a trial: everybody sees the published version. */
  endTrial(tx: WorkspaceTx, id: string): Promise<void> {
    return this.#set(tx, id, { trial: null });
  }

  /** Whether a form can have this name in its public address; addresses are one over all workspaces. */
  async isFree(slug: string): Promise<boolean> {
    return (await this.database.gate('intake', null, slug)).length === 0;
  }

  async #set(tx: WorkspaceTx, id: string, change: Partial<typeof hostedForm.$inferSelect>): Promise<void> {
    await tx.db.update(hostedForm).set(change).where(this.#of(tx, id));
    await this.events.tell(tx, 'intakes');
  }

  #of(tx: WorkspaceTx, id: string) {
    return and(eq(hostedForm.workspaceId, tx.workspaceId), eq(hostedForm.intakeId, id));
  }
}
