import { Inject, Injectable } from '@nestjs/common';
import type { TaskPriority } from '@haycart/core';
import type { FileShape, NoteShape, TaskShape } from '@haycart/api';
import { and, eq, sql } from 'drizzle-orm';
import type { Caller } from '../../platform/auth/caller';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { Events } from '../../platform/events/events';
import { newId } from '../../platform/new-id';
import { isId } from '../../platform/paging';
import { PdfWriter } from '../../platform/pdf/pdf-writer.service';
import { PeopleService } from '../../workspaces/people.service';
import { AssignmentsService } from '../assignments/assignments.service';
import { note, recordFile, task } from './tables';

const KEPT = { notes: note, tasks: task, files: recordFile };

export interface TaskChange {
  text?: string | undefined;
  body?: string | null | undefined;
  priority?: TaskPriority | undefined;
  owner?: string | null | undefined;
  due?: string | null | undefined;
  done?: boolean | undefined;
}

export interface NewTask {
  text: string;
  body?: string | null | undefined;
  priority?: TaskPriority | undefined;
  owner?: string | null | undefined;
  due?: string | null | undefined;
}

/** What people keep beside a record's values: notes, tasks and files. */
@Injectable()
export class ActivitiesService {
  constructor(
    @Inject(PdfWriter) private readonly pdfs: PdfWriter,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(AssignmentsService) private readonly assignments: AssignmentsService,
    @Inject(Events) private readonly events: Events,
  ) {}

  async addNote(
    tx: WorkspaceTx,
    recordId: string,
    text: string,
    by: Caller['by'],
    at = new Date(),
  ): Promise<NoteShape> {
    const row = { id: newId(), recordId, text, ...(await this.#signed(tx, by, at)), changedAt: null };
    await tx.db.insert(note).values({ workspaceId: tx.workspaceId, ...row });
    if (by.kind === 'person') await this.assignments.touched(tx, [recordId], row.by, at);
    await this.events.tell(tx, 'records');
    return { id: row.id, title: '', text, by: row.by, at: row.at.toISOString(), changedAt: null };
  }

  async changeNote(tx: WorkspaceTx, recordId: string, id: string, text: string): Promise<void> {
    const rows = await tx.db
      .update(note)
      .set({ text, changedAt: new Date() })
      .where(and(eq(note.workspaceId, tx.workspaceId), eq(note.recordId, recordId), eq(note.id, idOr404(id))))
      .returning({ id: note.id });
    await this.#done(tx, rows.length);
  }

  async addTask(
    tx: WorkspaceTx,
    recordId: string,
    { text, body = null, priority = 'normal', owner = null, due = null }: NewTask,
    by: Caller['by'],
    at = new Date(),
  ): Promise<TaskShape> {
    const row = { id: newId(), recordId, text, body, priority, owner, due, ...(await this.#signed(tx, by, at)) };
    await tx.db.insert(task).values({ workspaceId: tx.workspaceId, ...row });
    await this.events.tell(tx, 'tasks', 'records');
    const { id } = row;
    return { id, text, body, priority, owner, due, by: row.by, at: row.at.toISOString(), doneAt: null, doneBy: null };
  }

  async changeTask(
    tx: WorkspaceTx,
    recordId: string,
    id: string,
    { done, due, ...change }: TaskChange,
    by: Caller['by'],
  ): Promise<void> {
    const signed = await this.#signed(tx, by);
    const state = done === undefined ? {} : { doneAt: done ? signed.at : null, doneBy: done ? signed.by : null };
    const when = due === undefined ? {} : { due, dueAt: null };
    const set = Object.fromEntries(
      Object.entries({ ...change, ...when, ...state }).filter(([, value]) => value !== undefined),
    );
    if (!Object.keys(set).length) return;
    const rows = await tx.db
      .update(task)
      .set({ ...set, changedAt: signed.at })
      .where(and(eq(task.workspaceId, tx.workspaceId), eq(task.recordId, recordId), eq(task.id, idOr404(id))))
      .returning({ id: task.id });
    await this.#done(tx, rows.length);
    if (done && by.kind === 'person') await this.assignments.touched(tx, [recordId], signed.by);
    await this.events.tell(tx, 'tasks');
  }

  async addFile(
    tx: WorkspaceTx,
    recordId: string,
    { name, type, bytes }: { name: string; type: string; bytes: Buffer },
    by: Caller['by'],
  ): Promise<FileShape> {
    const row = { id: newId(), recordId, name, type, size: bytes.length, ...(await this.#signed(tx, by)) };
    await tx.db.insert(recordFile).values({ workspaceId: tx.workspaceId, ...row, bytes });
    await this.events.tell(tx, 'records');
    return { id: row.id, name, type, size: row.size, by: row.by, at: row.at.toISOString(), submission: null };
  }

  async file(tx: WorkspaceTx, recordId: string, id: string): Promise<{ name: string; type: string; bytes: Buffer }> {
    const [found] = await tx.db
      .select({
        name: recordFile.name,
        type: recordFile.type,
        bytes: recordFile.bytes,
        content: recordFile.content,
        at: recordFile.at,
      })
      .from(recordFile)
      .where(
        and(
          eq(recordFile.workspaceId, tx.workspaceId),
          eq(recordFile.recordId, recordId),
          eq(recordFile.id, idOr404(id)),
        ),
      );
    if (!found) throw gone();
    const { name, type, bytes, content, at } = found;
    return { name, type, bytes: bytes ?? (await this.pdfs.write(content!, at)) };
  }

  /** Removes a note, a task or a file for good. */
  async remove(tx: WorkspaceTx, what: keyof typeof KEPT, recordId: string, id: string): Promise<void> {
    const table = KEPT[what];
    const rows = await tx.db
      .delete(table)
      .where(and(eq(table.workspaceId, tx.workspaceId), eq(table.recordId, recordId), eq(table.id, idOr404(id))))
      .returning({ id: table.id });
    await this.#done(tx, rows.length);
  }

  /** Refuses what is meant for a record that is not there. */
  async refuseGone(tx: WorkspaceTx, kind: string, id: string): Promise<void> {
    const found = isId(id)
      ? await tx.db.execute(
          sql`select 1 from ${sql.identifier(kind)} where workspace_id = ${tx.workspaceId} and id = ${id} for key share`,
        )
      : { rows: [] };
    if (!found.rows.length) throw new ProblemError('not-found', `There is no such ${kind}.`);
  }

  async #signed(tx: WorkspaceTx, by: Caller['by'], at = new Date()): Promise<{ by: string; at: Date }> {
    return { by: await this.people.nameOf(tx, by), at };
  }

  async #done(tx: WorkspaceTx, changed: number): Promise<void> {
    if (!changed) throw gone();
    await this.events.tell(tx, 'records');
  }
}

function idOr404(id: string): string {
  if (!isId(id)) throw gone();
  return id;
}

function gone(): ProblemError {
  return new ProblemError('not-found', 'There is nothing like that on this record any more.');
}
