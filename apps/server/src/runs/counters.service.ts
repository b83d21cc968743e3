import { Injectable } from '@nestjs/common';
import { Counters } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';

/** Numbers that plans read and advance beside records, such as whose turn it is in a team. */
@Injectable()
export class CountersService {
  /** As they are now; they may go on meanwhile. */
  async read(tx: WorkspaceTx, names: readonly string[]): Promise<Record<string, number>> {
    if (!names.length) return {};
    return valuesOf(
      await tx.statement<Row>(
        'counters',
        'select name, value::int from counter where workspace_id = $1 and name = any($2::text[])',
        [tx.workspaceId, names],
      ),
    );
  }

  /** For who advances them: nobody else does before the transaction ends. They are locked in one order, and after all records. */
  async hold(tx: WorkspaceTx, names: readonly string[]): Promise<Counters> {
    if (!names.length) return new Counters();
    await tx.statement(
      'begin_counters',
      'insert into counter (workspace_id, name) select $1, name from unnest($2::text[]) n (name) order by name on conflict do nothing',
      [tx.workspaceId, names],
    );
    const rows = await tx.statement<Row>(
      'hold_counters',
      'select name, value::int from counter where workspace_id = $1 and name = any($2::text[]) order by name for no key update',
      [tx.workspaceId, names],
    );
    return new Counters(valuesOf(rows));
  }

  async advance(tx: WorkspaceTx, by: Readonly<Record<string, number>>): Promise<void> {
    const names = Object.keys(by);
    if (!names.length) return;
    await tx.statement(
      'advance_counters',
      `update counter c set value = c.value + n.more from unnest($2::text[], $3::int[]) n (name, more)
       where c.workspace_id = $1 and c.name = n.name`,
      [tx.workspaceId, names, Object.values(by)],
    );
  }
}

interface Row extends Record<string, unknown> {
  name: string;
  value: number;
}

function valuesOf(rows: readonly Row[]): Record<string, number> {
  return Object.fromEntries(rows.map(({ name, value }) => [name, value]));
}
