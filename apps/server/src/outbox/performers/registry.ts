import { ChatPerformer } from './chat.performer';
import { MailPerformer } from './mail.performer';
import { PostPerformer } from './post.performer';
import { TextMessagePerformer } from './text-message.performer';

/** Everything that sends. */
export const PERFORMER_CLASSES = [PostPerformer, ChatPerformer, TextMessagePerformer, MailPerformer];
