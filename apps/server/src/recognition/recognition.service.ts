import { Injectable } from '@nestjs/common';
import {
  USUAL_MAILBOX_READING,
  USUAL_MERGE_RULES,
  USUAL_THRESHOLDS,
  type Destination,
  type LikenessModel,
  type MailboxReading,
  type MergeRules,
  type RecordKind,
  type Thresholds,
} from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';

/** How a workspace recognises and merges. */
export interface RecognitionSettings {
  mailboxes: MailboxReading;
  merging: MergeRules;
  thresholds: Thresholds;
}

/** Where a change of a record stands among all: by the number of its transaction, then by its id. */
export interface ChangePlace {
  id: string;
  transaction: string;
}

const BEFORE_ALL = '00000000-0000-0000-0000-000000000000';

/** The settings of recognition, and what likeness was learned to be worked out from. */
@Injectable()
export class RecognitionService {
  async settings(tx: WorkspaceTx): Promise<RecognitionSettings> {
    const [row] = await tx.statement<{ [Key in keyof RecognitionSettings]: RecognitionSettings[Key] | null }>(
      'recognition',
      'select mailboxes, merging, thresholds from recognition where workspace_id = $1',
      [tx.workspaceId],
    );
    return {
      mailboxes: row?.mailboxes ?? USUAL_MAILBOX_READING,
      merging: row?.merging ?? USUAL_MERGE_RULES,
      thresholds: row?.thresholds ?? USUAL_THRESHOLDS,
    };
  }

  async change(tx: WorkspaceTx, change: Partial<RecognitionSettings>): Promise<void> {
    const { mailboxes, merging, thresholds } = change;
    await tx.statement(
      'change_recognition',
      `insert into recognition (workspace_id, mailboxes, merging, thresholds) values ($1, $2, $3, $4)
       on conflict (workspace_id) do update set mailboxes = coalesce(excluded.mailboxes, recognition.mailboxes),
         merging = coalesce(excluded.merging, recognition.merging), thresholds = coalesce(excluded.thresholds, recognition.thresholds)`,
      [tx.workspaceId, ...[mailboxes, merging, thresholds].map((part) => (part ? JSON.stringify(part) : null))],
    );
  }

  async models(tx: WorkspaceTx): Promise<Partial<Record<RecordKind, LikenessModel>>> {
    const rows = await tx.statement<{ record_kind: RecordKind; model: LikenessModel }>(
      'likeness_models',
      'select record_kind, model from likeness_model where workspace_id = $1',
      [tx.workspaceId],
    );
    return Object.fromEntries(rows.map(({ record_kind: kind, model }) => [kind, model]));
  }

  async keepModel(tx: WorkspaceTx, model: LikenessModel): Promise<void> {
    await tx.statement(
      'keep_likeness_model',
      `insert into likeness_model (workspace_id, record_kind, model, learned_at) values ($1, $2, $3, now())
       on conflict (workspace_id, record_kind) do update set model = excluded.model, learned_at = excluded.learned_at`,
      [tx.workspaceId, model.record, JSON.stringify(model)],
    );
  }

  /** What a destination knows of recognition. */
  async forDestination(tx: WorkspaceTx): Promise<Pick<Destination, 'likeness' | 'mailboxes' | 'merging'>> {
    const { mailboxes, merging } = await this.settings(tx);
    return { mailboxes, merging, likeness: await this.models(tx) };
  }

  /** The version of keys and blocks that a workspace’s records have; 0 for none. */
  async indexVersion(tx: WorkspaceTx): Promise<number> {
    const [row] = await tx.statement<{ indexed: number }>(
      'records_index_version',
      'select indexed from recognition where workspace_id = $1',
      [tx.workspaceId],
    );
    return row?.indexed ?? 0;
  }

  async keepIndexVersion(tx: WorkspaceTx, version: number): Promise<void> {
    await tx.statement(
      'records_indexed',
      `insert into recognition (workspace_id, indexed) values ($1, $2) on conflict (workspace_id) do update set indexed = excluded.indexed`,
      [tx.workspaceId, version],
    );
  }

  /** Up to which change look-alikes were looked for, which nobody else changes until the transaction ends; null for never. */
  async lookedUntil(tx: WorkspaceTx): Promise<ChangePlace | null> {
    const [row] = await tx.statement<{ id: string | null; transaction: string | null }>(
      'looked_until',
      'select looked_until as id, looked_transaction::text as transaction from recognition where workspace_id = $1 for update',
      [tx.workspaceId],
    );
    return row?.transaction ? { id: row.id ?? BEFORE_ALL, transaction: row.transaction } : null;
  }

  /** Keeps the last change that was looked at; without one, that all are but those of transactions under way. */
  async keepLookedUntil(tx: WorkspaceTx, last?: ChangePlace): Promise<void> {
    await tx.statement(
      'set_looked_until',
      `insert into recognition (workspace_id, looked_until, looked_transaction)
       values ($1, $2, coalesce($3::xid8, pg_snapshot_xmin(pg_current_snapshot())))
       on conflict (workspace_id) do update set looked_until = excluded.looked_until, looked_transaction = excluded.looked_transaction`,
      [tx.workspaceId, last?.id ?? BEFORE_ALL, last?.transaction ?? null],
    );
  }
}
