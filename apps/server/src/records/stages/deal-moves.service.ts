import { Inject, Injectable } from '@nestjs/common';
import {
  changesBetween,
  emptyDiff,
  isEmptyDiff,
  KnownRecords,
  pipelineOf,
  reverseDiff,
  stageOf,
  stageValues,
  stillInForce,
  type FieldValues,
  type KnownRecord,
  type Pipeline,
  type PlaceKeys,
  type RecordsDiff,
  type Stage,
} from '@haycart/core';
import type { DoneEdit } from '@haycart/api';
import type { Caller } from '../../platform/auth/caller';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { Events } from '../../platform/events/events';
import { isId } from '../../platform/paging';
import { PipelinesService } from '../../pipelines/pipelines.service';
import { KnownRecordsStore } from '../known-records.store';
import { RecordActs } from '../edits/record-acts.service';
import { recordName } from '../record-rows';
import { RecordWriter } from '../record-writer';

/** Deals moved through their pipelines by people, one or many, with history. */
@Injectable()
export class DealMovesService {
  constructor(
    @Inject(KnownRecordsStore) private readonly known: KnownRecordsStore,
    @Inject(RecordWriter) private readonly writer: RecordWriter,
    @Inject(PipelinesService) private readonly pipelines: PipelinesService,
    @Inject(RecordActs) private readonly acts: RecordActs,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** How many records stand in each stage of each pipeline. */
  async countByPlace(tx: WorkspaceTx): Promise<(PlaceKeys & { count: number })[]> {
    return tx.statement(
      'count_by_place',
      `select pipeline, stage, count(*)::int as count from deal where workspace_id = $1 group by 1, 2
       union all select pipeline, stage, count(*)::int from lead where workspace_id = $1 and pipeline is not null group by 1, 2`,
      [tx.workspaceId],
    );
  }

  /** The stages in which something is, or into which something ever came: one look into an index for each. */
  async reached(tx: WorkspaceTx): Promise<PlaceKeys[]> {
    return tx.statement(
      'places_reached',
      `select s.pipeline_key as pipeline, s.key as stage from stage s where s.workspace_id = $1 and (
         exists (select 1 from deal d where d.workspace_id = $1 and d.pipeline = s.pipeline_key and d.stage = s.key and d.status = any('{open,won,lost}'))
         or exists (select 1 from lead l where l.workspace_id = $1 and l.pipeline = s.pipeline_key and l.stage = s.key)
         or exists (select 1 from stage_move m where m.workspace_id = $1 and m.pipeline = s.pipeline_key and m.to_stage = s.key))`,
      [tx.workspaceId],
    );
  }

  /** Moves a deal or an open lead to another stage of its pipeline, as one act of whoever asks. */
  async move(
    tx: WorkspaceTx,
    kind: 'deal' | 'lead',
    id: string,
    wish: { stage: string; reason?: string | undefined },
    by: Caller['by'],
    at = new Date().toISOString(),
  ): Promise<DoneEdit> {
    const [done] = await this.moveEach(tx, kind, [{ id, ...wish, at }], by);
    return done!;
  }

  /** Moves several, each to its own stage at its own time: as many acts, written together. */
  async moveEach(
    tx: WorkspaceTx,
    kind: 'deal' | 'lead',
    moves: readonly { id: string; stage: string; reason?: string | undefined; at: string }[],
    by: Caller['by'],
  ): Promise<DoneEdit[]> {
    const ids = moves.map(({ id }) => id);
    const records = ids.every(isId) ? await this.known.byId(tx, kind, ids, 'lock') : [];
    const pipelines = await this.pipelines.all(tx);
    const acts = moves.map(({ id, stage: stageKey, reason, at }) => {
      const record = records.find((one) => one.id === id);
      if (!record) throw new ProblemError('not-found', `There is no such ${kind}.`);
      const pipeline = pipelineOf({ pipelines }, String(record.values.pipeline ?? ''));
      if (!pipeline) throw new ProblemError('conflict', `This ${kind} is in no pipeline.`);
      const stage = stageOf(pipeline, stageKey);
      if (!stage)
        throw new ProblemError('refused', `${pipeline.name} has no stage “${stageKey}”.`, [
          { at: '/stage', code: 'unknown-stage', message: 'Choose a stage of the pipeline.' },
        ]);
      if (kind === 'lead') refuseLeadMove(record, stage);
      const { closed_at: _, reason: __, ...open } = record.values;
      const why: FieldValues = reason !== undefined && stage.state !== 'open' ? { reason } : {};
      const after = { ...open, ...stageValues(pipeline, stage, at), ...why };
      const diff = emptyDiff();
      if (record.values.stage !== stage.key) diff.changed[id] = { kind, fields: changesBetween(record.values, after) };
      return { diff, text: `Moved ${recordName(kind, record.values)} to ${stage.name}`, at };
    });
    return this.acts.applyEach(tx, records, [], acts, by);
  }

  /** Moves all that stands in some stages of a pipeline to a stage, by a person. Answers what changed. */
  async moveAll(
    tx: WorkspaceTx,
    from: readonly PlaceKeys[],
    to: { pipeline: Pipeline; stage: Stage },
    by: string,
    at: string,
  ): Promise<RecordsDiff> {
    const standing = await this.#standingIn(tx, from);
    const placed = stageValues(to.pipeline, to.stage, at);
    return this.#change(tx, standing, ({ closed_at: _, ...values }) => ({ ...values, ...placed }), by, at);
  }

  /** Lets the status of all that stands in a stage follow the stage's state. */
  async followState(tx: WorkspaceTx, pipeline: Pipeline, stage: Stage, by: string, at: string): Promise<void> {
    const standing = await this.#standingIn(tx, [{ pipeline: pipeline.key, stage: stage.key }]);
    const { stage_since: _, ...placed } = stageValues(pipeline, stage, at);
    await this.#change(tx, standing, ({ closed_at: __, ...values }) => ({ ...values, ...placed }), by, at);
  }

  /** Takes back what still holds of a diff: what was changed since stays. Answers how many records went back. */
  async takeBack(tx: WorkspaceTx, diff: RecordsDiff, by: string, at: string): Promise<number> {
    const records = await this.#byIds(tx, Object.keys(diff.changed));
    const values = new Map(records.map((record) => [record.id, record.values]));
    // A deal goes back as a whole: one that has moved on since keeps its stage and the time in it.
    const held = stillInForce(
      diff,
      (id) => values.get(id),
      () => false,
    );
    const whole = Object.entries(held.changed).filter(
      ([id, { fields }]) => Object.keys(fields).length === Object.keys(diff.changed[id]!.fields).length,
    );
    const back = reverseDiff({ ...emptyDiff(), changed: Object.fromEntries(whole) });
    await this.#write(tx, records, back, by, at);
    return whole.length;
  }

  /** The deals and leads in some places. */
  async #standingIn(tx: WorkspaceTx, places: readonly PlaceKeys[]): Promise<KnownRecord[]> {
    const rows = await tx.statement<{ id: string }>(
      'standing_in',
      `with place as (select * from unnest($2::text[], $3::text[]) p (pipeline, stage))
       select d.id from deal d join place p on d.pipeline = p.pipeline and d.stage = p.stage where d.workspace_id = $1
       union all select l.id from lead l join place p on l.pipeline = p.pipeline and l.stage = p.stage where l.workspace_id = $1`,
      [tx.workspaceId, places.map(({ pipeline }) => pipeline), places.map(({ stage }) => stage)],
    );
    return this.#byIds(
      tx,
      rows.map(({ id }) => id),
    );
  }

  async #byIds(tx: WorkspaceTx, ids: readonly string[]): Promise<KnownRecord[]> {
    return [...(await this.known.byId(tx, 'deal', ids, 'lock')), ...(await this.known.byId(tx, 'lead', ids, 'lock'))];
  }

  async #change(
    tx: WorkspaceTx,
    records: readonly KnownRecord[],
    after: (values: FieldValues) => FieldValues,
    by: string,
    at: string,
  ): Promise<RecordsDiff> {
    const diff = emptyDiff();
    for (const { id, kind, values } of records) {
      const fields = changesBetween(values, after(values));
      if (Object.keys(fields).length) diff.changed[id] = { kind, fields };
    }
    await this.#write(tx, records, diff, by, at);
    return diff;
  }

  async #write(
    tx: WorkspaceTx,
    records: readonly KnownRecord[],
    diff: RecordsDiff,
    by: string,
    at: string,
  ): Promise<void> {
    if (isEmptyDiff(diff)) return;
    const known = new KnownRecords(records);
    known.learn(diff, at);
    await this.writer.write(tx, [{ diff, at, cause: { kind: 'person', id: by } }], known);
    await this.events.tell(tx, 'records', 'pipelines');
  }
}

/** A lead ends by being qualified or set aside, which ask for more than a stage. */
function refuseLeadMove({ values }: KnownRecord, { state }: Stage): void {
  if (values.status !== 'open') throw new ProblemError('conflict', 'This lead is closed. Open it again first.');
  if (state === 'won') throw new ProblemError('conflict', 'Qualify the lead: that makes its contact and its deal.');
  if (state === 'lost') throw new ProblemError('conflict', 'Set the lead aside, and say why.');
}
