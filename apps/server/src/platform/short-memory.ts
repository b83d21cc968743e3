/** How long an answer is kept, in milliseconds. Whoever hears of a change forgets sooner. */
const KEEP_MS = 5_000;

/**
 * Remembers what was looked up for a few seconds, for what many ask for at once. It is bounded, since strangers may
 * ask for anything: when it is full it begins anew.
 */
export class ShortMemory<T> {
  readonly #kept = new Map<string, { value: T; until: number }>();

  constructor(
    private readonly most: number,
    private readonly now: () => number = Date.now,
  ) {}

  /** What is kept under a key; `undefined` when nothing is, or not any more. */
  get(key: string): T | undefined {
    const kept = this.#kept.get(key);
    return kept && kept.until > this.now() ? kept.value : undefined;
  }

  /** Keeps a value, and gives it back. */
  keep(key: string, value: T): T {
    if (this.#kept.size >= this.most && !this.#kept.has(key)) this.#kept.clear();
    this.#kept.set(key, { value, until: this.now() + KEEP_MS });
    return value;
  }

  forget(key: string): void {
    this.#kept.delete(key);
  }

  forgetAll(): void {
    this.#kept.clear();
  }
}
