import { LISTS } from './held-out-lists';
import { TREES } from './held-out-trees';

/** Written before reading was widened, by other habits; looked at only as a rate. */
export const HELD_OUT = [...LISTS, ...TREES];
