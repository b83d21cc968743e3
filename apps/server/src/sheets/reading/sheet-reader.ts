import { LIMITS, type SheetRow } from '@haycart/core';
import { Thread } from '../../platform/threads/thread';
import { within } from '../../platform/within';
import type { FileReading, ReadingChoice } from './read-file';
import { UnreadableFile } from './zip-parts';

export type SheetQuestion = { bytes: Uint8Array; choice: ReadingChoice } | { next: number };
export type SheetAnswer = { reading: FileReading } | { rows: SheetRow[] } | { problem: string };

const MEBIBYTE = 1_048_576;

/** Reads one file in a thread of its own, within limits of time and memory. Must be closed. */
export class SheetReader {
  readonly #thread = new Thread<SheetQuestion, SheetAnswer>('sheet', undefined, {
    maxOldGenerationSizeMb: LIMITS.sheetMemory.most / MEBIBYTE,
  });

  constructor(private readonly silenceMs: number = LIMITS.sheetSilence.most * 1_000) {}

  /** @throws UnreadableFile with the reason, for whoever brought the file. */
  async open(bytes: Buffer, choice: Partial<ReadingChoice> = {}): Promise<FileReading> {
    const answer = await this.#ask({ bytes, choice: { encoding: null, worksheet: null, ...choice } });
    return (answer as { reading: FileReading }).reading;
  }

  /** The next rows, at most so many; none at the end. @throws UnreadableFile */
  async next(most: number): Promise<SheetRow[]> {
    const answer = await this.#ask({ next: most });
    return (answer as { rows: SheetRow[] }).rows;
  }

  async close(): Promise<void> {
    await this.#thread.stop();
  }

  async #ask(question: SheetQuestion): Promise<SheetAnswer> {
    let answer: SheetAnswer;
    try {
      answer = await within(this.silenceMs, this.#thread.ask<SheetAnswer>(question));
    } catch (cause) {
      const most = LIMITS.sheetMemory.most / MEBIBYTE;
      if ((cause as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new UnreadableFile(`Reading the file takes more than ${most} MB of memory. Save the people as CSV.`);
      if (!this.#thread.ended)
        throw new UnreadableFile(`Reading the file takes too long. Save the people as CSV, or in several files.`);
      throw cause;
    }
    if ('problem' in answer) throw new UnreadableFile(answer.problem);
    return answer;
  }
}
