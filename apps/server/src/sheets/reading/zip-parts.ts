import { LIMITS } from '@haycart/core';
import yauzl from 'yauzl';

/** A file that must not, or cannot, be read: the message is for whoever brought it. */
export class UnreadableFile extends Error {
  override name = 'UnreadableFile';
}

/** The parts of a zip by their names, each unpacked as it is read; all of them together no further than allowed. */
export class ZipParts {
  #left: number = LIMITS.sheetUnpacked.most;

  private constructor(
    private readonly zip: yauzl.ZipFile,
    private readonly entries: ReadonlyMap<string, yauzl.Entry>,
  ) {}

  /** @throws UnreadableFile for what is no zip, or a damaged one. */
  static async open(bytes: Buffer): Promise<ZipParts> {
    try {
      const zip = await yauzl.fromBufferPromise(bytes, { lazyEntries: true });
      const entries = new Map<string, yauzl.Entry>();
      for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry);
      return new ZipParts(zip, entries);
    } catch {
      throw damaged();
    }
  }

  has(name: string): boolean {
    return this.entries.has(name);
  }

  /** The text of a part, in pieces. @throws UnreadableFile */
  async *text(name: string): AsyncGenerator<string> {
    const entry = this.entries.get(name);
    if (!entry) throw damaged();
    const decoder = new TextDecoder();
    try {
      for await (const chunk of (await this.zip.openReadStreamPromise(entry)) as AsyncIterable<Buffer>) {
        this.#left -= chunk.length;
        if (this.#left < 0) throw tooLarge();
        yield decoder.decode(chunk, { stream: true });
      }
    } catch (cause) {
      throw cause instanceof UnreadableFile ? cause : damaged();
    }
  }
}

export function damaged(): UnreadableFile {
  return new UnreadableFile(
    'The file says that it is a workbook, and cannot be read as one. Save it again as XLSX or CSV.',
  );
}

function tooLarge(): UnreadableFile {
  const most = LIMITS.sheetUnpacked.most / 1024 / 1024;
  return new UnreadableFile(`Unpacked, the workbook is larger than ${most} MB. Save the sheet with the people as CSV.`);
}
