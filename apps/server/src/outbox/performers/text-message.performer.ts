import { Injectable } from '@nestjs/common';
import { MessagePerformer } from './message.performer';

/** Sends messages to a phone. */
@Injectable()
export class TextMessagePerformer extends MessagePerformer {
  readonly kind = 'text';
}
