import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { FromScan, ToScan } from './look-through';

/** Beside the server’s bundle; tests and benchmarks run from elsewhere, with the bundle built before them. */
const FILES = [
  './scan.worker.js',
  '../scan.worker.js',
  '../../dist/scan.worker.js',
  '../../apps/server/dist/scan.worker.js',
  '../../../apps/server/dist/scan.worker.js',
];
/** More read all records without being faster on a machine that has other work. */
const MOST = 2;

/** Some worker threads that all know the same records. */
export class ScanWorkers {
  readonly #workers: Worker[];

  constructor(count = Math.min(MOST, availableParallelism())) {
    const file = FILES.map((path) => fileURLToPath(new URL(path, import.meta.url))).find(existsSync);
    if (!file) throw new Error('The bundle of the scan’s worker is missing. Build the server.');
    this.#workers = Array.from({ length: count }, () => new Worker(file));
  }

  get count(): number {
    return this.#workers.length;
  }

  /** Tells all of them something, and waits until all know it. */
  async tell(message: ToScan): Promise<void> {
    await Promise.all(this.#workers.map((_, index) => this.ask(index, message)));
  }

  /** Asks one of them, which answers one thing at a time. */
  ask<Answer extends FromScan>(index: number, message: ToScan): Promise<Answer> {
    const worker = this.#workers[index]!;
    return new Promise((resolve, reject) => {
      const done = () => {
        worker.off('message', answered);
        worker.off('error', failed);
        worker.off('exit', ended);
      };
      const answered = (answer: Answer) => {
        done();
        resolve(answer);
      };
      const failed = (cause: Error) => {
        done();
        reject(cause);
      };
      const ended = () => failed(new Error('A worker of the scan ended early.'));
      worker.once('message', answered);
      worker.once('error', failed);
      worker.once('exit', ended);
      worker.postMessage(message);
    });
  }

  async stop(): Promise<void> {
    await Promise.all(this.#workers.map((worker) => worker.terminate()));
  }
}
