import { Inject, Injectable } from '@nestjs/common';
import { Counters, loadOf, personOfLoad } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import { RecordsService } from '../records/records.service';

/** Numbers that plans read and advance beside records: whose turn it is in a team, which is kept, and how much each looks after, which is counted. */
@Injectable()
export class CountersService {
  constructor(@Inject(RecordsService) private readonly records: RecordsService) {}

  /** As they are now; they may go on meanwhile. */
  async read(tx: WorkspaceTx, names: readonly string[]): Promise<Record<string, number>> {
    const { kept, loads } = apart(names);
    if (!kept.length) return this.#loads(tx, loads);
    const rows = await tx.statement<Row>(
      'counters',
      'select name, value::int from counter where workspace_id = $1 and name = any($2::text[])',
      [tx.workspaceId, kept],
    );
    return { ...valuesOf(rows), ...(await this.#loads(tx, loads)) };
  }

  /** For who advances them: nobody else does before the transaction ends. They are locked in one order, and after all records. */
  async hold(tx: WorkspaceTx, names: readonly string[]): Promise<Counters> {
    const { kept, loads } = apart(names);
    if (!kept.length) return new Counters(await this.#loads(tx, loads));
    await tx.statement(
      'begin_counters',
      'insert into counter (workspace_id, name) select $1, name from unnest($2::text[]) n (name) order by name on conflict do nothing',
      [tx.workspaceId, kept],
    );
    const rows = await tx.statement<Row>(
      'hold_counters',
      'select name, value::int from counter where workspace_id = $1 and name = any($2::text[]) order by name for no key update',
      [tx.workspaceId, kept],
    );
    // Who is loaded is decided in the turn of the team, which is held by now: what others gave away is counted.
    return new Counters({ ...valuesOf(rows), ...(await this.#loads(tx, loads)) });
  }

  async advance(tx: WorkspaceTx, by: Readonly<Record<string, number>>): Promise<void> {
    const names = apart(Object.keys(by)).kept;
    if (!names.length) return;
    await tx.statement(
      'advance_counters',
      `update counter c set value = c.value + n.more from unnest($2::text[], $3::int[]) n (name, more)
       where c.workspace_id = $1 and c.name = n.name`,
      [tx.workspaceId, names, names.map((name) => by[name]!)],
    );
  }

  async #loads(tx: WorkspaceTx, people: readonly string[]): Promise<Record<string, number>> {
    const open = await this.records.openDealsOf(tx, people);
    return Object.fromEntries([...open].map(([person, deals]) => [loadOf(person), deals]));
  }
}

/** Those that are kept, and the people whose load is counted. */
function apart(names: readonly string[]): { kept: string[]; loads: string[] } {
  const kept: string[] = [];
  const loads: string[] = [];
  for (const name of names) {
    const person = personOfLoad(name);
    if (person === null) kept.push(name);
    else loads.push(person);
  }
  return { kept, loads };
}

interface Row extends Record<string, unknown> {
  name: string;
  value: number;
}

function valuesOf(rows: readonly Row[]): Record<string, number> {
  return Object.fromEntries(rows.map(({ name, value }) => [name, value]));
}
