import { Inject, Injectable } from '@nestjs/common';
import { LIMITS, withLink, type MailAttachment, type RenderedMail } from '@haycart/core';
import { MailFiles } from '../../messaging/mail/mail-files.service';
import { MailServers } from '../../messaging/mail/mail-servers.service';
import { MailsService } from '../../messaging/mail/mails.service';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { PdfWriter } from '../../platform/pdf/pdf-writer.service';
import type { KeptFile } from '../../platform/send-file';
import { ReturnAddresses } from '../returns/return-addresses';
import { MailConsent, type NeededConsent } from './mail-consent.service';
import type { DueItem, Performed, Performer } from './performer';

const TOO_LARGE = `More is attached than a mail takes: ${LIMITS.mailAttached.most / 1_048_576} MB in all.`;

/** A question that somebody is asked before a run writes anything. */
interface Question {
  submission: string;
  route: string;
  hold: number;
}

type MailBody = RenderedMail & {
  attached?: MailAttachment[];
  /** The key of the team in whose name it goes. */
  from?: string;
  /** It goes only while this is not answered. */
  unanswered?: Question;
} & (NeededConsent | { consent?: undefined });

/** Sends mail: each try of one has one Message-ID. */
@Injectable()
export class MailPerformer implements Performer {
  readonly kind = 'mail';

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MailConsent) private readonly consent: MailConsent,
    @Inject(MailFiles) private readonly files: MailFiles,
    @Inject(MailServers) private readonly servers: MailServers,
    @Inject(MailsService) private readonly mails: MailsService,
    @Inject(PdfWriter) private readonly pdfs: PdfWriter,
    @Inject(ReturnAddresses) private readonly returns: ReturnAddresses,
  ) {}

  perMinute({ workspaceId }: DueItem): Promise<number | null> {
    return this.database.inWorkspace(workspaceId, (tx) => this.servers.perMinute(tx));
  }

  async perform(item: DueItem, stopping: AbortSignal): Promise<Performed> {
    const { workspaceId, target: to, key, createdAt } = item;
    const body = item.body as unknown as MailBody;
    const { attached = [], subject, text, html, from, unanswered } = body;
    if (unanswered && !(await this.database.inWorkspace(workspaceId, (tx) => isOpen(tx, unanswered))))
      return { ok: false, why: 'It was answered before.', unwanted: true };
    const attachments: KeptFile[] = [];
    if (attached.length) {
      const found = await this.database.inWorkspace(workspaceId, (tx) => this.#found(tx, attached));
      if (typeof found === 'string') return { ok: false, why: found, again: false };
      attachments.push(...found);
      for (const one of attached)
        if ('document' in one)
          attachments.push({
            name: one.name,
            type: 'application/pdf',
            bytes: await this.pdfs.write(one.document, createdAt),
          });
      const size = attachments.reduce((sum, { bytes }) => sum + bytes.length, 0);
      if (size > LIMITS.mailAttached.most)
        return {
          ok: false,
          why: TOO_LARGE,
          again: false,
        };
    }
    const mail = { subject, text, html, to, key, from, attachments, returnsTo: this.returns.addressOf(item.id) };
    if (!body.consent) return this.mails.send(workspaceId, mail, stopping);
    const agreed = await this.consent.agreed(item, body);
    if ('why' in agreed) return { ok: false, why: agreed.why, unwanted: true };
    const unsubscribe = body.consent === 'given' ? { unsubscribe: agreed.link } : {};
    return this.mails.send(workspaceId, { ...withLink(mail, agreed.link), ...unsubscribe }, stopping);
  }

  /** The files that are kept here; or a sentence where one of them is gone. */
  async #found(tx: WorkspaceTx, attached: readonly MailAttachment[]): Promise<KeptFile[] | string> {
    const found: KeptFile[] = [];
    for (const one of attached) {
      if ('uploads' in one) {
        const uploads = await uploadsOf(tx, one.uploads);
        if (!uploads) return TOO_LARGE;
        found.push(...uploads);
      }
      if (!('file' in one)) continue;
      const file = await this.files.one(tx, one.file);
      if (!file) return `There is no file “${one.file}” any more that it could have attached.`;
      found.push(file);
    }
    return found;
  }
}

async function isOpen(tx: WorkspaceTx, { submission, route, hold }: Question): Promise<boolean> {
  const rows = await tx.statement(
    'question_is_open',
    `select 1 from asked a join run r on r.workspace_id = $1 and r.submission_id = a.submission_id and r.route_id = a.route_id
     where a.workspace_id = $1 and a.submission_id = $2 and a.route_id = $3 and a.hold = $4 and a.open and r.outcome = 'held' and r.reason_code = a.what limit 1`,
    [tx.workspaceId, submission, route, hold],
  );
  return rows.length > 0;
}

/** What a visitor sent; `null` where that is more than a mail takes, and is not read. */
async function uploadsOf(tx: WorkspaceTx, submission: string): Promise<KeptFile[] | null> {
  const rows = await tx.statement<{ name: string; type: string; bytes: Buffer | null }>(
    'attached_uploads',
    `select name, type, case when sum(octet_length(bytes)) over (order by id) <= $3 then bytes end as bytes
     from submission_file where workspace_id = $1 and submission_id = $2 order by id`,
    [tx.workspaceId, submission, LIMITS.mailAttached.most],
  );
  return rows.every(({ bytes }) => bytes !== null) ? (rows as KeptFile[]) : null;
}
