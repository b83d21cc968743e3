import { blocksOf } from './blocks';
import type { ComparedRecord } from './compared';

/** Larger blocks tell nothing: what so many share is no sign of one person. */
export const LARGEST_BLOCK = 60;

/** Entries there is room for at first; the room doubles. */
const FIRST_ROOM = 1 << 12;

/**
 * Which of many records share a block. Blocks are kept as hashes of 32 bits, some 100 bytes a record: two blocks that fall
 * together cost a comparison in vain, and at the worst one block of many that lead to a pair.
 */
export class BlockIndex {
  /** The hashes of all records, one record after the other. */
  #hashes = new Uint32Array(FIRST_ROOM);
  /** Where those of each record begin, and where the last ones end. */
  readonly #begins: number[] = [0];
  #sorted: Sorted | null = null;

  constructor(records: Iterable<ComparedRecord> = []) {
    for (const record of records) this.add(record);
  }

  get size(): number {
    return this.#begins.length - 1;
  }

  /** Adds the next record; its place is how many there were before. */
  add(record: ComparedRecord): void {
    const keys = blocksOf(record);
    const begin = this.#begins[this.size]!;
    if (begin + keys.length > this.#hashes.length) this.#grow();
    keys.forEach((key, index) => (this.#hashes[begin + index] = hashOf(key)));
    this.#begins.push(begin + keys.length);
    this.#sorted = null;
  }

  /** Every pair of records that share a block, once each, by their places, the smaller first; of those whose later one lies within a range. */
  *pairs(from = 0, to = this.size, largest = LARGEST_BLOCK): Generator<[number, number]> {
    const { hashes, members } = (this.#sorted ??= this.#sort());
    for (let later = from; later < to; later++) {
      const earlier = new Set<number>();
      for (let at = this.#begins[later]!; at < this.#begins[later + 1]!; at++) {
        const hash = this.#hashes[at]!;
        const begin = firstAt(hashes, hash);
        if (hashes[begin + largest] === hash) continue;
        for (let one = begin; hashes[one] === hash && members[one]! < later; one++) earlier.add(members[one]!);
      }
      for (const member of earlier) yield [member, later];
    }
  }

  /** All entries by hash, and those of one hash by the place of the record. */
  #sort(): Sorted {
    const count = this.#begins[this.size]!;
    const words = new Uint32Array(count * 2);
    for (let record = 0; record < this.size; record++)
      for (let at = this.#begins[record]!; at < this.#begins[record + 1]!; at++) {
        // As one number of 64 bits, whose lower half comes first in memory: the hash above, the place below.
        words[at * 2] = record;
        words[at * 2 + 1] = this.#hashes[at]!;
      }
    new BigUint64Array(words.buffer).sort();
    const [hashes, members] = [new Uint32Array(count), new Uint32Array(count)];
    for (let at = 0; at < count; at++) {
      members[at] = words[at * 2]!;
      hashes[at] = words[at * 2 + 1]!;
    }
    return { hashes, members };
  }

  #grow(): void {
    const wider = new Uint32Array(this.#hashes.length * 2);
    wider.set(this.#hashes);
    this.#hashes = wider;
  }
}

interface Sorted {
  hashes: Uint32Array;
  members: Uint32Array;
}

/** The first place of a value in a sorted list that has it. */
function firstAt(sorted: Uint32Array, value: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (sorted[middle]! < value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** FNV-1a (Fowler, Noll, Vo), 32 bits, over UTF-16 units, with the last mixing of MurmurHash3 (Appleby). */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return (hash ^ (hash >>> 16)) >>> 0;
}
