import { randomFillSync } from 'node:crypto';
import { v7 } from 'uuid';

const RANDOM_BYTES = 16;
/** Random bytes are fetched for many ids at once: fetching them costs more than the rest of an id. */
const pool = new Uint8Array(RANDOM_BYTES * 256);
let used = pool.length;
let lastAt = 0;
let sequence = 0;

/** A new UUIDv7 (RFC 9562). Ids of one process grow in the order in which they were asked for. */
export function newId(): string {
  if (used === pool.length) {
    randomFillSync(pool);
    used = 0;
  }
  const random = pool.subarray(used, (used += RANDOM_BYTES));
  const now = Date.now();
  if (now > lastAt) {
    lastAt = now;
    // The highest bit is left free, so that not even the busiest millisecond runs out of numbers.
    sequence = ((random[6]! & 0x7f) << 24) | (random[7]! << 16) | (random[8]! << 8) | random[9]!;
  } else sequence += 1;
  return v7({ random, msecs: lastAt, seq: sequence });
}
