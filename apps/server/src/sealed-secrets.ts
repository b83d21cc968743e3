import { Inject, Injectable } from '@nestjs/common';
import { FORM_SECRETS } from './forms/sealed';
import { INTAKE_SECRETS } from './intakes/sealed';
import { MESSAGING_SECRETS } from './messaging/sealed';
import { OUTBOX_SECRETS } from './outbox/sealed';
import type { SealedColumn } from './platform/auth/sealed-column';
import { SecretBox } from './platform/auth/secret-box';
import { Database, type WorkspaceTx } from './platform/database/database';

/** Every column that holds sealed secrets, as its area says. */
const SEALED: readonly SealedColumn[] = [...INTAKE_SECRETS, ...FORM_SECRETS, ...OUTBOX_SECRETS, ...MESSAGING_SECRETS];

/** Seals all secrets with the key that seals now: those kept before there was one, and after a rotation all. */
@Injectable()
export class SealedSecrets {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(SecretBox) private readonly box: SecretBox,
  ) {}

  /** Returns how many were sealed anew. */
  async sealAll(): Promise<number> {
    let sealed = 0;
    for (const { id } of await this.database.gate<{ id: string }>('workspaces'))
      sealed += await this.database.inWorkspace(id, (tx) => this.#sealIn(tx));
    return sealed;
  }

  async #sealIn(tx: WorkspaceTx): Promise<number> {
    let sealed = 0;
    for (const { table, column, key, of } of SEALED) {
      const rows = await tx.statement<{ key: string; kept: string }>(
        `sealed_${table}_${column}`,
        `select ${key}::text as key, ${column} as kept from ${table} where workspace_id = $1 and ${column} is not null for update`,
        [tx.workspaceId],
      );
      for (const row of rows) {
        if (this.box.isCurrent(row.kept)) continue;
        const what = `${of} ${row.key}`;
        await tx.statement(
          `seal_${table}_${column}`,
          `update ${table} set ${column} = $4 where workspace_id = $1 and ${key}::text = $2 and ${column} = $3`,
          [tx.workspaceId, row.key, row.kept, this.box.seal(this.box.open(row.kept, what), what)],
        );
        sealed += 1;
      }
    }
    return sealed;
  }
}
