import { Injectable } from '@nestjs/common';
import { MessagePerformer } from './message.performer';

/** Sends messages to a chat. */
@Injectable()
export class ChatPerformer extends MessagePerformer {
  readonly kind = 'chat';
}
