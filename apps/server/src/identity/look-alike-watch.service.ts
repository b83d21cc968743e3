import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { startingModel, type RecordKind } from '@haycart/core';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { AfterChanges } from '../platform/jobs/after-changes';
import { RecordsService } from '../records/records.service';
import { EarlyLearning } from './early-learning.service';
import { LookAlikesStore } from './look-alikes.store';
import { RecognitionService } from './recognition.service';
import { SCANNED, ScanService } from './scan.service';

const TASK = 'watch-look-alikes';
const REST_SECONDS = 3;
/** Changes that are younger may have older ones beside them that are not committed yet. */
const SETTLED_SECONDS = 2;
const AT_ONCE = 500;
/** While so many submissions wait, routing them comes first. */
const BUSY = 100;
const BUSY_SECONDS = 10;
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
      work: (workspaceId) => this.look(workspaceId),
    });
  }

  /** Looks at every record that changed since the last look. */
  async look(workspaceId: string): Promise<void> {
    if (await this.database.inWorkspace(workspaceId, isBusy)) {
      for (const kind of SCANNED) await this.database.inWorkspace(workspaceId, (tx) => this.early.learn(tx, kind));
      return this.after.again(TASK, workspaceId, BUSY_SECONDS);
    }
    let more = true;
    while (more) more = await this.database.inWorkspace(workspaceId, (tx) => this.#lookOnce(tx));
    // What came while this looked was not settled yet.
    if (await this.database.inWorkspace(workspaceId, (tx) => this.#isBehind(tx)))
      await this.after.again(TASK, workspaceId, REST_SECONDS);
  }

  async #lookOnce(tx: WorkspaceTx): Promise<boolean> {
    const [state] = await tx.statement<{ looked_until: string | null }>(
      'looked_until',
      'select looked_until from recognition where workspace_id = $1 for update',
      [tx.workspaceId],
    );
    const until = settledId();
    if (!state?.looked_until || (await this.#muchIsNew(tx))) {
      // Everything is looked through, and with it what changed until now.
      await this.#lookedUntil(tx, until);
      for (const kind of SCANNED) await this.scans.start(tx, kind, 'Hay Cart');
      return false;
    }
    const changes = await tx.statement<{ id: string; record_kind: RecordKind; record_id: string }>(
      'changes_to_look_at',
      `select id, record_kind, record_id from record_change where workspace_id = $1 and id > $2 and id <= $3 order by id limit ${AT_ONCE}`,
      [tx.workspaceId, state.looked_until, until],
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
    if (changes.length) await this.#lookedUntil(tx, changes[changes.length - 1]!.id);
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
    const [row] = await tx.statement<{ behind: boolean }>(
      'is_look_behind',
      `select exists (select 1 from record_change c, recognition r where r.workspace_id = $1 and c.workspace_id = $1 and c.id > r.looked_until) as behind`,
      [tx.workspaceId],
    );
    return row!.behind;
  }

  async #lookedUntil(tx: WorkspaceTx, id: string): Promise<void> {
    await tx.statement(
      'set_looked_until',
      `insert into recognition (workspace_id, looked_until) values ($1, $2) on conflict (workspace_id) do update set looked_until = excluded.looked_until`,
      [tx.workspaceId, id],
    );
  }
}

async function isBusy(tx: WorkspaceTx): Promise<boolean> {
  const [row] = await tx.statement<{ waiting: number }>(
    'many_waiting',
    `select count(*)::int as waiting from (select 1 from submission where workspace_id = $1 and state = 'waiting' and due_at <= now() limit ${BUSY}) w`,
    [tx.workspaceId],
  );
  return row!.waiting >= BUSY;
}

/** The smallest UUIDv7 (RFC 9562) of a moment ago: what has a smaller id is committed by now. */
function settledId(): string {
  const hex = (Date.now() - SETTLED_SECONDS * 1_000).toString(16).padStart(12, '0');
  return `${hex.slice(0, 8)}-${hex.slice(8)}-7000-8000-000000000000`;
}
