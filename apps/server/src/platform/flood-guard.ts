const WINDOW_MS = 60_000;
const MOST_SUBJECTS = 50_000;

/**
 * Counts what comes from one address to one intake in the running minute. It is kept in this process only: it protects
 * the process, and a few too many let through harm nobody.
 */
export class FloodGuard {
  readonly #counts = new Map<string, number>();
  #windowStart = 0;

  /** Seconds to wait, or 0 when there is room. */
  wait(subject: string, most: number, now: number): number {
    return this.count(subject, now) > most ? Math.max(1, Math.ceil((this.#windowStart + WINDOW_MS - now) / 1_000)) : 0;
  }

  /** How many came from a subject in the running minute, this one among them. */
  count(subject: string, now: number): number {
    if (now - this.#windowStart >= WINDOW_MS || this.#counts.size > MOST_SUBJECTS) {
      this.#counts.clear();
      this.#windowStart = now;
    }
    const count = (this.#counts.get(subject) ?? 0) + 1;
    this.#counts.set(subject, count);
    return count;
  }
}
