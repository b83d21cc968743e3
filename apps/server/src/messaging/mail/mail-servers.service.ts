import { Inject, Injectable } from '@nestjs/common';
import { normalEmail, readDomain } from '@haycart/core';
import type { MailSender, MailServerShape } from '@haycart/api';
import { eq } from 'drizzle-orm';
import { SecretBox } from '../../platform/auth/secret-box';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { Events } from '../../platform/events/events';
import { plainName } from '../plain-name';
import { mailServer } from '../tables';

/** What is set of a mail server. Without a password the one before stays. */
export interface MailServerSetting extends Omit<MailServerShape, 'hasPassword' | 'senders'> {
  password?: string | null | undefined;
}

/** A mail server as it is connected to. */
export interface ReachedMailServer extends Omit<MailServerShape, 'hasPassword'> {
  password: string | null;
}

/** The servers that take the mail of workspaces. */
@Injectable()
export class MailServers {
  constructor(
    @Inject(Events) private readonly events: Events,
    @Inject(SecretBox) private readonly box: SecretBox,
  ) {}

  async shown(tx: WorkspaceTx): Promise<MailServerShape | null> {
    const row = await this.#row(tx);
    return row && { ...settingOf(row), hasPassword: row.password !== null };
  }

  /** `null` where none is set up. */
  async reached(tx: WorkspaceTx): Promise<ReachedMailServer | null> {
    const row = await this.#row(tx);
    return row && { ...settingOf(row), password: row.password && this.box.open(row.password, whatOf(tx)) };
  }

  /** How many mails it takes a minute; `null` for any number, and where none is set up. */
  async perMinute(tx: WorkspaceTx): Promise<number | null> {
    return (await this.#row(tx))?.perMinute ?? null;
  }

  async set(tx: WorkspaceTx, { password, ...given }: MailServerSetting): Promise<MailServerShape> {
    const sealed = password ? this.box.seal(password, whatOf(tx)) : null;
    const set = {
      ...given,
      returnDomain: given.returnDomain === null ? null : checkedDomain(given.returnDomain),
      ...checkedSender(given),
      ...(password === undefined ? {} : { password: sealed }),
      setAt: new Date(),
    };
    await tx.db
      .insert(mailServer)
      .values({ workspaceId: tx.workspaceId, ...set })
      .onConflictDoUpdate({ target: mailServer.workspaceId, set });
    await this.events.tell(tx, 'channels');
    return (await this.shown(tx))!;
  }

  /** Sets in whose name a team writes; in that of all others where it is `null`. @throws ProblemError 404 for no such team, or without a server */
  async setSender(tx: WorkspaceTx, team: string, sender: MailSender | null): Promise<MailServerShape> {
    const [row] = await tx.db.select().from(mailServer).where(eq(mailServer.workspaceId, tx.workspaceId)).for('update');
    if (!row) throw new ProblemError('not-found', 'No mail server is set up yet.');
    const { [team]: _, ...others } = row.senders;
    const senders = sender ? { ...others, [team]: checkedSender(sender) } : others;
    await tx.db.update(mailServer).set({ senders }).where(eq(mailServer.workspaceId, tx.workspaceId));
    await this.events.tell(tx, 'channels');
    return (await this.shown(tx))!;
  }

  /** No mail is sent any more: what waits is given up when it is tried. */
  async remove(tx: WorkspaceTx): Promise<void> {
    await tx.db.delete(mailServer).where(eq(mailServer.workspaceId, tx.workspaceId));
    await this.events.tell(tx, 'channels');
  }

  async #row(tx: WorkspaceTx): Promise<typeof mailServer.$inferSelect | null> {
    const [row] = await tx.db.select().from(mailServer).where(eq(mailServer.workspaceId, tx.workspaceId));
    return row ?? null;
  }
}

function settingOf(row: typeof mailServer.$inferSelect) {
  const { host, port, security, user, fromName, fromAddress, replyTo, returnDomain, perMinute, senders } = row;
  return { host, port, security, user, fromName, fromAddress, replyTo, returnDomain, perMinute, senders };
}

/** @throws ProblemError where an address is none, or the name cannot stand in a header. */
function checkedSender({ fromName, fromAddress, replyTo }: MailSender): MailSender {
  const addresses = [['fromAddress', fromAddress] as const, ['replyTo', replyTo] as const];
  const wrong = addresses.flatMap(([at, address]) => {
    if (address === null || normalEmail(address).ok) return [];
    const message = 'Type one address, such as hello@quillfern.example.';
    return [{ at: `/${at}`, code: 'not-an-email' as const, message }];
  });
  if (wrong.length) throw new ProblemError('refused', wrong[0]!.message, wrong);
  return { fromName: plainName(fromName, '/fromName'), fromAddress, replyTo };
}

/** A domain as it is kept, in ASCII. @throws ProblemError 422 */
function checkedDomain(domain: string): string {
  const read = readDomain(domain);
  if ('host' in read) return read.host;
  throw new ProblemError('refused', read.problem, [
    { at: '/returnDomain', code: 'not-a-domain', message: read.problem },
  ]);
}

function whatOf({ workspaceId }: WorkspaceTx): string {
  return `mail server ${workspaceId}`;
}
