import { createHash } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { LIMITS, pictureType } from '@haycart/core';
import { eq, sql } from 'drizzle-orm';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { oneAtATime } from '../../platform/database/one-at-a-time';
import { ProblemError } from '../../platform/errors/problem-error';
import { newId } from '../../platform/new-id';
import { formPicture } from './tables';

/** Pictures that people upload for their forms, shown to every visitor. */
@Injectable()
export class FormPictures {
  constructor(@Inject(Database) private readonly database: Database) {}

  /**
   * Keeps a picture, and answers where it is shown. The same one again has the same address.
   *
   * @throws ProblemError 415 for what is no PNG, JPEG, GIF or WebP, 409 beyond `LIMITS.formPictures`.
   */
  async keep(tx: WorkspaceTx, bytes: Buffer, by: string): Promise<string> {
    const type = pictureType(bytes);
    if (!type) throw new ProblemError('wrong-type', 'This is no PNG, JPEG, GIF or WebP picture.');
    const hash = createHash('sha256').update(bytes).digest();
    await oneAtATime(tx, 'form pictures');
    const [known] = await tx.db.select({ id: formPicture.id }).from(formPicture).where(eq(formPicture.hash, hash));
    if (known) return addressOf(known.id);
    const [held] = await tx.db.select({ count: sql<number>`count(*)::int` }).from(formPicture);
    if (held!.count >= LIMITS.formPictures.most)
      throw new ProblemError('conflict', `The forms have ${held!.count} pictures, and cannot have more.`);
    const id = newId();
    await tx.db.insert(formPicture).values({ workspaceId: tx.workspaceId, id, type, hash, bytes, by });
    return addressOf(id);
  }

  /** @throws ProblemError 404 */
  async shown(id: string): Promise<{ type: string; bytes: Buffer }> {
    const [found] = await this.database.gate<{ type: string; bytes: Buffer }>('form_picture', id);
    if (!found) throw new ProblemError('not-found', 'There is no picture at this address.');
    return found;
  }
}

function addressOf(id: string): string {
  return `/f/pictures/${id}`;
}
