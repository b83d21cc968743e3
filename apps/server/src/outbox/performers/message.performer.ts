import { Inject, Injectable } from '@nestjs/common';
import { dueAt, type DueIn, type JsonValue } from '@haycart/core';
import { MessagesService, type Message } from '../../messaging/messages.service';
import { recordAddress } from '../../platform/addresses';
import type { Config } from '../../platform/config';
import { CONFIG } from '../../platform/tokens';
import type { DueItem, Early, Performed, Performer } from './performer';

/** What a message says, as `message` of the core puts it out. */
interface MessageBody {
  channel?: string;
  number?: string;
  text: string;
  /** Whether it waits for the working hours of whoever gets it. */
  inHours?: boolean;
}

/** The next moment at work. */
const AT_WORK: DueIn = { in: 0, unit: 'hours', working: true };

/** Sends messages, with a link to the record that they are about. */
@Injectable()
export abstract class MessagePerformer implements Performer {
  abstract readonly kind: string;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(MessagesService) private readonly messages: MessagesService,
  ) {}

  async tooEarly({ workspaceId, target, body, takenAt }: DueItem): Promise<Early | null> {
    const { channel, inHours } = bodyOf(body);
    if (!inHours) return null;
    const who = await this.messages.availability(workspaceId, channel === undefined ? { person: target } : { channel });
    const early = Date.parse(dueAt(takenAt.toISOString(), AT_WORK, who)) - takenAt.getTime();
    return early > 0 ? { ok: false, why: 'It waits for working hours.', early: early / 1_000 } : null;
  }

  perMinute({ workspaceId, body }: DueItem): Promise<number | null> {
    return this.messages.perMinute(workspaceId, receiverOf(bodyOf(body)));
  }

  perform(item: DueItem, stopping: AbortSignal, others: readonly DueItem[]): Promise<Performed> {
    const to = receiverOf(bodyOf(item.body));
    const text = [item, ...others].map((one) => this.#said(one)).join('\n\n');
    return this.messages.send(item.workspaceId, { to, text, key: item.key }, stopping);
  }

  #said({ body, record }: DueItem): string {
    const { text } = bodyOf(body);
    return record ? `${text}\n${recordAddress(this.config, record)}` : text;
  }
}

function bodyOf(body: JsonValue): MessageBody {
  return body as unknown as MessageBody;
}

function receiverOf({ channel, number }: MessageBody): Message['to'] {
  return channel === undefined ? { number: number ?? '' } : { channel };
}
