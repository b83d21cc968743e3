import { Inject, Injectable } from '@nestjs/common';
import { countedWork, Counters, totalIn, workOf, type CountedWork } from '@haycart/core';
import type { WorkspaceTx } from '../platform/database/database';
import { TasksService } from '../records/activities/tasks.service';
import { DestinationService } from '../destination/destination.service';
import { RecordsService } from '../records/records.service';

/** Numbers that plans read and advance beside records: whose turn it is in a team, which is kept, and how much each looks after, which is counted. */
@Injectable()
export class CountersService {
  constructor(
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(TasksService) private readonly tasks: TasksService,
  ) {}

  /** As they are now; they may go on meanwhile. */
  async read(tx: WorkspaceTx, names: readonly string[]): Promise<Record<string, number>> {
    const { kept, work } = apart(names);
    if (!kept.length) return this.#work(tx, work);
    const rows = await tx.statement<Row>(
      'counters',
      'select name, value::int from counter where workspace_id = $1 and name = any($2::text[])',
      [tx.workspaceId, kept],
    );
    return { ...valuesOf(rows), ...(await this.#work(tx, work)) };
  }

  /** For who advances them: nobody else does before the transaction ends. They are locked in one order, and after all records. */
  async hold(tx: WorkspaceTx, names: readonly string[]): Promise<Counters> {
    const { kept, work } = apart(names);
    if (!kept.length) return new Counters(await this.#work(tx, work));
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
    return new Counters({ ...valuesOf(rows), ...(await this.#work(tx, work)) });
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

  async #work(tx: WorkspaceTx, work: Record<CountedWork, string[]>): Promise<Record<string, number>> {
    const load = await this.records.openWorkOf(tx, work.load);
    const tasks = await this.tasks.openOf(tx, work.tasks);
    const worth = await this.#worth(tx, work.worth);
    const named = (what: CountedWork, counts: Map<string, number>) =>
      [...counts].map(([person, open]) => [workOf(what, person), open] as const);
    return Object.fromEntries([...named('load', load), ...named('tasks', tasks), ...named('worth', worth)]);
  }

  /** What open deals are worth in the workspace's currency at today's rates; those that no rate converts count as nothing. */
  async #worth(tx: WorkspaceTx, people: readonly string[]): Promise<Map<string, number>> {
    if (!people.length) return new Map();
    const amounts = await this.records.openWorthOf(tx, people);
    const { defaultCurrency, rates = [] } = await this.destinations.load(tx);
    const today = new Date().toISOString().slice(0, 10);
    return new Map(
      [...amounts].map(([person, all]) => [person, totalIn(all, defaultCurrency, today, rates).total.amount]),
    );
  }
}

/** Those that are kept, and the people of whom something is counted. */
function apart(names: readonly string[]): { kept: string[]; work: Record<CountedWork, string[]> } {
  const kept: string[] = [];
  const work: Record<CountedWork, string[]> = { load: [], tasks: [], worth: [] };
  for (const name of names) {
    const counted = countedWork(name);
    if (counted) work[counted.what].push(counted.person);
    else kept.push(name);
  }
  return { kept, work };
}

interface Row extends Record<string, unknown> {
  name: string;
  value: number;
}

function valuesOf(rows: readonly Row[]): Record<string, number> {
  return Object.fromEntries(rows.map(({ name, value }) => [name, value]));
}
