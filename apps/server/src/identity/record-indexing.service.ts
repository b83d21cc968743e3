import { Inject, Injectable, type OnApplicationBootstrap, type OnModuleInit } from '@nestjs/common';
import type { RecordKind } from '@haycart/core';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { Jobs } from '../platform/jobs/jobs';
import { RecordsService } from '../records/records.service';
import { INDEX_VERSION } from '../recognition/index-version';
import { RecognitionService } from '../recognition/recognition.service';

const TASK = 'index-records';
const AT_ONCE = 1_000;
const KINDS: readonly RecordKind[] = ['company', 'contact', 'lead', 'deal'];

/** Gives records that were written by an older version the keys and blocks by which they are found now. */
@Injectable()
export class RecordIndexing implements OnModuleInit, OnApplicationBootstrap {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Jobs) private readonly jobs: Jobs,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(RecognitionService) private readonly recognition: RecognitionService,
  ) {}

  onModuleInit(): void {
    this.jobs.register<{ workspaceId: string }>({
      name: TASK,
      work: ({ workspaceId }, stopping) => this.index(workspaceId, stopping),
    });
  }

  async onApplicationBootstrap(): Promise<void> {
    for (const { id } of await this.database.gate<{ id: string }>('workspaces'))
      if (await this.database.inWorkspace(id, (tx) => this.#isStale(tx)))
        await this.jobs.resume(TASK, { workspaceId: id }, `${TASK} ${id}`);
  }

  async #isStale(tx: WorkspaceTx): Promise<boolean> {
    return (await this.recognition.indexVersion(tx)) < INDEX_VERSION;
  }

  /** Goes through all records of a workspace, in portions that each are a transaction. */
  async index(workspaceId: string, stopping = new AbortController().signal): Promise<void> {
    for (const kind of KINDS) {
      let after: string | null = null;
      do {
        stopping.throwIfAborted();
        after = await this.database.inWorkspace(workspaceId, (tx) => this.records.indexAgain(tx, kind, after, AT_ONCE));
      } while (after !== null);
    }
    await this.database.inWorkspace(workspaceId, (tx) => this.recognition.keepIndexVersion(tx, INDEX_VERSION));
  }
}
