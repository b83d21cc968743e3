import { PostPerformer } from './post.performer';

/** Everything that sends. */
export const PERFORMER_CLASSES = [PostPerformer];
