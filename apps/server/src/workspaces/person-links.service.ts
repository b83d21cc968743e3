import { Inject, Injectable, Logger } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import type { PersonLinkShape } from '@haycart/api';
import { and, eq, sql } from 'drizzle-orm';
import { newSecret, secretHash } from '../platform/auth/secret';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { isPassword, keptPassword } from './passwords';
import { SessionsService } from './sessions.service';
import { person, personLink } from './tables';

/** Passwords, and the links by which people set them: nobody ever knows the password of somebody else. */
@Injectable()
export class PersonLinks {
  readonly #log = new Logger('security');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SessionsService) private readonly sessions: SessionsService,
  ) {}

  /** Makes the one link of a person to set their password; the one before stops working. It is shown this once. */
  async make(tx: WorkspaceTx, personId: string): Promise<PersonLinkShape> {
    const secret = newSecret();
    const [{ passwordHash } = { passwordHash: null }] = await tx.db
      .select({ passwordHash: person.passwordHash })
      .from(person)
      .where(this.#is(tx, personId));
    const hours = passwordHash === null ? LIMITS.inviteLink.most * 24 : LIMITS.resetLink.most;
    const values = { hash: secretHash(secret), expiresAt: sql`now() + make_interval(hours => ${hours})` };
    await tx.db
      .insert(personLink)
      .values({ workspaceId: tx.workspaceId, personId, ...values })
      .onConflictDoUpdate({ target: [personLink.workspaceId, personLink.personId], set: values });
    this.#log.log({ person: personId }, 'A link to set a password was made.');
    return { address: `/welcome/${secret}`, hours };
  }

  /** Whose link it is. @throws ProblemError 404 for one that ended, or was used. */
  async whose(secret: string): Promise<{ workspaceId: string; personId: string; name: string; email: string }> {
    const [found] = await this.database.gate<{ workspace_id: string; person_id: string }>(
      'person_link',
      secretHash(secret),
    );
    if (!found) throw new ProblemError('not-found', 'This link was used already, or has ended. Ask for another.');
    const { workspace_id: workspaceId, person_id: personId } = found;
    const who = await this.database.inWorkspace(workspaceId, async (tx) => {
      const [row] = await tx.db
        .select({ name: person.name, email: person.email })
        .from(person)
        .where(this.#is(tx, personId));
      return row!;
    });
    return { workspaceId, personId, ...who };
  }

  /** Sets a password by a link, once; all sessions of before end. */
  async use(secret: string, password: string): Promise<{ workspaceId: string; personId: string }> {
    const { workspaceId, personId, email } = await this.whose(secret);
    const kept = await keptPassword(password, email);
    await this.database.inWorkspace(workspaceId, async (tx) => {
      const used = await tx.db
        .delete(personLink)
        .where(and(eq(personLink.workspaceId, workspaceId), eq(personLink.hash, secretHash(secret))))
        .returning();
      if (!used.length) throw new ProblemError('not-found', 'This link was used already. Ask for another.');
      await this.#keep(tx, personId, kept);
      await this.sessions.endAll(tx, personId);
    });
    return { workspaceId, personId };
  }

  /** Changes one's own password; all other sessions end. @throws ProblemError 403 when the old one is wrong. */
  async change(tx: WorkspaceTx, personId: string, old: string, password: string, session: string | undefined) {
    const [row] = await tx.db.select().from(person).where(this.#is(tx, personId));
    if (!(await isPassword(row!.passwordHash, old)))
      throw new ProblemError('refused', 'The old password is wrong.', [
        { at: '/old', code: 'wrong-password', message: 'The old password is wrong.' },
      ]);
    await this.#keep(tx, personId, await keptPassword(password, row!.email));
    await this.sessions.endAll(tx, personId, session);
  }

  async #keep(tx: WorkspaceTx, personId: string, passwordHash: string): Promise<void> {
    await tx.db.update(person).set({ passwordHash }).where(this.#is(tx, personId));
    this.#log.log({ person: personId }, 'A password was set.');
  }

  #is(tx: WorkspaceTx, personId: string) {
    return and(eq(person.workspaceId, tx.workspaceId), eq(person.id, personId));
  }
}
