import { Inject, Injectable } from '@nestjs/common';
import { LIMITS, newKey, type LibraryFile } from '@haycart/core';
import { and, asc, eq } from 'drizzle-orm';
import type { WorkspaceTx } from '../../platform/database/database';
import { oneAtATime } from '../../platform/database/one-at-a-time';
import { ProblemError } from '../../platform/errors/problem-error';
import { Events } from '../../platform/events/events';
import type { KeptFile } from '../../platform/send-file';
import { mailFile } from '../tables';

const { key, name, size } = mailFile;

/** The workspace’s own files that mails can have attached, such as a price list. */
@Injectable()
export class MailFiles {
  constructor(@Inject(Events) private readonly events: Events) {}

  all(tx: WorkspaceTx): Promise<LibraryFile[]> {
    return tx.db
      .select({ key, name, size })
      .from(mailFile)
      .where(eq(mailFile.workspaceId, tx.workspaceId))
      .orderBy(asc(name), asc(key));
  }

  /** `null` for one that is gone. */
  async one(tx: WorkspaceTx, wanted: string): Promise<KeptFile | null> {
    const [row] = await tx.db.select().from(mailFile).where(this.#of(tx, wanted));
    return row ?? null;
  }

  async add(tx: WorkspaceTx, file: KeptFile & { key?: string }): Promise<LibraryFile> {
    await oneAtATime(tx, 'mail-files');
    const before = await this.all(tx);
    if (before.length >= LIMITS.mailFiles.most)
      throw new ProblemError('refused', `There are ${before.length} files already. Remove one first.`);
    const taken = before.map((one) => one.key);
    const row = { key: file.key ?? newKey(file.name, taken), name: file.name, size: file.bytes.length };
    await tx.db.insert(mailFile).values({ workspaceId: tx.workspaceId, ...row, type: file.type, bytes: file.bytes });
    await this.events.tell(tx, 'channels');
    return row;
  }

  /** Takes the place of a file: routes that name it send the new one from now on. */
  async replace(tx: WorkspaceTx, wanted: string, { name: called, type, bytes }: KeptFile): Promise<LibraryFile> {
    const set = { name: called, type, bytes, size: bytes.length, changedAt: new Date() };
    const rows = await tx.db.update(mailFile).set(set).where(this.#of(tx, wanted)).returning({ key });
    if (!rows.length) throw noFile(wanted);
    await this.events.tell(tx, 'channels');
    return { key: wanted, name: called, size: bytes.length };
  }

  /** Mails that name it and wait are not sent, and say so. */
  async remove(tx: WorkspaceTx, wanted: string): Promise<void> {
    const rows = await tx.db.delete(mailFile).where(this.#of(tx, wanted)).returning({ key });
    if (!rows.length) throw noFile(wanted);
    await this.events.tell(tx, 'channels');
  }

  #of(tx: WorkspaceTx, wanted: string) {
    return and(eq(mailFile.workspaceId, tx.workspaceId), eq(key, wanted));
  }
}

export function noFile(wanted: string): ProblemError {
  return new ProblemError('not-found', `There is no file “${wanted.slice(0, 60)}”.`);
}
