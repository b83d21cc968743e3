/**
 * The names under which the batches of this process have locked what they look for. Common names of people lead to the same
 * locks again and again: the next batch takes what needs none of these, instead of waiting until the one before is written.
 */
export class HeldNames {
  /** How many batches hold a name. */
  readonly #holders = new Map<string, number>();

  areFree(names: readonly string[]): boolean {
    return names.every((name) => !this.#holders.has(name));
  }

  /** Holds names; answers how to let go of them, once what was done under them is there for all to see. */
  hold(names: Iterable<string>): () => void {
    const own = new Set(names);
    for (const name of own) this.#holders.set(name, (this.#holders.get(name) ?? 0) + 1);
    return () => {
      for (const name of own) {
        const others = this.#holders.get(name)! - 1;
        if (others) this.#holders.set(name, others);
        else this.#holders.delete(name);
      }
      own.clear();
    };
  }
}
