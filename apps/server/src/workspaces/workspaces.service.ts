import { Inject, Injectable } from '@nestjs/common';
import type { Blocked, Pipeline } from '@haycart/core';
import { eq, sql } from 'drizzle-orm';
import { newId } from '../platform/new-id';
import { PipelinesService } from '../pipelines/pipelines.service';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { workspace } from './tables';

/** A new workspace, with its pipelines. */
export interface NewWorkspace {
  key: string;
  name: string;
  defaultCountry: string;
  defaultCurrency: string;
  pipelines: Pipeline[];
}

/** What may be changed about a workspace. */
export interface WorkspaceChange {
  name?: string | undefined;
  defaultCountry?: string | undefined;
  defaultCurrency?: string | undefined;
  leadHandling?: 'deals' | 'leads' | undefined;
  dealWord?: 'deal' | 'opportunity' | undefined;
  blockedWords?: string[] | undefined;
  blockedDomains?: string[] | undefined;
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

/** Any number: it names the lock under which the first workspace is made. */
const FIRST_LOCK = 4_600_002;

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

  /** What sets a submission aside that holds it. */
  async blocked(tx: WorkspaceTx): Promise<Blocked> {
    const { blockedWords, blockedDomains } = await this.one(tx);
    return { words: blockedWords, domains: blockedDomains };
  }

  async all(): Promise<{ id: string; key: string }[]> {
    return this.database.gate<{ id: string; key: string }>('workspaces');
  }

  /** Makes a workspace; what else belongs to it is made in the same transaction. */
  async add<Result>(
    { key, name, defaultCountry, defaultCurrency, pipelines }: NewWorkspace,
    furnish: (tx: WorkspaceTx) => Promise<Result>,
    before: (tx: WorkspaceTx) => Promise<void> = () => Promise.resolve(),
  ): Promise<Result> {
    const id = newId();
    return this.database.inWorkspace(id, async (tx) => {
      await before(tx);
      await tx.db.insert(workspace).values({ id, key, name, defaultCountry, defaultCurrency });
      await this.pipelines.add(tx, pipelines);
      return furnish(tx);
    });
  }

  /** Makes the first workspace; of several at the same moment exactly one. @throws ProblemError 404 when there is one. */
  addFirst<Result>(made: NewWorkspace, furnish: (tx: WorkspaceTx) => Promise<Result>): Promise<Result> {
    return this.add(made, furnish, async (tx) => {
      await tx.statement('first_workspace', 'select pg_advisory_xact_lock($1)', [FIRST_LOCK]);
      const known = await tx.statement('known_workspaces', 'select id from gate_workspaces()');
      if (known.length) throw new ProblemError('not-found', 'There is nothing at this address.');
    });
  }

  async one(tx: WorkspaceTx) {
    const [found] = await tx.db.select().from(workspace).where(eq(workspace.id, tx.workspaceId));
    return found!;
  }

  async change(tx: WorkspaceTx, change: WorkspaceChange) {
    const set = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
    if (Object.keys(set).length)
      await tx.db
        .update(workspace)
        .set({ ...set, revision: sql`${workspace.revision} + 1` })
        .where(eq(workspace.id, tx.workspaceId));
    return this.one(tx);
  }
}
