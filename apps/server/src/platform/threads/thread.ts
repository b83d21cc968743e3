import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Worker, type ResourceLimits } from 'node:worker_threads';
import type { Answered, Asked } from './messages';

/** Beside the server’s bundle; tests and benchmarks run from elsewhere, with the bundle built before them. */
const FOLDERS = ['./', '../', '../../../dist/', '../../apps/server/dist/', '../../../apps/server/dist/'];

interface Waiting {
  resolve: (answer: unknown) => void;
  reject: (cause: Error) => void;
}

/**
 * A thread for heavy work beside the server’s own, whose bundle is named `<name>.worker.js` and answers through
 * `answerQuestions`. Any number of questions may be under way at once.
 */
export class Thread<Question, Answer> {
  readonly #worker: Worker;
  readonly #waiting = new Map<number, Waiting>();
  #asked = 0;
  #ended: Error | null = null;

  /** `data` is what the thread knows from its beginning, as its `workerData`. A thread that needs more than its limits ends. */
  constructor(name: string, data?: unknown, resourceLimits?: ResourceLimits) {
    const file = FOLDERS.map((folder) => fileURLToPath(new URL(`${folder}${name}.worker.js`, import.meta.url))).find(
      existsSync,
    );
    if (!file) throw new Error(`The bundle of the thread “${name}” is missing. Build the server.`);
    this.#worker = new Worker(file, { workerData: data, ...(resourceLimits ? { resourceLimits } : {}) });
    this.#worker.on('message', (message: Answered) => this.#hear(message));
    this.#worker.on('error', (cause: Error) => this.#end(cause));
    this.#worker.on('exit', () => this.#end(new Error(`The thread “${name}” ended early.`)));
  }

  /** Whether it answers no more, and another must be begun. */
  get ended(): boolean {
    return this.#ended !== null;
  }

  /** @throws what the thread threw, with its `code`, or the reason why the thread ended. */
  ask<Given extends Answer>(question: Question): Promise<Given> {
    return new Promise<Given>((resolve, reject) => {
      if (this.#ended) return reject(this.#ended);
      const id = (this.#asked += 1);
      this.#waiting.set(id, { resolve: resolve as Waiting['resolve'], reject });
      this.#worker.postMessage({ id, question } satisfies Asked);
    });
  }

  async stop(): Promise<void> {
    await this.#worker.terminate();
  }

  #hear(message: Answered): void {
    const waiting = this.#waiting.get(message.id);
    this.#waiting.delete(message.id);
    if ('answer' in message) waiting?.resolve(message.answer);
    else waiting?.reject(Object.assign(new Error(message.failure.message), message.failure));
  }

  #end(cause: Error): void {
    this.#ended ??= cause;
    for (const { reject } of this.#waiting.values()) reject(this.#ended);
    this.#waiting.clear();
  }
}
