import { Inject, Injectable } from '@nestjs/common';
import type { Pipeline } from '@haycart/core';
import { eq } from 'drizzle-orm';
import { newId } from '../platform/new-id';
import { PipelinesService } from '../pipelines/pipelines.service';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { team, teamMember, workspace } from './tables';

/** A new workspace, with its pipelines. */
export interface NewWorkspace {
  key: string;
  name: string;
  defaultCountry: string;
  defaultCurrency: string;
  pipelines: Pipeline[];
}

/** What a workspace starts with when nobody has prepared anything. */
export const FIRST_PIPELINE: Pipeline = {
  key: 'sales',
  name: 'Sales',
  record: 'deal',
  stages: [
    { key: 'enquiry', name: 'Enquiry', state: 'open' },
    { key: 'qualified', name: 'Qualified', state: 'open' },
    { key: 'proposal', name: 'Proposal', state: 'open' },
    { key: 'won', name: 'Won', state: 'won' },
    { key: 'lost', name: 'Lost', state: 'lost' },
  ],
};

/** Workspaces and their teams. */
@Injectable()
export class WorkspacesService {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(PipelinesService) private readonly pipelines: PipelinesService,
  ) {}

  async anyExists(): Promise<boolean> {
    return (await this.database.gate('workspaces')).length > 0;
  }

  async all(): Promise<{ id: string; key: string }[]> {
    return this.database.gate<{ id: string; key: string }>('workspaces');
  }

  /** Makes a workspace; what else belongs to it is made in the same transaction. */
  async add<Result>(
    { key, name, defaultCountry, defaultCurrency, pipelines }: NewWorkspace,
    furnish: (tx: WorkspaceTx) => Promise<Result>,
  ): Promise<Result> {
    const id = newId();
    return this.database.inWorkspace(id, async (tx) => {
      await tx.db.insert(workspace).values({ id, key, name, defaultCountry, defaultCurrency });
      await this.pipelines.add(tx, pipelines);
      return furnish(tx);
    });
  }

  async one(tx: WorkspaceTx) {
    const [found] = await tx.db.select().from(workspace).where(eq(workspace.id, tx.workspaceId));
    return found!;
  }

  async addTeam(tx: WorkspaceTx, key: string, name: string, personIds: readonly string[]): Promise<void> {
    await tx.db.insert(team).values({ workspaceId: tx.workspaceId, key, name });
    if (personIds.length)
      await tx.db
        .insert(teamMember)
        .values(personIds.map((personId) => ({ workspaceId: tx.workspaceId, teamKey: key, personId })));
  }
}
