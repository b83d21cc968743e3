import { Inject, Injectable, Logger } from '@nestjs/common';
import type { EntryLinkShape } from '@haycart/api';
import { and, eq } from 'drizzle-orm';
import { newSecret, secretHash } from '../platform/auth/secret';
import { SecretBox } from '../platform/auth/secret-box';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ShortMemory } from '../platform/short-memory';
import { entryLink } from './tables';

/** Whose entry link it is, and to which form. */
export interface EntryHolder {
  workspaceId: string;
  intakeId: string;
  person: { key: string; name: string };
}

/** The links by which colleagues enter into forms in their own name, signed in or not. */
@Injectable()
export class EntryLinks {
  readonly #log = new Logger('security');
  readonly #holders = new ShortMemory<EntryHolder | null>(5_000);

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SecretBox) private readonly box: SecretBox,
  ) {}

  /** A person's link into a form; made when they ask for the first time. */
  async of(tx: WorkspaceTx, intakeId: string, personId: string): Promise<EntryLinkShape> {
    await tx.db
      .insert(entryLink)
      .values({ workspaceId: tx.workspaceId, intakeId, personId, ...this.#kept(newSecret(), intakeId) })
      .onConflictDoNothing();
    const [row] = await tx.db
      .select()
      .from(entryLink)
      .where(this.#one(tx, intakeId, personId));
    return linkWith(this.box.open(row!.secret, `entry ${intakeId}`));
  }

  /** A new link; the one before stops working within seconds. */
  async renew(tx: WorkspaceTx, intakeId: string, personId: string): Promise<EntryLinkShape> {
    const before = await this.of(tx, intakeId, personId);
    const secret = newSecret();
    await tx.db
      .update(entryLink)
      .set(this.#kept(secret, intakeId))
      .where(this.#one(tx, intakeId, personId));
    this.#holders.forget(before.secret);
    this.#log.log({ person: personId, intake: intakeId }, 'An entry link was renewed.');
    return linkWith(secret);
  }

  #kept(secret: string, intakeId: string): { secret: string; hash: string } {
    return { secret: this.box.seal(secret, `entry ${intakeId}`), hash: secretHash(secret) };
  }

  /** Whose link it is; `null` for one that there is not, not any more, or of a person who is not active. */
  async holder(secret: string): Promise<EntryHolder | null> {
    const known = this.#holders.get(secret);
    if (known !== undefined) return known;
    const [row] = await this.database.gate<{
      workspace_id: string;
      intake_id: string;
      person_key: string;
      person_name: string;
    }>('entry', secretHash(secret));
    const holder = row
      ? {
          workspaceId: row.workspace_id,
          intakeId: row.intake_id,
          person: { key: row.person_key, name: row.person_name },
        }
      : null;
    return this.#holders.keep(secret, holder);
  }

  /** Who enters into a form by what a page or a post gives as its link; `null` for anybody else. */
  async enteredBy(intakeId: string, secret: unknown): Promise<EntryHolder | null> {
    if (typeof secret !== 'string' || secret === '' || secret.length > 100) return null;
    const holder = await this.holder(secret);
    return holder?.intakeId === intakeId ? holder : null;
  }

  #one(tx: WorkspaceTx, intakeId: string, personId: string) {
    return and(
      eq(entryLink.workspaceId, tx.workspaceId),
      eq(entryLink.intakeId, intakeId),
      eq(entryLink.personId, personId),
    );
  }
}

function linkWith(secret: string): EntryLinkShape {
  return { secret, address: `/entry/${secret}` };
}
