import type { WorkspaceTx } from './database';

/** What is done in a transaction besides what it is there for, so that both are done or neither. */
export type AlsoDone = (tx: WorkspaceTx) => Promise<void>;

export const nothingElse: AlsoDone = async () => {};
