import { Inject, Injectable } from '@nestjs/common';
import { commonValues, comparedForm, grownModel, startingModel, type RecordKind } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import { RecordsService } from '../records/records.service';
import { withAround } from './read-records';
import { RecognitionService } from '../recognition/recognition.service';

/** Fewer records tell nothing that the starting values do not. */
const FEWEST = 500;
/** How many records are looked at, whatever there is. */
const SAMPLE = 4_000;

/**
 * Learns how many records there are and which values are common, whenever the records have doubled: while a file is brought
 * in, recognising must not go by what was true of a few. Everything else is learned by a scan, when less is going on.
 */
@Injectable()
export class EarlyLearning {
  constructor(
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(RecognitionService) private readonly recognition: RecognitionService,
  ) {}

  async learn(tx: WorkspaceTx, kind: RecordKind): Promise<void> {
    const model = (await this.recognition.models(tx))[kind] ?? startingModel(kind);
    // Numbers are given one after the other, so the highest tells how many there are, at most.
    const [last] = await tx.statement<{ records: number }>(
      `last_number_of_${kind}`,
      `select coalesce(max(number), 0)::int as records from ${kind} where workspace_id = $1`,
      [tx.workspaceId],
    );
    const { records } = last!;
    if (records < FEWEST || records < model.records * 2) return;
    const rows = await tx.statement<{ id: string }>(
      `sample_of_${kind}`,
      `select id from ${kind} where workspace_id = $1 and number % $2 = 0 limit ${SAMPLE}`,
      [tx.workspaceId, Math.ceil(records / SAMPLE)],
    );
    const sample = await withAround(
      tx,
      this.records,
      kind,
      rows.map(({ id }) => id),
    );
    const common = commonValues(sample.map(({ values, ...around }) => comparedForm(kind, values, around)));
    await this.recognition.keepModel(tx, grownModel(model, { records, common, sampled: sample.length }));
  }
}
