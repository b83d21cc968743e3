import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { ProblemError } from '../errors/problem-error';
import { Thread } from '../threads/thread';
import { within } from '../within';
import type { PdfContent } from './write-pdf';

export interface PdfQuestion {
  content: PdfContent;
  /** When what it is about came, in milliseconds. */
  at: number;
}

const LONGEST_MS = 20_000;
const MEMORY_MB = 256;

/** Draws documents in a thread of their own, which ends where one takes too long. */
@Injectable()
export class PdfWriter implements OnModuleDestroy {
  #thread: Thread<PdfQuestion, Uint8Array> | null = null;

  /** @throws ProblemError 503 where it takes too long */
  async write(content: PdfContent, at: Date): Promise<Buffer> {
    if (!this.#thread || this.#thread.ended)
      this.#thread = new Thread('pdf', undefined, { maxOldGenerationSizeMb: MEMORY_MB });
    const thread = this.#thread;
    try {
      return Buffer.from(await within(LONGEST_MS, thread.ask({ content, at: at.getTime() })));
    } catch {
      await thread.stop();
      throw new ProblemError('not-available', 'The document takes too long to draw. Try again later.', undefined, 60);
    }
  }

  async onModuleDestroy(): Promise<void> {
    await this.#thread?.stop();
  }
}
