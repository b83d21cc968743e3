import { randomBytes } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { eq } from 'drizzle-orm';
import { SecretBox } from '../platform/auth/secret-box';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { outboxSecret } from './tables';

/** The secrets with which workspaces sign what they post, as Standard Webhooks writes them. */
@Injectable()
export class SigningSecrets {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SecretBox) private readonly box: SecretBox,
  ) {}

  of(workspaceId: string): Promise<string> {
    return this.database.inWorkspace(workspaceId, (tx) => this.current(tx));
  }

  /** The secret; it is made where there is none yet. */
  async current(tx: WorkspaceTx): Promise<string> {
    return (await this.#kept(tx)) ?? this.#make(tx);
  }

  /** Makes another one: what is sent from now on is signed with it. */
  async replace(tx: WorkspaceTx): Promise<string> {
    const secret = newSecret();
    const sealed = this.box.seal(secret, whatOf(tx));
    await tx.db
      .insert(outboxSecret)
      .values({ workspaceId: tx.workspaceId, secret: sealed })
      .onConflictDoUpdate({ target: outboxSecret.workspaceId, set: { secret: sealed, madeAt: new Date() } });
    return secret;
  }

  async #make(tx: WorkspaceTx): Promise<string> {
    const secret = newSecret();
    await tx.db
      .insert(outboxSecret)
      .values({ workspaceId: tx.workspaceId, secret: this.box.seal(secret, whatOf(tx)) })
      .onConflictDoNothing();
    // Somebody else may have made one at the same moment.
    return (await this.#kept(tx))!;
  }

  async #kept(tx: WorkspaceTx): Promise<string | null> {
    const [row] = await tx.db
      .select({ secret: outboxSecret.secret })
      .from(outboxSecret)
      .where(eq(outboxSecret.workspaceId, tx.workspaceId));
    return row ? this.box.open(row.secret, whatOf(tx)) : null;
  }
}

function newSecret(): string {
  return `whsec_${randomBytes(24).toString('base64')}`;
}

function whatOf({ workspaceId }: WorkspaceTx): string {
  return `outbox ${workspaceId}`;
}
