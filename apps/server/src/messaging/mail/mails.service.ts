import { Inject, Injectable } from '@nestjs/common';
import { LIMITS, type RenderedMail } from '@haycart/core';
import { createTransport } from 'nodemailer';
import type { Config } from '../../platform/config';
import { Database } from '../../platform/database/database';
import { DomainNames } from '../../platform/domain-names';
import { AddressRefused, allowedAddress } from '../../platform/outgoing/allowed-address';
import type { KeptFile } from '../../platform/send-file';
import type { Tried } from '../../platform/outgoing/posted';
import { CONFIG } from '../../platform/tokens';
import { MailServers, type ReachedMailServer } from './mail-servers.service';

/** A mail to one address. */
export interface Mail extends RenderedMail {
  attachments?: readonly KeptFile[];
  to: string;
  /** The same for each try: its Message-ID (RFC 5322). */
  key: string;
  /** The key of the team in whose name it goes. */
  from?: string | undefined;
  /** Before the `@` of the address that it comes back to where it cannot be delivered, if the workspace has such a domain. */
  returnsTo?: string;
  /** Where its reader ends mails of its kind by one click (RFC 8058). */
  unsubscribe?: string;
}

const TOLD = 200;
/** From here on a server says no for good (RFC 5321). */
const FOR_GOOD = 500;

/** Sends mail by the workspace’s own server. */
@Injectable()
export class MailsService {
  readonly #allowed: readonly string[];

  constructor(
    @Inject(CONFIG) { privateTargets }: Config,
    @Inject(Database) private readonly database: Database,
    @Inject(DomainNames) private readonly names: DomainNames,
    @Inject(MailServers) private readonly servers: MailServers,
  ) {
    this.#allowed = privateTargets;
  }

  /** Tries once. Never throws for what the server says. */
  async send(workspaceId: string, mail: Mail, stopping: AbortSignal): Promise<Tried> {
    const server = await this.database.inWorkspace(workspaceId, (tx) => this.servers.reached(tx));
    if (!server)
      return { ok: false, why: 'Nothing sends mail: set up a mail server under Set up, Mail.', again: false };
    try {
      await this.#deliver(server, mail, stopping);
      return { ok: true };
    } catch (cause) {
      const {
        responseCode: code,
        response,
        message,
      } = cause as { responseCode?: number; response?: string; message: string };
      const isLogin = (cause as { code?: string }).code === 'EAUTH';
      const said = (response ?? message)
        .replaceAll(/[\s\p{Cc}]+/gu, ' ')
        .trim()
        .slice(0, TOLD);
      return {
        ok: false,
        why: code === undefined ? said : `${server.host} answered: ${said}`,
        unanswered: code === undefined && !isLogin,
        again: !(cause instanceof AddressRefused) && (isLogin || code === undefined || code < FOR_GOOD),
      };
    }
  }

  async #deliver(server: ReachedMailServer, mail: Mail, stopping: AbortSignal): Promise<void> {
    const { to, key, subject, text, html, attachments = [], unsubscribe, returnsTo } = mail;
    const { host, port, security, user, password } = server;
    const own =
      mail.from !== undefined && Object.hasOwn(server.senders, mail.from) ? server.senders[mail.from] : undefined;
    const { fromName, fromAddress, replyTo } = own ?? server;
    const pinned = await allowedAddress(host, this.#allowed, this.names);
    const wait = LIMITS.outgoingAnswer.most * 1_000;
    const transport = createTransport({
      host: pinned.address,
      port,
      secure: security === 'tls',
      requireTLS: security === 'starttls',
      ignoreTLS: security === 'none',
      tls: { servername: host },
      ...(user ? { auth: { user, pass: password ?? '' } } : {}),
      connectionTimeout: wait,
      greetingTimeout: wait,
      socketTimeout: wait,
      disableFileAccess: true,
      disableUrlAccess: true,
    });
    const stop = () => transport.close();
    stopping.addEventListener('abort', stop, { once: true });
    try {
      await transport.sendMail({
        from: { name: fromName, address: fromAddress },
        to: { name: '', address: to },
        ...(returnsTo && server.returnDomain
          ? { envelope: { from: `${returnsTo}@${server.returnDomain}`, to: [to] } }
          : {}),
        ...(replyTo ? { replyTo: { name: '', address: replyTo } } : {}),
        subject,
        text,
        ...(html === null ? {} : { html }),
        attachments: attachments.map(({ name: filename, type: contentType, bytes: content }) => ({
          filename,
          contentType,
          content,
        })),
        // The same for each try, also where the team’s sender changes between them.
        messageId: `<${key}@${server.fromAddress.split('@').at(-1)}>`,
        // Nobody's absence note shall answer it (RFC 3834).
        headers: {
          'auto-submitted': 'auto-generated',
          ...(unsubscribe
            ? { 'list-unsubscribe': `<${unsubscribe}>`, 'list-unsubscribe-post': 'List-Unsubscribe=One-Click' }
            : {}),
        },
      });
    } finally {
      stopping.removeEventListener('abort', stop);
      transport.close();
    }
  }
}
