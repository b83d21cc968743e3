import { Inject, Injectable } from '@nestjs/common';
import type { Page, TaskCounts, TaskLine, TaskState } from '@haycart/api';
import type { RecordKind, TaskPriority } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import type { Caller } from '../../platform/auth/caller';
import { Events } from '../../platform/events/events';
import { PeopleService } from '../../workspaces/people.service';
import { AssignmentsService } from '../assignments/assignments.service';
import { pageOf, type Cursor } from '../../platform/paging';

interface Row {
  id: string;
  text: string;
  body: string | null;
  priority: TaskPriority;
  owner: string | null;
  due: string | null;
  by: string;
  at: Date;
  done_at: Date | null;
  done_by: string | null;
  kind: RecordKind;
  record: string;
  name: string;
  place: string;
}

/** A task that somebody is to do, with what it is about. */
export interface OpenTask {
  id: string;
  record: string;
  kind: RecordKind;
}

/** Later than any time at which something is due: where what is due at any time stands in an order. */
const ANY_TIME = '9999-12-31T00:00:00Z';

/** Tasks of all records. Those of a record that was deleted are in no list. */
@Injectable()
export class TasksService {
  constructor(
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(AssignmentsService) private readonly assignments: AssignmentsService,
    @Inject(Events) private readonly events: Events,
  ) {}

  /** Open ones with the next due first, done ones with the latest first; `owner` null for everybody’s. */
  async list(
    tx: WorkspaceTx,
    { owner, state }: { owner: string | null; state: TaskState },
    limit: number,
    after: Cursor | null,
  ): Promise<Page<TaskLine>> {
    const isDone = state === 'done';
    const order = isDone ? 'done_at' : `coalesce(until, '${ANY_TIME}')`;
    const rows = await tx.statement<Row & Record<string, unknown>>(
      `tasks_${state}`,
      `select t.id, t.text, t.body, t.priority, t.owner, coalesce(to_char(t.due_at at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'), t.due::text) as due,
         t.by, t.at, t.done_at, t.done_by, n.kind, t.record_id as record, n.name,
         to_char(${order} at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') as place
       from task t join lateral (
         select 'contact' as kind, coalesce(full_name, email, phone, 'without a name') as name from contact where workspace_id = $1 and id = t.record_id
         union all select 'company', name from company where workspace_id = $1 and id = t.record_id
         union all select 'lead', name from lead where workspace_id = $1 and id = t.record_id
         union all select 'deal', name from deal where workspace_id = $1 and id = t.record_id) n on true
       where t.workspace_id = $1 and t.done_at is ${isDone ? 'not null' : 'null'} and ($2::text is null or t.owner = $2)
         ${state === 'overdue' ? 'and t.until < now()' : ''}
         and ($3::timestamptz is null or (${order}, t.id) ${isDone ? '<' : '>'} ($3, $4::uuid))
       order by ${order} ${isDone ? 'desc' : ''}, t.id ${isDone ? 'desc' : ''} limit $5`,
      [tx.workspaceId, owner, after?.at ?? null, after?.id ?? null, limit + 1],
    );
    return pageOf(rows, limit, lineOf, ({ place, id }) => ({ at: place, id }));
  }

  async count(tx: WorkspaceTx, owner: string | null): Promise<TaskCounts> {
    const [row] = await tx.statement<TaskCounts & Record<string, number>>(
      'count_tasks',
      `select count(*)::int as open, count(*) filter (where until < now())::int as overdue,
         count(*) filter (where until >= now() and until <= date_trunc('day', now(), 'UTC') + interval '1 day')::int as today
       from task t where workspace_id = $1 and done_at is null and ($2::text is null or owner = $2)`,
      [tx.workspaceId, owner],
    );
    return row!;
  }

  /** Marks tasks as done, or as open again. Returns how many were not so before. `at`: now when not said. */
  async finish(
    tx: WorkspaceTx,
    ids: readonly string[],
    done: boolean,
    by: Caller['by'],
    at: Date | null = null,
  ): Promise<{ changed: number }> {
    const name = await this.people.nameOf(tx, by);
    const rows = await tx.statement(
      'finish_tasks',
      `update task set done_at = case when $3 then coalesce($5, now()) end, done_by = case when $3 then $4 end, changed_at = now()
       where workspace_id = $1 and id = any($2::uuid[]) and (done_at is not null) <> $3 returning id`,
      [tx.workspaceId, ids, done, name, at],
    );
    if (done && by.kind === 'person') await this.assignments.touchedByTasks(tx, ids, name, at);
    if (rows.length) await this.events.tell(tx, 'tasks', 'records');
    return { changed: rows.length };
  }

  /** How many open tasks each of some people has, by key; whoever has none is left out. */
  async openOf(tx: WorkspaceTx, people: readonly string[]): Promise<Map<string, number>> {
    if (!people.length) return new Map();
    const rows = await tx.statement<{ owner: string; open: number }>(
      'open_tasks_of',
      `select owner, count(*)::int as open from task where workspace_id = $1 and done_at is null and owner = any($2::text[]) group by owner`,
      [tx.workspaceId, people],
    );
    return new Map(rows.map(({ owner, open }) => [owner, open]));
  }

  /** The open tasks of somebody, the oldest first. Those of a record that was deleted are none. */
  async openTasksOf(tx: WorkspaceTx, owner: string, limit: number): Promise<OpenTask[]> {
    return tx.statement<OpenTask & Record<string, unknown>>(
      'open_tasks_with_records',
      `select t.id, t.record_id as record, n.kind from task t join lateral (
         select 'contact' as kind from contact where workspace_id = $1 and id = t.record_id
         union all select 'company' from company where workspace_id = $1 and id = t.record_id
         union all select 'lead' from lead where workspace_id = $1 and id = t.record_id
         union all select 'deal' from deal where workspace_id = $1 and id = t.record_id) n on true
       where t.workspace_id = $1 and t.done_at is null and t.owner = $2 order by t.at, t.id limit $3`,
      [tx.workspaceId, owner, limit],
    );
  }

  /** Gives open tasks to somebody else. */
  async give(tx: WorkspaceTx, ids: readonly string[], owner: string): Promise<void> {
    await tx.statement(
      'give_tasks',
      `update task set owner = $3, changed_at = now() where workspace_id = $1 and id = any($2::uuid[]) and done_at is null`,
      [tx.workspaceId, ids, owner],
    );
    await this.events.tell(tx, 'tasks', 'records');
  }

  /** How many open tasks of a person, by id, are due today or overdue. */
  async dueOf(tx: WorkspaceTx, personId: string): Promise<number> {
    const [row] = await tx.statement<{ due: number }>(
      'count_tasks_due',
      `select count(*)::int as due from task where workspace_id = $1 and done_at is null and owner = (select key from person where workspace_id = $1 and id = $2)
         and until <= date_trunc('day', now(), 'UTC') + interval '1 day'`,
      [tx.workspaceId, personId],
    );
    return row!.due;
  }
}

function lineOf({ done_at: doneAt, done_by: doneBy, at, place: _, ...row }: Row): TaskLine {
  return { ...row, at: at.toISOString(), doneAt: doneAt?.toISOString() ?? null, doneBy };
}
