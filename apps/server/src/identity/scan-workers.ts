import { availableParallelism } from 'node:os';
import { Thread } from '../platform/threads/thread';
import { LookThrough, type FromScan, type ToScan } from './look-through';

/** More read all records without being faster on a machine that has other work. */
const MOST = 2;

/** What looks through records: it is told all of them, and asked about parts. */
export interface Scanner {
  /** How many parts it can be asked about at once. */
  readonly count: number;
  tell(message: ToScan): Promise<void>;
  ask<Answer extends FromScan>(index: number, message: ToScan): Promise<Answer>;
  stop(): Promise<void>;
}

/** Some threads that all know the same records. */
export class ScanWorkers implements Scanner {
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

/** On the server's own thread: for a few records, which are compared sooner than another thread begins. */
export class ScanHere implements Scanner {
  readonly count = 1;
  readonly #through = new LookThrough();

  tell(message: ToScan): Promise<void> {
    this.#through.answer(message);
    return Promise.resolve();
  }

  ask<Answer extends FromScan>(_index: number, message: ToScan): Promise<Answer> {
    return Promise.resolve(this.#through.answer(message) as Answer);
  }

  stop(): Promise<void> {
    return Promise.resolve();
  }
}
