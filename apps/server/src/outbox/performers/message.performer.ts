import { Inject, Injectable } from '@nestjs/common';
import { MessagesService } from '../../messaging/messages.service';
import { recordAddress } from '../../platform/addresses';
import type { Config } from '../../platform/config';
import { CONFIG } from '../../platform/tokens';
import type { DueItem, Performed, Performer } from './performer';

/** What a message says, as `message` of the core puts it out. */
interface MessageBody {
  channel?: string;
  number?: string;
  text: string;
}

/** Sends messages, with a link to the record that they are about. */
@Injectable()
export abstract class MessagePerformer implements Performer {
  abstract readonly kind: string;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(MessagesService) private readonly messages: MessagesService,
  ) {}

  perform({ workspaceId, key, body, record }: DueItem, stopping: AbortSignal): Promise<Performed> {
    const { channel, number, text } = body as unknown as MessageBody;
    const link = record ? `\n${recordAddress(this.config, record)}` : '';
    const to = channel === undefined ? { number: number ?? '' } : { channel };
    return this.messages.send(workspaceId, { to, text: `${text}${link}`, key }, stopping);
  }
}
