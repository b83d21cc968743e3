import { customType, timestamp, uuid } from 'drizzle-orm/pg-core';

/** The workspace that a row belongs to: in every table, first in its keys and indexes. */
export const workspaceId = () => uuid('workspace_id').notNull();

export const time = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

/** A transaction's number (`xid8`): what has a smaller one than every transaction under way is settled. */
export const transactionNumber = customType<{ data: string }>({ dataType: () => 'xid8' });

/** Words by which a row is found. */
export const wordsColumn = customType<{ data: string }>({ dataType: () => 'tsvector' });

/** Bytes as they came. */
export const bytea = customType<{ data: Buffer; driverData: Buffer }>({ dataType: () => 'bytea' });
