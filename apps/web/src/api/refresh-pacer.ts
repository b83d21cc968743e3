/** Events come in bursts; what comes within so many milliseconds is told together. */
const GATHER_MS = 100;
/** What one request costs in time to the next refresh, in milliseconds: two a second, however much happens. */
const MS_A_REQUEST = 500;
const LONGEST_PAUSE_MS = 5_000;
/** For how long after an act of one’s own nothing is spaced: its effects are waited for. */
const HURRY_MS = 1_000;

/** What a refresh did: how many requests it took, and which topics changed too late for what was being asked already. */
export interface Refreshed<Topic> {
  requests: number;
  missed: Iterable<Topic>;
}

/**
 * Refreshes what is shown when something changes: soon after it was quiet, and under load as often as the server keeps up with.
 * A refresh is never broken off for the next one; what changes meanwhile waits for the one after it.
 */
export class RefreshPacer<Topic> {
  readonly #due = new Set<Topic>();
  #timer: ReturnType<typeof setTimeout> | undefined;
  #refreshing = false;
  #notBefore = 0;
  #hurryUntil = 0;
  #stopped = false;

  constructor(private readonly refresh: (topics: ReadonlySet<Topic>) => Promise<Refreshed<Topic>>) {}

  changed(topics: Iterable<Topic>): void {
    for (const topic of topics) this.#due.add(topic);
    this.#schedule();
  }

  /** Refreshes without a pause for a moment: whoever did something waits for what comes of it. */
  hurry(): void {
    this.#hurryUntil = Date.now() + HURRY_MS;
    clearTimeout(this.#timer);
    this.#timer = undefined;
    this.#schedule();
  }

  stop(): void {
    this.#stopped = true;
    clearTimeout(this.#timer);
  }

  #schedule(): void {
    if (this.#stopped || this.#refreshing || this.#timer !== undefined || !this.#due.size) return;
    const pause = Date.now() < this.#hurryUntil ? 0 : this.#notBefore - Date.now();
    this.#timer = setTimeout(() => void this.#run(), Math.max(GATHER_MS, pause));
  }

  async #run(): Promise<void> {
    this.#timer = undefined;
    this.#refreshing = true;
    const topics = new Set(this.#due);
    this.#due.clear();
    const began = Date.now();
    const { requests, missed } = await this.refresh(topics);
    const ended = Date.now();
    // A server that takes long to answer is asked less often: it is busy with this for half of its time at most.
    this.#notBefore = Math.max(began + Math.min(requests * MS_A_REQUEST, LONGEST_PAUSE_MS), ended + (ended - began));
    this.#refreshing = false;
    for (const topic of missed) this.#due.add(topic);
    this.#schedule();
  }
}
