import { availableParallelism } from 'node:os';
import { Thread } from '../platform/threads/thread';
import type { FromScan, ToScan } from './look-through';

/** More read all records without being faster on a machine that has other work. */
const MOST = 2;

/** Some threads that all know the same records. */
export class ScanWorkers {
  readonly #threads: Thread<ToScan, FromScan>[];

  constructor(count = Math.min(MOST, availableParallelism())) {
    this.#threads = Array.from({ length: count }, () => new Thread('scan'));
  }

  get count(): number {
    return this.#threads.length;
  }

  /** Tells all of them something, and waits until all know it. */
  async tell(message: ToScan): Promise<void> {
    await Promise.all(this.#threads.map((thread) => thread.ask(message)));
  }

  /** Asks one of them. */
  ask<Answer extends FromScan>(index: number, message: ToScan): Promise<Answer> {
    return this.#threads[index]!.ask(message);
  }

  async stop(): Promise<void> {
    await Promise.all(this.#threads.map((thread) => thread.stop()));
  }
}
