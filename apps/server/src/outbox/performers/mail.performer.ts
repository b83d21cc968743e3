import { Inject, Injectable } from '@nestjs/common';
import type { RenderedMail } from '@haycart/core';
import { MailsService } from '../../messaging/mail/mails.service';
import type { DueItem, Performed, Performer } from './performer';

/** Sends mail: each try of one has one Message-ID. */
@Injectable()
export class MailPerformer implements Performer {
  readonly kind = 'mail';

  constructor(@Inject(MailsService) private readonly mails: MailsService) {}

  perform({ workspaceId, target: to, key, body }: DueItem, stopping: AbortSignal): Promise<Performed> {
    return this.mails.send(workspaceId, { ...(body as unknown as RenderedMail), to, key }, stopping);
  }
}
