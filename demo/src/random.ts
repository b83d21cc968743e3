/** A seeded source of randomness (mulberry32), so that the demo is the same every time. */
export class Random {
  #state: number;

  constructor(seed: number) {
    this.#state = seed;
  }

  /** 0 to just under 1. */
  next(): number {
    this.#state = (this.#state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(this.#state ^ (this.#state >>> 15), 1 | this.#state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  }

  chance(probability: number): boolean {
    return this.next() < probability;
  }

  /** A whole number, both ends included. */
  between(least: number, most: number): number {
    return least + Math.floor(this.next() * (most - least + 1));
  }

  pick<Item>(items: readonly Item[]): Item {
    return items[Math.floor(this.next() * items.length)]!;
  }
}
