import { Inject, Injectable } from '@nestjs/common';
import type { MadeActivity } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import { Events } from '../../platform/events/events';
import { newId } from '../../platform/new-id';

/** What a follow-up of an attempt makes for a record. */
export interface NewActivity {
  record: string;
  attempt: string;
  /** The place of the follow-up in its route, from 0. */
  effect: number;
  /** When its submission arrived. */
  at: Date;
  /** Who made it, in words: a route. */
  by: string;
  made: MadeActivity;
}

/** How many tasks, notes documents and consents some attempts made that nobody changed since. */
export interface CountedActivities {
  tasks: number;
  notes: number;
  documents: number;
  consents: number;
}

/** Tasks, notes, documents and consents that runs make, and that go when their runs are taken back. */
@Injectable()
export class MadeActivities {
  constructor(@Inject(Events) private readonly events: Events) {}

  /** Makes what is not there yet: asked for twice, a follow-up makes one thing. */
  async make(tx: WorkspaceTx, all: readonly NewActivity[]): Promise<void> {
    const tasks = all.flatMap(({ made, ...rest }) => (made.make === 'task' ? [{ ...rest, made }] : []));
    const notes = all.flatMap(({ made, ...rest }) => (made.make === 'note' ? [{ ...rest, made }] : []));
    const consents = all.flatMap(({ made, ...rest }) => (made.make === 'consent' ? [{ ...rest, made }] : []));
    const documents = all.flatMap(({ made, ...rest }) => (made.make === 'document' ? [{ ...rest, made }] : []));
    const common = (rows: readonly Omit<NewActivity, 'made'>[]) => [
      tx.workspaceId,
      rows.map(() => newId()),
      rows.map(({ record }) => record),
      rows.map(({ attempt }) => attempt),
      rows.map(({ effect }) => effect),
      rows.map(({ by }) => by),
      rows.map(({ at }) => at),
    ];
    if (tasks.length)
      await tx.statement(
        'make_tasks',
        `insert into task (workspace_id, id, record_id, attempt_id, effect, by, at, text, body, owner, due_at, priority)
         select $1::uuid, t.id, t.record, t.attempt, t.effect, t.made_by, t.at, t.title, t.body, p.key, t.due, t.priority
         from unnest($2::uuid[], $3::uuid[], $4::uuid[], $5::int[], $6::text[], $7::timestamptz[], $8::text[], $9::text[], $10::text[], $11::timestamptz[], $12::text[])
           t (id, record, attempt, effect, made_by, at, title, body, owner, due, priority)
         left join person p on p.workspace_id = $1 and p.key = t.owner
         on conflict on constraint task_attempt do nothing`,
        [
          ...common(tasks),
          tasks.map(({ made }) => made.title),
          tasks.map(({ made }) => made.body ?? null),
          tasks.map(({ made }) => made.owner),
          tasks.map(({ made }) => made.due),
          tasks.map(({ made }) => made.priority),
        ],
      );
    if (notes.length)
      await tx.statement(
        'make_notes',
        `insert into note (workspace_id, id, record_id, attempt_id, effect, by, at, title, text)
         select $1::uuid, id, record, attempt, effect, made_by, at, title, said
         from unnest($2::uuid[], $3::uuid[], $4::uuid[], $5::int[], $6::text[], $7::timestamptz[], $8::text[], $9::text[])
           n (id, record, attempt, effect, made_by, at, title, said)
         on conflict on constraint note_attempt do nothing`,
        [...common(notes), notes.map(({ made }) => made.title), notes.map(({ made }) => made.text)],
      );
    if (documents.length)
      await tx.statement(
        'make_documents',
        `insert into record_file (workspace_id, id, record_id, attempt_id, effect, by, at, name, type, size, content)
         select $1::uuid, id, record, attempt, effect, made_by, at, name, 'application/pdf', 0, content::json
         from unnest($2::uuid[], $3::uuid[], $4::uuid[], $5::int[], $6::text[], $7::timestamptz[], $8::text[], $9::text[])
           d (id, record, attempt, effect, made_by, at, name, content)
         on conflict on constraint record_file_attempt do nothing`,
        [
          ...common(documents),
          documents.map(({ made }) => made.name),
          documents.map(({ made: { title, rows = [] } }) => JSON.stringify({ title, rows })),
        ],
      );
    // What is given already does not become pending again.
    if (consents.length)
      await tx.statement(
        'make_consents',
        `insert into consent (workspace_id, id, contact_id, attempt_id, effect, by, at, channel, state, words, place)
         select $1::uuid, c.id, c.record, c.attempt, c.effect, c.made_by, c.at, c.channel, c.state, c.words, c.place
         from unnest($2::uuid[], $3::uuid[], $4::uuid[], $5::int[], $6::text[], $7::timestamptz[], $8::text[], $9::text[], $10::text[], $11::text[])
           c (id, record, attempt, effect, made_by, at, channel, state, words, place)
         where c.state <> 'pending' or 'given' is distinct from (
           select h.state from consent h left join attempt a on a.workspace_id = $1 and a.id = h.attempt_id
           where h.workspace_id = $1 and h.contact_id = c.record and h.channel = c.channel and a.taken_back_by is null order by h.at desc, h.id desc limit 1)
         on conflict on constraint consent_attempt do nothing`,
        [
          ...common(consents),
          consents.map(({ made }) => made.channel),
          consents.map(({ made }) => made.state),
          consents.map(({ made }) => made.words),
          consents.map(({ made }) => made.place),
        ],
      );
    if (tasks.length) await this.events.tell(tx, 'tasks');
  }

  /** What taking attempts back would remove: what nobody changed or did since. */
  async untouched(tx: WorkspaceTx, attempts: readonly string[]): Promise<CountedActivities> {
    const [row] = await tx.statement<CountedActivities & Record<string, number>>(
      'made_untouched',
      `select (select count(*)::int from task where workspace_id = $1 and attempt_id = any($2::uuid[]) and changed_at is null) as tasks,
         (select count(*)::int from note where workspace_id = $1 and attempt_id = any($2::uuid[]) and changed_at is null) as notes,
         (select count(*)::int from record_file where workspace_id = $1 and attempt_id = any($2::uuid[])) as documents,
         (select count(*)::int from consent where workspace_id = $1 and attempt_id = any($2::uuid[])) as consents`,
      [tx.workspaceId, attempts],
    );
    return row!;
  }

  /** Removes what attempts made, but for what somebody changed or did since; and for consents, which count no more. */
  async takeBack(tx: WorkspaceTx, attempts: readonly string[]): Promise<void> {
    for (const table of ['task', 'note'])
      await tx.statement(
        `take_back_${table}s`,
        `delete from ${table} where workspace_id = $1 and attempt_id = any($2::uuid[]) and changed_at is null`,
        [tx.workspaceId, attempts],
      );
    await tx.statement(
      'take_back_documents',
      'delete from record_file where workspace_id = $1 and attempt_id = any($2::uuid[])',
      [tx.workspaceId, attempts],
    );
    await this.events.tell(tx, 'tasks');
  }
}
