import type { Caller } from '../auth/caller';
import type { WorkspaceTx } from '../database/database';
import type { CommandMark } from './command';

/** What a command's line says beside who did what and when. */
export interface CommandLine {
  by: Caller['by'];
  /** The id or key of what it was done to, where there is one. */
  subject: string | null;
  text: string;
}

/** A command while it runs. */
export class RunningCommand {
  #tx: WorkspaceTx | null = null;
  #text: string | null = null;
  #isNoted = false;

  constructor(
    readonly mark: CommandMark,
    private readonly caller: Caller | null,
    private readonly subject: string | null,
    private readonly keep: (tx: WorkspaceTx, mark: CommandMark, line: CommandLine) => Promise<void>,
  ) {}

  /** @throws Error where the command opens its transaction by itself. */
  get tx(): WorkspaceTx {
    if (!this.#tx) throw new Error(`The command ${this.mark.name} has no transaction to hand out.`);
    return this.#tx;
  }

  get isNoted(): boolean {
    return this.#isNoted;
  }

  /** Lets the command run in a transaction. */
  runsIn(tx: WorkspaceTx): void {
    this.#tx = tx;
  }

  /** Says what was done, in one line; without, the answer or the command's own words say it. */
  did(text: string): void {
    this.#text = text;
  }

  /** Notes the command's line in the transaction in which it was done; `by` where nobody was signed in before. */
  async note(tx: WorkspaceTx, answer?: unknown, by: Caller['by'] | undefined = this.caller?.by): Promise<void> {
    if (!by) throw new Error(`The command ${this.mark.name} does not say who did it.`);
    const told = (answer ?? {}) as Record<string, unknown>;
    const { done } = this.mark;
    const named = textOf(told.name);
    // An act says in its text what it did; any other answer’s text is something else, such as a note’s.
    const said = 'edit' in told || Object.keys(told).length === 1 ? textOf(told.text) : null;
    await this.keep(tx, this.mark, {
      by,
      subject: this.subject ?? textOf(told.id) ?? textOf(told.key),
      text: this.#text ?? said ?? (named ? `${done}: ${named}` : done),
    });
    this.#isNoted = true;
  }
}

function textOf(value: unknown): string | null {
  return typeof value === 'string' && value !== '' ? value : null;
}
