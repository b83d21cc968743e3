/** Many pieces of bytes as one statement parameter: one piece begins at `starts[i]`, counted from 1, and has `lengths[i]` bytes. */
export interface Packed {
  bytes: Buffer;
  starts: number[];
  lengths: number[];
}

/**
 * Packs bytes or texts (as UTF-8), to be taken apart in SQL with `substring(bytes from start for length)`. The driver
 * would write a list of them as one long text with every quote escaped; bytes go as they are.
 */
export function packed(pieces: readonly (Buffer | string)[]): Packed {
  const buffers = pieces.map((piece) => (typeof piece === 'string' ? Buffer.from(piece) : piece));
  let end = 1;
  const starts = buffers.map(({ length }) => (end += length) - length);
  return { bytes: Buffer.concat(buffers), starts, lengths: buffers.map(({ length }) => length) };
}
