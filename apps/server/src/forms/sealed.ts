import type { SealedColumn } from '../platform/auth/sealed-column';

export const FORM_SECRETS: readonly SealedColumn[] = [
  { table: 'entry_link', column: 'secret', key: 'intake_id', of: 'entry' },
  { table: 'form_domain', column: 'proof', key: 'host', of: 'domain' },
];
