import { endianness } from 'node:os';

const SWAPS = endianness() === 'LE';

/** Numbers that the database packed with `int4send`, in network order; null holds none. */
export function int32s(bytes: Buffer | null): Int32Array {
  return new Int32Array(inOwnOrder(bytes, 'swap32'));
}

/** The same of `int2send`. */
export function int16s(bytes: Buffer | null): Int16Array {
  return new Int16Array(inOwnOrder(bytes, 'swap16'));
}

/** The same of `float8send`. */
export function float64s(bytes: Buffer | null): Float64Array {
  return new Float64Array(inOwnOrder(bytes, 'swap64'));
}

/** In memory of its own, since a buffer may begin anywhere in a shared one. */
function inOwnOrder(bytes: Buffer | null, swap: 'swap16' | 'swap32' | 'swap64'): ArrayBuffer {
  const own = new ArrayBuffer(bytes?.length ?? 0);
  const view = Buffer.from(own);
  if (bytes) view.set(bytes);
  if (SWAPS) view[swap]();
  return own;
}
