import { Inject, Injectable } from '@nestjs/common';
import { comparedForm, likeness, startingModel, type RecordKind } from '@haycart/core';
import type { IdentityReport } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { RecordsService } from '../records/records.service';
import { MergesService } from './merges.service';
import { RecognitionService } from '../recognition/recognition.service';
import { ScanService } from './scan.service';
import { ThresholdsService } from './thresholds.service';

const WEEKS = 12;
const MERGES = 20;
/** A merge is suspected when both records, as they were, are this unlike by what is known now. */
const DOUBTFUL = 0.5;
const LOOKED_AT = 200;

/** What recognition did, and how well: figures for whoever answers for the numbers. */
@Injectable()
export class IdentityReportService {
  constructor(
    @Inject(RecognitionService) private readonly recognition: RecognitionService,
    @Inject(ScanService) private readonly scans: ScanService,
    @Inject(ThresholdsService) private readonly thresholds: ThresholdsService,
    @Inject(MergesService) private readonly merges: MergesService,
    @Inject(RecordsService) private readonly records: RecordsService,
  ) {}

  async report(tx: WorkspaceTx, kind: RecordKind): Promise<IdentityReport> {
    const models = await this.recognition.models(tx);
    const { records, learned, sameShare, fields, relations } = models[kind] ?? startingModel(kind);
    const [learnedAt] = await tx.statement<{ at: Date }>(
      'model_learned_at',
      'select learned_at as at from likeness_model where workspace_id = $1 and record_kind = $2',
      [tx.workspaceId, kind],
    );
    return {
      kind,
      settings: await this.recognition.settings(tx),
      model: { records, learned, sameShare, fields, relations, learnedAt: learnedAt?.at.toISOString() ?? null },
      scan: await this.scans.latest(tx, kind),
      scores: await this.thresholds.scores(tx, kind),
      open: await this.#open(tx, kind),
      weeks: await this.#weeks(tx, kind),
      rules: await this.#rules(tx, kind),
      asked: await this.#asked(tx, kind),
      calibration: await this.#calibration(tx, kind),
      suspected: await this.#suspected(tx, kind),
      merges: await this.merges.list(tx, { kind }, MERGES),
    };
  }

  async #open(tx: WorkspaceTx, kind: RecordKind): Promise<number> {
    const [row] = await tx.statement<{ n: number }>(
      'open_look_alikes',
      `select count(*)::int as n from look_alike where workspace_id = $1 and record_kind = $2 and state in ('open', 'later')`,
      [tx.workspaceId, kind],
    );
    return row!.n;
  }

  async #weeks(tx: WorkspaceTx, kind: RecordKind): Promise<IdentityReport['weeks']> {
    return tx.statement(
      `look_alikes_by_week_${kind}`,
      // A duplicate belongs to the week in which the later of the two records came.
      `select to_char(date_trunc('week', r.created_at), 'YYYY-MM-DD') as week, coalesce(i.name, l.intake) as intake, count(*)::int as found
       from look_alike l join ${kind} r on r.workspace_id = l.workspace_id and r.id = l.other_id
       left join intake i on i.workspace_id = l.workspace_id and i.key = l.intake
       where l.workspace_id = $1 and l.record_kind = $2 and l.state <> 'different' and r.created_at >= date_trunc('week', now()) - make_interval(weeks => $3 - 1)
       group by 1, 2 order by 1, 3 desc`,
      [tx.workspaceId, kind, WEEKS],
    );
  }

  async #rules(tx: WorkspaceTx, kind: RecordKind): Promise<IdentityReport['rules']> {
    return tx.statement(
      'matches_by_rule',
      `select split_part(m, ' ', 2) as by, count(*)::int as times from run r cross join lateral unnest(r.matches) m
       where r.workspace_id = $1 and r.outcome = 'written' and r.finished_at > now() - interval '30 days' and split_part(m, ' ', 1) = $2
       group by 1 order by 2 desc`,
      [tx.workspaceId, kind],
    );
  }

  async #asked(tx: WorkspaceTx, kind: RecordKind): Promise<number> {
    const [row] = await tx.statement<{ n: number }>(
      'asked_about',
      `select (select count(*) from run where workspace_id = $1 and outcome = 'held' and reason_code = 'which-record')::int
            + (select count(*) from look_alike where workspace_id = $1 and record_kind = $2 and found_at > now() - interval '30 days')::int as n`,
      [tx.workspaceId, kind],
    );
    return row!.n;
  }

  async #calibration(tx: WorkspaceTx, kind: RecordKind): Promise<IdentityReport['calibration']> {
    const rows = await tx.statement<{ tenth: number; decided: number; same: number }>(
      'calibration',
      `select least(9, floor(probability * 10))::int as tenth, count(*)::int as decided, count(*) filter (where state = 'same')::int as same
       from look_alike where workspace_id = $1 and record_kind = $2 and state in ('same', 'different') and pattern <> '' group by 1 order by 1`,
      [tx.workspaceId, kind],
    );
    return rows.map(({ tenth, decided, same }) => ({ from: tenth / 10, decided, same }));
  }

  /** Merges whose two records are unlike, as they were then and by what is known of likeness now. */
  async #suspected(tx: WorkspaceTx, kind: RecordKind): Promise<IdentityReport['suspected']> {
    const model = (await this.recognition.models(tx))[kind] ?? startingModel(kind);
    const rows = await tx.statement<{ id: string; survivor_id: string; absorbed_id: string }>(
      'merges_to_look_at',
      `select id, survivor_id, absorbed_id from record_merge where workspace_id = $1 and record_kind = $2 and undone_at is null order by at desc limit ${LOOKED_AT}`,
      [tx.workspaceId, kind],
    );
    const diffs = await this.merges.diffs(
      tx,
      rows.map(({ id }) => id),
    );
    const survivors = await this.records.byId(
      tx,
      kind,
      rows.map(({ survivor_id: id }) => id),
    );
    const doubtful = new Map<string, number>();
    for (const { id, survivor_id: survivor, absorbed_id: absorbed } of rows) {
      const diff = diffs.get(id);
      const now = survivors.find((record) => record.id === survivor);
      if (!diff || !now) continue;
      const before = { ...now.values };
      for (const [field, change] of Object.entries(diff.changed[survivor]?.fields ?? {})) {
        if (change.before === null) delete before[field];
        else before[field] = change.before;
      }
      const other = comparedForm(kind, diff.removed[absorbed]!.values);
      const { probability } = likeness(model, comparedForm(kind, before), other);
      if (probability < DOUBTFUL) doubtful.set(id, probability);
    }
    const merges = await this.merges.list(tx, { kind }, LOOKED_AT);
    return merges.flatMap((merge) => (doubtful.has(merge.id) ? [{ ...merge, now: doubtful.get(merge.id)! }] : []));
  }
}
