/** The most ids kept in memory. */
const MOST = 20_000;

/** Ids of rows that never change, kept in memory. */
export class RememberedNumbers<Thing> {
  readonly #known = new Map<string, number>();

  /**
   * @param keyOf A text that is the same for the same thing.
   * @param keep Stores new things, and returns their ids in order.
   */
  constructor(
    private readonly keyOf: (thing: Thing) => string,
    private readonly keep: (workspaceId: string, things: readonly Thing[]) => Promise<readonly number[]>,
  ) {}

  /** The number of each, in their order. */
  async of(workspaceId: string, things: readonly Thing[]): Promise<number[]> {
    const keys = things.map((thing) => `${workspaceId} ${this.keyOf(thing)}`);
    const missing = new Map(keys.flatMap((key, index) => (this.#known.has(key) ? [] : [[key, things[index]!]])));
    if (missing.size) {
      if (this.#known.size + missing.size > MOST) this.#known.clear();
      const numbers = await this.keep(workspaceId, [...missing.values()]);
      [...missing.keys()].forEach((key, index) => this.#known.set(key, numbers[index]!));
      // What was forgotten to make room is asked for again.
      if (keys.some((key) => !this.#known.has(key))) return this.of(workspaceId, things);
    }
    return keys.map((key) => this.#known.get(key)!);
  }
}
