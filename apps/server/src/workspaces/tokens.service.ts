import { Inject, Injectable, Logger } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import type { TokenLine, TokenScope } from '@haycart/api';
import { and, desc, eq, sql } from 'drizzle-orm';
import { newSecret, secretHash } from '../platform/auth/secret';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { newId } from '../platform/new-id';
import { apiToken, person } from './tables';

/** The tokens of scripts. Each belongs to who made it, ends with them or by its time, and is kept as a hash alone. */
@Injectable()
export class TokensService {
  readonly #log = new Logger('security');

  constructor(@Inject(Database) private readonly database: Database) {}

  async all(tx: WorkspaceTx): Promise<TokenLine[]> {
    const rows = await tx.db
      .select({ token: apiToken, by: person.name })
      .from(apiToken)
      .leftJoin(person, and(eq(person.workspaceId, apiToken.workspaceId), eq(person.id, apiToken.personId)))
      .where(eq(apiToken.workspaceId, tx.workspaceId))
      .orderBy(desc(apiToken.createdAt));
    return rows.map(({ token, by }) => ({
      id: token.id,
      name: token.name,
      scope: token.scope,
      by: by ?? 'the command line',
      madeAt: token.createdAt.toISOString(),
      usedAt: token.usedAt?.toISOString() ?? null,
      expiresAt: token.expiresAt?.toISOString() ?? null,
    }));
  }

  /** Makes a token and returns its secret, which is shown this once. */
  async make(
    tx: WorkspaceTx,
    { name, scope, hours, personId }: { name: string; scope: TokenScope; hours: number; personId: string | null },
  ): Promise<{ id: string; secret: string }> {
    const secret = `hc_${newSecret()}`;
    const id = newId();
    await tx.db.insert(apiToken).values({
      workspaceId: tx.workspaceId,
      id,
      name,
      scope,
      personId,
      hash: secretHash(secret),
      expiresAt: sql`now() + make_interval(hours => ${hours})`,
    });
    this.#log.log({ token: id, scope }, 'A token was made.');
    return { id, secret };
  }

  /** Makes a token on the command line, which ends after a day. @throws ProblemError 404 naming the workspaces there are. */
  async makeFor(workspaceKey: string, name: string): Promise<string> {
    const workspaces = await this.database.gate<{ id: string; key: string }>('workspaces');
    const found = workspaces.find(({ key }) => key === workspaceKey);
    if (!found) {
      const known = workspaces.map(({ key }) => key).join(', ') || 'none yet';
      throw new ProblemError('not-found', `There is no workspace “${workspaceKey}”. There is: ${known}.`);
    }
    const wish = { name, scope: 'all' as const, hours: LIMITS.commandToken.most, personId: null };
    return (await this.database.inWorkspace(found.id, (tx) => this.make(tx, wish))).secret;
  }

  async revoke(tx: WorkspaceTx, id: string): Promise<void> {
    const gone = await tx.db
      .delete(apiToken)
      .where(and(eq(apiToken.workspaceId, tx.workspaceId), eq(apiToken.id, id)))
      .returning();
    if (!gone.length) throw new ProblemError('not-found', 'There is no such token, or not any more.');
    this.#log.log({ token: id }, 'A token was revoked.');
  }

  /** Ends the tokens of somebody who leaves. */
  async revokeOf(tx: WorkspaceTx, personId: string): Promise<void> {
    await tx.db.delete(apiToken).where(and(eq(apiToken.workspaceId, tx.workspaceId), eq(apiToken.personId, personId)));
  }
}
