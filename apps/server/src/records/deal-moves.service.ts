import { Inject, Injectable } from '@nestjs/common';
import {
  changesBetween,
  emptyDiff,
  isEmptyDiff,
  KnownRecords,
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
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { isId } from '../platform/paging';
import { PipelinesService } from '../pipelines/pipelines.service';
import { KnownRecordsStore } from './known-records.store';
import { RecordWriter } from './record-writer';

/** Deals moved through their pipelines by people, one or many, with history. */
@Injectable()
export class DealMovesService {
  constructor(
    @Inject(KnownRecordsStore) private readonly known: KnownRecordsStore,
    @Inject(RecordWriter) private readonly writer: RecordWriter,
    @Inject(PipelinesService) private readonly pipelines: PipelinesService,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** How many records stand in each stage of each pipeline. */
  async countByPlace(tx: WorkspaceTx): Promise<(PlaceKeys & { count: number })[]> {
    return tx.statement(
      'count_by_place',
      'select pipeline, stage, count(*)::int as count from deal where workspace_id = $1 group by 1, 2',
      [tx.workspaceId],
    );
  }

  /** Moves a deal to another stage of its pipeline, by a person. */
  async move(tx: WorkspaceTx, id: string, stageKey: string, by: string, at: string): Promise<void> {
    const [deal] = isId(id) ? await this.known.byId(tx, 'deal', [id], 'lock') : [];
    if (!deal) throw new ProblemError('not-found', 'There is no such deal.');
    const pipeline = await this.pipelines.one(tx, String(deal.values.pipeline));
    const stage = stageOf(pipeline, stageKey);
    if (!stage)
      throw new ProblemError('refused', `${pipeline.name} has no stage “${stageKey}”.`, [
        { at: '/stage', code: 'unknown-stage', message: 'Choose a stage of the pipeline.' },
      ]);
    if (deal.values.stage === stage.key) return;
    const { closed_at: _, ...open } = deal.values;
    await this.#change(tx, [deal], () => ({ ...open, ...stageValues(pipeline, stage, at) }), by, at);
  }

  /** Moves all that stands in some stages of a pipeline to a stage, by a person. Answers what changed. */
  async moveAll(
    tx: WorkspaceTx,
    from: readonly PlaceKeys[],
    to: { pipeline: Pipeline; stage: Stage },
    by: string,
    at: string,
  ): Promise<RecordsDiff> {
    const deals = await this.#dealsIn(tx, from);
    const placed = stageValues(to.pipeline, to.stage, at);
    return this.#change(tx, deals, ({ closed_at: _, ...values }) => ({ ...values, ...placed }), by, at);
  }

  /** Lets the status of all that stands in a stage follow the stage's state. */
  async followState(tx: WorkspaceTx, pipeline: Pipeline, stage: Stage, by: string, at: string): Promise<void> {
    const deals = await this.#dealsIn(tx, [{ pipeline: pipeline.key, stage: stage.key }]);
    const closed: FieldValues = stage.state === 'open' ? {} : { closed_at: at };
    await this.#change(
      tx,
      deals,
      ({ closed_at: _, ...values }) => ({ ...values, status: stage.state, ...closed }),
      by,
      at,
    );
  }

  /** Takes back what still holds of a diff: what was changed since stays. Answers how many records went back. */
  async takeBack(tx: WorkspaceTx, diff: RecordsDiff, by: string, at: string): Promise<number> {
    const deals = await this.known.byId(tx, 'deal', Object.keys(diff.changed), 'lock');
    const values = new Map(deals.map((deal) => [deal.id, deal.values]));
    // A deal goes back as a whole: one that has moved on since keeps its stage and the time in it.
    const held = stillInForce(diff, (id) => values.get(id));
    const whole = Object.entries(held.changed).filter(
      ([id, { fields }]) => Object.keys(fields).length === Object.keys(diff.changed[id]!.fields).length,
    );
    const back = reverseDiff({ ...emptyDiff(), changed: Object.fromEntries(whole) });
    await this.#write(tx, deals, back, by, at);
    return whole.length;
  }

  async #dealsIn(tx: WorkspaceTx, places: readonly PlaceKeys[]): Promise<KnownRecord[]> {
    const rows = await tx.statement<{ id: string }>(
      'deals_in',
      `select d.id from deal d join unnest($2::text[], $3::text[]) p (pipeline, stage) on d.pipeline = p.pipeline and d.stage = p.stage where d.workspace_id = $1`,
      [tx.workspaceId, places.map(({ pipeline }) => pipeline), places.map(({ stage }) => stage)],
    );
    return this.known.byId(
      tx,
      'deal',
      rows.map(({ id }) => id),
      'lock',
    );
  }

  async #change(
    tx: WorkspaceTx,
    deals: readonly KnownRecord[],
    after: (values: FieldValues) => FieldValues,
    by: string,
    at: string,
  ): Promise<RecordsDiff> {
    const diff = emptyDiff();
    for (const { id, values } of deals) {
      const fields = changesBetween(values, after(values));
      if (Object.keys(fields).length) diff.changed[id] = { kind: 'deal', fields };
    }
    await this.#write(tx, deals, diff, by, at);
    return diff;
  }

  async #write(
    tx: WorkspaceTx,
    deals: readonly KnownRecord[],
    diff: RecordsDiff,
    by: string,
    at: string,
  ): Promise<void> {
    if (isEmptyDiff(diff)) return;
    const known = new KnownRecords(deals);
    known.learn(diff, at);
    await this.writer.write(tx, [{ diff, at, cause: { kind: 'person', id: by } }], known);
    await this.events.tell(tx, 'records', 'pipelines');
  }
}
