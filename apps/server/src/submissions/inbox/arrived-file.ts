import { createHash } from 'node:crypto';
import { createWriteStream, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { readFile, unlink } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { isAlive } from '../../platform/is-alive';
import { newId } from '../../platform/new-id';

/** So many of a file's first bytes tell what it is. */
const BEGINNING = 64;

/** A file of a multipart body, beside the memory until it is written to the database. Its id stands in the payload. */
export interface ArrivedFile {
  id: string;
  /** The name of the part that brought it. */
  part: string;
  name: string;
  type: string;
  size: number;
  /** Its first bytes. */
  begin: Buffer;
  /** SHA-256, in hexadecimal. */
  hash: string;
  path: string;
}

const PREFIX = 'haycart-files-';
let folder: string | null = null;

/** A folder of this process for files on their way. Those of processes that ended half-way go: nothing names what is in them. */
function ownFolder(): string {
  for (const name of readdirSync(tmpdir())) {
    const [, pid] = /^haycart-files-(\d{1,10})-/.exec(name) ?? [];
    if (pid && !isAlive(Number(pid))) rmSync(join(tmpdir(), name), { recursive: true, force: true });
  }
  return mkdtempSync(join(tmpdir(), `${PREFIX}${process.pid}-`));
}

/** Writes a file aside as it comes, unless it is given up by the signal. What is not taken over must be discarded. */
export async function setAside(
  stream: Readable,
  { part, name, type }: Pick<ArrivedFile, 'part' | 'name' | 'type'>,
  signal: AbortSignal,
): Promise<ArrivedFile> {
  folder ??= ownFolder();
  const id = newId();
  const path = join(folder, id);
  const hash = createHash('sha256');
  let begin = Buffer.alloc(0);
  let size = 0;
  const measure = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      hash.update(chunk);
      size += chunk.length;
      if (begin.length < BEGINNING) begin = Buffer.concat([begin, chunk.subarray(0, BEGINNING - begin.length)]);
      done(null, chunk);
    },
  });
  try {
    await pipeline(stream, measure, createWriteStream(path, { flags: 'wx', mode: 0o600 }), { signal });
  } catch (cause) {
    await unlink(path).catch(() => {});
    throw cause;
  }
  return { id, part, name, type, size, begin, hash: hash.digest('hex'), path };
}

export function bytesOf({ path }: ArrivedFile): Promise<Buffer> {
  return readFile(path);
}

export async function discard(files: readonly ArrivedFile[]): Promise<void> {
  await Promise.all(files.map(({ path }) => unlink(path).catch(() => {})));
}
