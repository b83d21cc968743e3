import { Inject, Injectable } from '@nestjs/common';
import type { ConsentChannel } from '@haycart/core';
import { newSecret, secretHash } from '../../platform/auth/secret';
import { Database, type WorkspaceTx } from '../../platform/database/database';

/** What the link in a mail says of whom. */
export interface ConsentLink {
  contact: string;
  /** To which the mail went. */
  address: string;
  channel: ConsentChannel;
  says: 'given' | 'withdrawn';
}

export interface KeptConsentLink extends ConsentLink {
  isLate: boolean;
  isUsed: boolean;
}

/** Who was asked to confirm within so many minutes gets no second mail: the link of the first does. */
const NO_SECOND_MAIL_MINUTES = 10;

/** The links by which contacts say what they agree to: each a secret of its reader, kept as a hash. */
@Injectable()
export class ConsentLinks {
  constructor(@Inject(Database) private readonly database: Database) {}

  /**
   * Makes a link for the mail of a key, which works for some days, or always. Returns its secret. A mail that is tried
   * again has another, since nobody knows whether the one before arrived.
   */
  async make(tx: WorkspaceTx, mail: string, link: ConsentLink, days: number | null): Promise<string> {
    const secret = newSecret();
    await tx.statement(
      'make_consent_link',
      `insert into consent_link (workspace_id, hash, mail_key, contact_id, address, channel, says, expires_at)
       values ($1, $2, $3, $4, $5, $6, $7, now() + make_interval(days => $8))`,
      [tx.workspaceId, secretHash(secret), mail, link.contact, link.address, link.channel, link.says, days],
    );
    return secret;
  }

  /** Whether another mail asked the contact to confirm a moment ago. */
  async wasAsked(tx: WorkspaceTx, contact: string, channel: ConsentChannel, mail: string): Promise<boolean> {
    const rows = await tx.statement(
      'consent_was_asked',
      `select 1 from consent_link where workspace_id = $1 and contact_id = $2 and channel = $3 and says = 'given' and mail_key <> $4
         and made_at > now() - make_interval(mins => ${NO_SECOND_MAIL_MINUTES}) and expires_at > now() limit 1`,
      [tx.workspaceId, contact, channel, mail],
    );
    return rows.length > 0;
  }

  /** The workspace of a link; `null` for one that there is not. */
  async workspaceOf(secret: string): Promise<string | null> {
    const [row] = await this.database.gate<{ workspace_id: string }>('consent_link', secretHash(secret));
    return row?.workspace_id ?? null;
  }

  /** Reads a link, and keeps others from using it meanwhile. */
  async bySecret(tx: WorkspaceTx, secret: string): Promise<KeptConsentLink | null> {
    const [row] = await tx.statement<KeptConsentLink & Record<string, unknown>>(
      'consent_link_by_secret',
      `select contact_id as contact, address, channel, says, coalesce(expires_at < now(), false) as "isLate", used_at is not null as "isUsed"
       from consent_link where workspace_id = $1 and hash = $2 for update`,
      [tx.workspaceId, secretHash(secret)],
    );
    return row ?? null;
  }

  async use(tx: WorkspaceTx, secret: string): Promise<void> {
    await tx.statement(
      'use_consent_link',
      'update consent_link set used_at = now() where workspace_id = $1 and hash = $2 and used_at is null',
      [tx.workspaceId, secretHash(secret)],
    );
  }
}
