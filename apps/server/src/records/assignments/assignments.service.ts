import { Injectable } from '@nestjs/common';
import type { PlannedAssignment, RecordKind } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { newId } from '../../platform/new-id';
import { LATEST, OPEN_RECORDS } from './open-assignments';

/** Somebody who is given a record. */
export interface NewAssignment extends Omit<PlannedAssignment, 'pipeline'> {
  /** The attempt of a run that gives it; null: a missed promise does. */
  attempt: string | null;
  at: Date;
  /** Until when it is to be answered, ISO 8601; null: nothing is promised. */
  due: string | null;
}

/** Something that was not answered in time. */
export interface Unanswered {
  id: string;
  kind: RecordKind;
  record: string;
  name: string;
  /** Who was given it, and who looks after it now. */
  person: string;
  owner: string | null;
  team: string | null;
  pipeline: string | null;
}

/** Who was given what, how that came about, and when somebody first did something about it. */
@Injectable()
export class AssignmentsService {
  async keep(tx: WorkspaceTx, all: readonly NewAssignment[]): Promise<void> {
    if (!all.length) return;
    await tx.statement(
      'keep_assignments',
      `insert into assignment (workspace_id, id, record_kind, record_id, attempt_id, person, team, shares, why, at, due_at)
       select $1::uuid, id, kind, record, attempt, person, team, shares::jsonb, why, at, due
       from unnest($2::uuid[], $3::text[], $4::uuid[], $5::uuid[], $6::text[], $7::text[], $8::text[], $9::text[], $10::timestamptz[], $11::timestamptz[])
         a (id, kind, record, attempt, person, team, shares, why, at, due)`,
      [
        tx.workspaceId,
        all.map(() => newId()),
        all.map(({ record }) => record),
        all.map(({ id }) => id),
        all.map(({ attempt }) => attempt),
        all.map(({ person }) => person),
        all.map(({ team }) => team ?? null),
        all.map(({ shares }) => (shares ? JSON.stringify(shares) : null)),
        all.map(({ why }) => why),
        all.map(({ at }) => at),
        all.map(({ due }) => due),
      ],
    );
  }

  /** A person did something about records: what was given of them, or of the deals and leads of contacts among them, is answered. `at`: now when not said. */
  async touched(tx: WorkspaceTx, records: readonly string[], by: string, at: Date | null = null): Promise<void> {
    if (!records.length) return;
    await tx.statement(
      'touch_assignments',
      `update assignment a set touched_at = coalesce($4, now()), touched_by = $3
       where a.workspace_id = $1 and a.touched_at is null and ${LATEST} and a.record_id in (
         select unnest($2::uuid[])
         union select from_id from record_link where workspace_id = $1 and to_id = any($2::uuid[]) and to_kind = 'contact' and from_kind in ('deal', 'lead')
         union select to_id from record_link where workspace_id = $1 and from_id = any($2::uuid[]) and from_kind = 'contact' and to_kind in ('deal', 'lead'))`,
      [tx.workspaceId, records, by, at],
    );
  }

  /** The same by tasks that a person did. */
  async touchedByTasks(tx: WorkspaceTx, tasks: readonly string[], by: string, at: Date | null = null): Promise<void> {
    const rows = await tx.statement<{ record: string }>(
      'records_of_tasks',
      'select distinct record_id as record from task where workspace_id = $1 and id = any($2::uuid[])',
      [tx.workspaceId, tasks],
    );
    await this.touched(
      tx,
      rows.map(({ record }) => record),
      by,
      at,
    );
  }

  /** Whether anything is still to be answered in time. */
  async anyOpen(tx: WorkspaceTx): Promise<boolean> {
    const rows = await tx.statement(
      'assignments_open',
      'select 1 from assignment where workspace_id = $1 and touched_at is null and missed_at is null and due_at is not null limit 1',
      [tx.workspaceId],
    );
    return rows.length > 0;
  }

  /** What was not answered in time and is not marked yet, the longest due first. */
  async late(tx: WorkspaceTx, limit: number): Promise<{ id: string; record: string }[]> {
    return tx.statement<{ id: string; record: string }>(
      'late_assignments',
      `select id, record_id as record from assignment
       where workspace_id = $1 and touched_at is null and missed_at is null and due_at < now() order by due_at limit $2`,
      [tx.workspaceId, limit],
    );
  }

  /** Marks what is late, and returns what of it is there and open. Of those who mark the same, one is returned it. */
  async markMissed(tx: WorkspaceTx, ids: readonly string[]): Promise<Unanswered[]> {
    const rows = await tx.statement<{ id: string }>(
      'mark_missed',
      `update assignment set missed_at = now() where workspace_id = $1 and id = any($2::uuid[]) and touched_at is null and missed_at is null returning id`,
      [tx.workspaceId, ids],
    );
    if (!rows.length) return [];
    return tx.statement<Unanswered & Record<string, unknown>>(
      'missed_open',
      `select a.id, r.kind, a.record_id as record, r.name, r.owner, a.person, a.team, r.pipeline from assignment a join ${OPEN_RECORDS} on true
       where a.workspace_id = $1 and a.id = any($2::uuid[]) and ${LATEST} order by a.due_at, a.id`,
      [tx.workspaceId, rows.map(({ id }) => id)],
    );
  }

  /** Everybody who was given a record since somebody last touched it. */
  async givenBefore(tx: WorkspaceTx, record: string): Promise<string[]> {
    const rows = await tx.statement<{ person: string }>(
      'given_before',
      'select distinct person from assignment where workspace_id = $1 and record_id = $2 and touched_at is null',
      [tx.workspaceId, record],
    );
    return rows.map(({ person }) => person);
  }
}
