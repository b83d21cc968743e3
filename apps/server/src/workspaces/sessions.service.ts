import { Injectable, Logger } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import type { SessionLine } from '@haycart/api';
import { and, desc, eq, ne, sql } from 'drizzle-orm';
import { newSecret, secretHash } from '../platform/auth/secret';
import type { WorkspaceTx } from '../platform/database/database';
import { session } from './tables';

/** Who is signed in, in which browsers. */
@Injectable()
export class SessionsService {
  readonly #log = new Logger('security');

  /** Begins a session and returns its secret, which is kept as a hash alone. */
  async begin(tx: WorkspaceTx, personId: string, browser: string): Promise<string> {
    const secret = newSecret();
    await tx.db.insert(session).values({
      workspaceId: tx.workspaceId,
      hash: secretHash(secret),
      personId,
      browser: browser.slice(0, 300),
      expiresAt: sql`now() + make_interval(days => ${LIMITS.session.most})`,
    });
    this.#log.log({ person: personId }, 'Somebody signed in.');
    return secret;
  }

  /** A person's sessions, the one used last first. */
  async of(tx: WorkspaceTx, personId: string, secret: string | undefined): Promise<SessionLine[]> {
    const rows = await tx.db.select().from(session).where(this.#of(tx, personId)).orderBy(desc(session.seenAt));
    const own = secret ? secretHash(secret) : null;
    return rows.map(({ id, hash, browser, createdAt, seenAt }) => ({
      id,
      browser,
      begunAt: createdAt.toISOString(),
      usedAt: seenAt.toISOString(),
      current: hash === own,
    }));
  }

  async end(tx: WorkspaceTx, personId: string, id: string): Promise<void> {
    await tx.db.delete(session).where(and(this.#of(tx, personId), eq(session.id, id)));
    this.#log.log({ person: personId }, 'A session was ended.');
  }

  /** Ends all sessions of somebody, but for the one with this secret. */
  async endAll(tx: WorkspaceTx, personId: string, but?: string): Promise<void> {
    const others = but ? ne(session.hash, secretHash(but)) : undefined;
    await tx.db.delete(session).where(and(this.#of(tx, personId), others));
    this.#log.log({ person: personId }, 'Sessions were ended.');
  }

  async signOut(tx: WorkspaceTx, secret: string): Promise<void> {
    await tx.db
      .delete(session)
      .where(and(eq(session.workspaceId, tx.workspaceId), eq(session.hash, secretHash(secret))));
  }

  #of(tx: WorkspaceTx, personId: string) {
    return and(eq(session.workspaceId, tx.workspaceId), eq(session.personId, personId));
  }
}
