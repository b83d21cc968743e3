import type { Services } from '@haycart/server/seeding';

/** A transaction in the workspace that is being filled. */
export type Tx = Parameters<Parameters<Services['workspaces']['add']>[1]>[0];
