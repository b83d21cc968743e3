import type { SealedColumn } from '../platform/auth/sealed-column';

export const OUTBOX_SECRETS: readonly SealedColumn[] = [
  { table: 'outbox_secret', column: 'secret', key: 'workspace_id', of: 'outbox' },
];
