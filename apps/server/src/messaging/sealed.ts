import type { SealedColumn } from '../platform/auth/sealed-column';

export const MESSAGING_SECRETS: readonly SealedColumn[] = [
  { table: 'channel', column: 'address', key: 'id', of: 'channel' },
  { table: 'text_gateway', column: 'address', key: 'workspace_id', of: 'text gateway' },
  { table: 'mail_server', column: 'password', key: 'workspace_id', of: 'mail server' },
];
