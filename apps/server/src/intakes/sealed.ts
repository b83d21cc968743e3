import type { SealedColumn } from '../platform/auth/sealed-column';

export const INTAKE_SECRETS: readonly SealedColumn[] = [
  { table: 'intake', column: 'secret', key: 'id', of: 'intake' },
  { table: 'intake', column: 'old_secret', key: 'id', of: 'intake' },
];
