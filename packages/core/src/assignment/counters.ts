/**
 * What is counted of a person rather than kept: their open leads and deals, their open tasks, and what their open deals are
 * worth in minor units of the workspace's currency.
 */
export const COUNTED_WORK = ['load', 'tasks', 'worth'] as const;
export type CountedWork = (typeof COUNTED_WORK)[number];

/** How much of it a person has, as planning asks for it. */
export function workOf(what: CountedWork, person: string): string {
  return `${what} ${person}`;
}

/** What a name asks to have counted, and of whom; `null` for the name of a counter that is kept. */
export function countedWork(name: string): { what: CountedWork; person: string } | null {
  const what = COUNTED_WORK.find((one) => name.startsWith(`${one} `));
  return what ? { what, person: name.slice(what.length + 1) } : null;
}

/** The counter of whose turn it is in a team. */
export function turnOf(team: string): string {
  return `turn ${team}`;
}

/** The counter that holds which turn of a team a person had last, counted from 1. */
export function lastTurnOf(team: string, person: string): string {
  return `last ${team} ${person}`;
}

/** The counter of what a person was given on a day of their calendar, as `2026-03-09`. */
export function dayOf(person: string, day: string): string {
  return `day ${person} ${day}`;
}

/**
 * Numbers that planning reads beside records, such as whose turn it is. A plan says by how much they go on (`advance`); a
 * rehearsal reads them and nothing goes on.
 */
export class Counters {
  readonly #values: Map<string, number>;

  /** @param values Those that `lookupsFor` asked for; 0 where there is none. */
  constructor(values: Readonly<Record<string, number>> = {}) {
    this.#values = new Map(Object.entries(values));
  }

  get(name: string): number {
    return this.#values.get(name) ?? 0;
  }

  /** Goes on as a plan says, so that the next of a batch finds them so. */
  advance(by: Readonly<Record<string, number>> = {}): void {
    for (const [name, more] of Object.entries(by)) this.#values.set(name, this.get(name) + more);
  }
}
