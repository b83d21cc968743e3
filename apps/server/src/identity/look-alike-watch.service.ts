import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { startingModel, type RecordKind } from '@haycart/core';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { AfterChanges } from '../platform/jobs/after-changes';
import { RecordsService } from '../records/records.service';
import { EarlyLearning } from './early-learning.service';
import { LookAlikesStore } from './look-alikes.store';
import { RecognitionService } from '../recognition/recognition.service';
import { SCANNED, ScanService } from './scan.service';
import { manyWait, WHILE_MANY_WAIT } from '../submissions/many-wait';

const TASK = 'watch-look-alikes';
const REST_SECONDS = 3;
/** Less than every id. */
const AT_ONCE = 500;
/** Everything is looked through, and learned from, anew when so many records came since. */
const MANY_NEW = 500;

/** Looks for look-alikes of what arrives, a moment later; and looks through everything when much has come. */
@Injectable()
export class LookAlikeWatch implements OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AfterChanges) private readonly after: AfterChanges,
    @Inject(Events) private readonly events: Events,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(RecognitionService) private readonly recognition: RecognitionService,
    @Inject(LookAlikesStore) private readonly pairs: LookAlikesStore,
    @Inject(ScanService) private readonly scans: ScanService,
    @Inject(EarlyLearning) private readonly early: EarlyLearning,
  ) {}

  onModuleInit(): void {
    this.after.follow({
      task: TASK,
      topic: 'records',
      restSeconds: REST_SECONDS,
      work: (workspaceId, stopping) => this.look(workspaceId, stopping),
    });
  }

  /** Looks at every record that changed since the last look. */
  async look(workspaceId: string, stopping = new AbortController().signal): Promise<void> {
    if (await this.database.inWorkspace(workspaceId, manyWait)) {
      for (const kind of SCANNED) await this.database.inWorkspace(workspaceId, (tx) => this.early.learn(tx, kind));
      return this.after.again(TASK, workspaceId, WHILE_MANY_WAIT);
    }
    let more = true;
    while (more) {
      stopping.throwIfAborted();
      more = await this.database.inWorkspace(workspaceId, (tx) => this.#lookOnce(tx));
    }
    // What came while this looked was not settled yet.
    if (await this.database.inWorkspace(workspaceId, (tx) => this.#isBehind(tx)))
      await this.after.again(TASK, workspaceId, REST_SECONDS);
  }

  async #lookOnce(tx: WorkspaceTx): Promise<boolean> {
    const looked = await this.recognition.lookedUntil(tx);
    const settled = await oldestUnderWay(tx);
    if (!looked || BigInt(looked.transaction) > settled || (await this.#muchIsNew(tx))) {
      // Everything is looked through, and with it what changed until now.
      await this.recognition.keepLookedUntil(tx);
      for (const kind of SCANNED) await this.scans.start(tx, kind, 'Hay Cart');
      return false;
    }
    // What a transaction under way has written is not seen yet; so only what is older than all of them is followed.
    const changes = await tx.statement<{ id: string; record_kind: RecordKind; record_id: string; transaction: string }>(
      'changes_to_look_at',
      `select id, record_kind, record_id, transaction::text from record_change where workspace_id = $1
         and (transaction, id) > ($2::xid8, $3::uuid) and transaction < $4::xid8 order by transaction, id limit ${AT_ONCE}`,
      [tx.workspaceId, looked.transaction, looked.id, String(settled)],
    );
    const models = await this.recognition.models(tx);
    const { thresholds } = await this.recognition.settings(tx);
    let found = 0;
    for (const kind of SCANNED) {
      const ids = [
        ...new Set(changes.filter((change) => change.record_kind === kind).map((change) => change.record_id)),
      ];
      if (!ids.length) continue;
      const since = new Date();
      const model = models[kind] ?? startingModel(kind);
      const pairs = await this.records.pairsAround(tx, { kind, ids, model, ask: thresholds.ask });
      found += await this.pairs.keep(tx, kind, pairs, since);
      await this.pairs.forgetStale(tx, kind, since, ids);
    }
    if (changes.length) await this.recognition.keepLookedUntil(tx, changes[changes.length - 1]);
    if (found) await this.events.tell(tx, 'decisions');
    return changes.length === AT_ONCE;
  }

  /** Whether so much came since everything was looked through that it is time to do so again; not while that is under way. */
  async #muchIsNew(tx: WorkspaceTx): Promise<boolean> {
    let much = false;
    for (const kind of SCANNED) {
      const scan = await this.scans.latest(tx, kind);
      if (scan?.state === 'running') return false;
      const [now] = await tx.statement<{ n: number }>(
        `count_of_${kind}`,
        `select count(*)::int as n from ${kind} where workspace_id = $1`,
        [tx.workspaceId],
      );
      if (scan && now!.n - scan.records >= Math.max(MANY_NEW, scan.records / 4)) much = true;
    }
    return much;
  }

  async #isBehind(tx: WorkspaceTx): Promise<boolean> {
    const looked = await this.recognition.lookedUntil(tx);
    if (!looked) return false;
    const [row] = await tx.statement<{ behind: boolean }>(
      'is_look_behind',
      `select exists (select 1 from record_change where workspace_id = $1 and (transaction, id) > ($2::xid8, $3::uuid)) as behind`,
      [tx.workspaceId, looked.transaction, looked.id],
    );
    return row!.behind;
  }
}

/** The number of the oldest transaction that has not ended: all of smaller ones are seen. */
async function oldestUnderWay(tx: WorkspaceTx): Promise<bigint> {
  const [row] = await tx.statement<{ oldest: string }>(
    'oldest_under_way',
    'select pg_snapshot_xmin(pg_current_snapshot())::text as oldest',
    [],
  );
  return BigInt(row!.oldest);
}
