import { once, EventEmitter } from 'node:events';
import { open, unlink, type FileHandle } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { newId } from './new-id';

/** Bytes read at once. */
const CHUNK = 64 * 1_024;

/**
 * A file without a name that can be read while it is written. Whoever writes never waits for whoever reads, and reading
 * breaks off where writing did, so that a part is never taken for the whole. Nothing of it stays on the disk.
 */
export class GrowingFile {
  readonly #grown = new EventEmitter();
  #size = 0;
  #end: 'not yet' | 'whole' | Error = 'not yet';
  #left = false;

  private constructor(private readonly handle: FileHandle) {}

  static async begin(): Promise<GrowingFile> {
    const path = join(tmpdir(), `haycart-export-${newId()}`);
    const handle = await open(path, 'wx+', 0o600);
    await unlink(path);
    return new GrowingFile(handle);
  }

  /** Its bytes so far. */
  get size(): number {
    return this.#size;
  }

  /** Takes all of a stream, to its end or its failure; what is left when the reader is gone is not read. */
  async write(source: Readable): Promise<void> {
    try {
      for await (const chunk of source as AsyncIterable<string | Buffer>) {
        if (this.#left) return;
        const bytes = Buffer.from(chunk as Buffer);
        await this.handle.appendFile(bytes);
        this.#size += bytes.length;
        this.#grown.emit('grown');
      }
      this.#end = 'whole';
    } catch (cause) {
      this.fail(cause as Error);
      throw cause;
    } finally {
      this.#grown.emit('grown');
      if (this.#left) await this.handle.close();
    }
  }

  /** Lets the reader know that no more comes, and why. */
  fail(cause: Error): void {
    if (this.#end !== 'not yet') return;
    this.#end = cause;
    this.#grown.emit('grown');
  }

  /** When so many bytes are there, or all there will be. */
  async holds(bytes: number): Promise<void> {
    while (this.#size < bytes && this.#end === 'not yet') await once(this.#grown, 'grown');
  }

  /** What it holds from the beginning, as it comes. To be read once. */
  read(): Readable {
    return Readable.from(this.#chunks(), { objectMode: false }).once('close', () => void this.leave());
  }

  /** Gives the file up where nobody is to read it. */
  async leave(): Promise<void> {
    this.#left = true;
    if (this.#end !== 'not yet') await this.handle.close();
  }

  async *#chunks(): AsyncGenerator<Buffer> {
    for (let at = 0; ;) {
      if (at < this.#size) {
        const bytes = Buffer.allocUnsafe(Math.min(CHUNK, this.#size - at));
        const { bytesRead } = await this.handle.read(bytes, 0, bytes.length, at);
        at += bytesRead;
        yield bytes.subarray(0, bytesRead);
      } else if (this.#end === 'not yet') await once(this.#grown, 'grown');
      else if (this.#end === 'whole') return;
      else throw this.#end;
    }
  }
}
