const LOAD = 'load ';

/** The number of open deals that a person looks after, as planning asks for it. It is counted, not kept. */
export function loadOf(person: string): string {
  return `${LOAD}${person}`;
}

/** The person whose load a name asks for; `null` for the name of a counter that is kept. */
export function personOfLoad(name: string): string | null {
  return name.startsWith(LOAD) ? name.slice(LOAD.length) : null;
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
