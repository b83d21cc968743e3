/** So much of something at once, shared by all who take of it. Nobody waits: what is not free is refused. */
export class Budget {
  #taken = 0;

  constructor(readonly most: number) {}

  get taken(): number {
    return this.#taken;
  }

  /** Takes some and returns how to give it back, once; null when so much is not free. */
  take(amount: number): (() => void) | null {
    if (this.#taken + amount > this.most) return null;
    this.#taken += amount;
    let given = false;
    return () => {
      if (given) return;
      given = true;
      this.#taken -= amount;
    };
  }
}

/** Lets so many go on at once; the others wait for their turn. */
export class Turns {
  readonly #waiting: (() => void)[] = [];
  #going = 0;

  constructor(private readonly most: number) {}

  async with<Result>(work: () => Promise<Result>): Promise<Result> {
    if (this.#going >= this.most) await new Promise<void>((resolve) => this.#waiting.push(resolve));
    else this.#going += 1;
    try {
      return await work();
    } finally {
      const next = this.#waiting.shift();
      if (next) next();
      else this.#going -= 1;
    }
  }
}
