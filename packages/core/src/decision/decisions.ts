import type { NamedOwner } from '../assignment/choose-owner';
import type { FieldValue } from '../diff/record';
import type { JsonValue } from '../json';
import type { Part } from '../value/value';
import type { FinisherContext } from '../value/finishers/finisher';
import type { PartReader } from '../value/work-out-value';
import { columnValue, type TableAround } from './column';
import { cellSetting, decide, readyTable, type Decision } from './decide';
import type { DecisionOutput, DecisionTable } from './decision-table';

/** What one table decided, and upon what. */
export interface DecidedTrace {
  table: string;
  /** The row, from 0; `null` where none fits. */
  row: number | null;
  otherwise?: true;
  /** What each input held. */
  values: (FieldValue | null)[];
  /** What it said, in the order of its outputs; those that are blank are left out. */
  said: (DecisionOutput & { value: unknown })[];
}

/** The tables of a route, each decided once for a submission: when its first output is asked for. */
export class Decisions {
  readonly #decided = new Map<string, Decision | null>();
  readonly #traces: DecidedTrace[] = [];
  #problem: string | null = null;

  constructor(
    private readonly tables: readonly DecisionTable[],
    private readonly around: Omit<TableAround, 'tables'>,
    private readonly ground: { read: PartReader; finishing: FinisherContext; now: string },
  ) {}

  /** Why something cannot be decided, as a sentence. Nothing may be written then. */
  get problem(): string | null {
    return this.#problem;
  }

  /** What was decided so far, in the order of deciding. */
  get traces(): readonly DecidedTrace[] {
    return this.#traces;
  }

  /** The tables that nothing has asked for so far are decided too, for whoever wants to see them all. */
  decideAll(): void {
    for (const { name } of this.tables) this.#of(name);
  }

  /** Reads every part: outputs of tables, and whatever else there is. */
  readonly read: PartReader = (part) => {
    if (!('decision' in part)) return this.ground.read(part);
    return this.#of(part.decision)?.then[part.output] as JsonValue | undefined;
  };

  /** Whom an output names; `null` where it names nobody. */
  ownerOf({ decision, output }: Extract<Part, { decision: string }>): NamedOwner | null {
    const said = this.#of(decision)?.then[output];
    const table = this.tables.find(({ name }) => name === decision);
    const type = table?.outputs.find(({ name }) => name === output)?.type;
    if (typeof said === 'string') return type === 'team' ? { team: said } : { person: said };
    return isNamedOwner(said) ? said : null;
  }

  #of(name: string): Decision | null {
    const before = this.#decided.get(name);
    if (before !== undefined) return before;
    const at = this.tables.findIndex((table) => table.name === name);
    // A table that asks for itself gets nothing; `checkRoute` refuses it.
    this.#decided.set(name, null);
    const decision = at === -1 ? null : this.#decide(this.tables[at]!, this.tables.slice(0, at));
    this.#decided.set(name, decision);
    return decision;
  }

  #decide(table: DecisionTable, earlier: readonly DecisionTable[]): Decision {
    const ready = readyTable(table, { ...this.around, tables: earlier });
    const values = ready.columns.map((column) => columnValue(column, this.read, this.ground.finishing));
    const decision = decide(ready, values, cellSetting(this.around.destination, this.ground.now));
    if (decision.problem) this.#problem ??= `The table “${table.name}” decides nothing. ${decision.problem}`;
    this.#traces.push({
      table: table.name,
      row: decision.row,
      ...(decision.otherwise ? { otherwise: true as const } : {}),
      values,
      said: table.outputs.flatMap((output) => {
        const value = decision.then[output.name];
        return value === undefined || value === null ? [] : [{ ...output, value }];
      }),
    });
    return decision;
  }
}

function isNamedOwner(said: unknown): said is NamedOwner {
  if (typeof said !== 'object' || said === null) return false;
  const { person, team } = said as { person?: unknown; team?: unknown };
  return typeof person === 'string' || typeof team === 'string';
}
