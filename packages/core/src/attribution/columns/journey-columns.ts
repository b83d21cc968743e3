import { grown } from './grown';

/** Whose journeys are held: the index is stored as a number. */
export const JOURNEY_KINDS = ['contact', 'deal', 'lead'] as const;
export type JourneyKind = (typeof JOURNEY_KINDS)[number];

/** A deal has a journey by its own touches, by its contacts' too, and by its companies' and all their people's too. */
const BASES = 3;
/** Columns are copied without what was replaced once that is as much as what counts. */
const LEAST_REPLACED = 10_000;

/** Records with their journeys, as they are read. Times are seconds since 1970; what is not known is NaN. */
export interface JourneyPortion {
  /** The numbers of records. */
  nr: Int32Array;
  /** The position in `JOURNEY_KINDS`; -1: the record is gone. */
  kind: Int16Array;
  madeAt: Float64Array;
  /** When a deal was won, or a lead qualified. */
  wonAt: Float64Array;
  /** In minor units. */
  amount: Float64Array;
  /** Blank without an amount. */
  currencies: readonly string[];
  /** How many steps each record has. */
  counts: Int32Array;
  /** Of one record after the other, by basis, the latest first. */
  steps: {
    basis: Uint8Array;
    /** The journey holds from `basis` to this. */
    toBasis: Uint8Array;
    level: Uint8Array;
    source: Int32Array;
    at: Float64Array;
  };
}

/**
 * The journeys of all records of a workspace, by column: some 45 bytes for each record and 13 for each step. Records are
 * numbered from 1 without large gaps.
 */
export class JourneyColumns {
  /** The position in `JOURNEY_KINDS`; -1: there is no such record. */
  kind = new Int8Array(0);
  madeAt = new Float64Array(0);
  wonAt = new Float64Array(0);
  amount = new Float64Array(0);
  currency = new Uint16Array(0);
  readonly currencies: string[] = [''];
  /** By record and basis: the place of the latest step, and how many there are from there on. */
  #start = new Int32Array(0);
  #count = new Int32Array(0);
  source = new Int32Array(0);
  at = new Float64Array(0);
  level = new Uint8Array(0);
  #steps = 0;
  #replaced = 0;

  /** One more than the largest number of a record. */
  get end(): number {
    return this.kind.length;
  }

  get bytes(): number {
    const columns = [this.kind, this.madeAt, this.wonAt, this.amount, this.currency, this.#start, this.#count];
    return [...columns, this.source, this.at, this.level].reduce((sum, { byteLength }) => sum + byteLength, 0);
  }

  /** Returns where the journey of a record begins: the place of its latest touch. */
  start(nr: number, basis: number): number {
    return this.#start[nr * BASES + basis]!;
  }

  /** Returns how many touches a journey has. */
  count(nr: number, basis: number): number {
    return this.#count[nr * BASES + basis]!;
  }

  /** Takes records in, in place of what is held of them. */
  put(portion: JourneyPortion): void {
    const largest = portion.nr.reduce((most, nr) => Math.max(most, nr), 0);
    if (largest >= this.end) this.#makeRoomForRecords(largest + 1);
    this.#makeRoomForSteps(this.#steps + portion.steps.source.length);
    let step = 0;
    for (let record = 0; record < portion.nr.length; record += 1) {
      const nr = portion.nr[record]!;
      const end = step + portion.counts[record]!;
      this.#forget(nr);
      this.#putFacts(nr, portion, record);
      for (; step < end; step += 1) this.#putStep(nr, portion.steps, step);
    }
    if (this.#replaced > LEAST_REPLACED && this.#replaced * 2 > this.#steps) this.#close();
  }

  #forget(nr: number): void {
    this.kind[nr] = -1;
    for (let basis = 0; basis < BASES; basis += 1) {
      const of = nr * BASES + basis;
      if (!this.#isSharedWithBefore(of, basis)) this.#replaced += this.#count[of]!;
    }
    this.#count.fill(0, nr * BASES, (nr + 1) * BASES);
  }

  /** Whether a basis has the same journey as the one before it. */
  #isSharedWithBefore(of: number, basis: number): boolean {
    return basis > 0 && this.#count[of - 1]! > 0 && this.#start[of] === this.#start[of - 1];
  }

  #putFacts(nr: number, { kind, madeAt, wonAt, amount, currencies }: JourneyPortion, at: number): void {
    this.kind[nr] = kind[at]!;
    this.madeAt[nr] = madeAt[at]!;
    this.wonAt[nr] = wonAt[at]!;
    this.amount[nr] = amount[at]!;
    this.currency[nr] = this.#currencyNr(currencies[at]!);
  }

  #currencyNr(currency: string): number {
    const known = this.currencies.indexOf(currency);
    return known >= 0 ? known : this.currencies.push(currency) - 1;
  }

  #putStep(nr: number, steps: JourneyPortion['steps'], at: number): void {
    const place = this.#steps;
    this.#steps += 1;
    this.source[place] = steps.source[at]!;
    this.at[place] = steps.at[at]!;
    this.level[place] = steps.level[at]!;
    for (let basis = steps.basis[at]!; basis <= steps.toBasis[at]!; basis += 1) {
      const of = nr * BASES + basis;
      if (this.#count[of] === 0) this.#start[of] = place;
      this.#count[of]! += 1;
    }
  }

  #makeRoomForRecords(end: number): void {
    const before = this.end;
    this.kind = grown(this.kind, end).fill(-1, before);
    this.madeAt = grown(this.madeAt, end);
    this.wonAt = grown(this.wonAt, end);
    this.amount = grown(this.amount, end);
    this.currency = grown(this.currency, end);
    this.#start = grown(this.#start, this.end * BASES);
    this.#count = grown(this.#count, this.end * BASES);
  }

  #makeRoomForSteps(end: number): void {
    this.source = grown(this.source, end);
    this.at = grown(this.at, end);
    this.level = grown(this.level, end);
  }

  /** Copies the steps that count next to each other. */
  #close(): void {
    const [source, at, level] = [this.source, this.at, this.level];
    const kept = this.#steps - this.#replaced;
    [this.source, this.at, this.level] = [new Int32Array(kept), new Float64Array(kept), new Uint8Array(kept)];
    const starts = new Int32Array(this.#start.length);
    let end = 0;
    for (let of = 0; of < this.#count.length; of += 1) {
      const start = this.#start[of]!;
      const count = this.#count[of]!;
      if (this.#isSharedWithBefore(of, of % BASES)) {
        starts[of] = starts[of - 1]!;
        continue;
      }
      this.source.set(source.subarray(start, start + count), end);
      this.at.set(at.subarray(start, start + count), end);
      this.level.set(level.subarray(start, start + count), end);
      starts[of] = end;
      end += count;
    }
    this.#start = starts;
    [this.#steps, this.#replaced] = [end, 0];
  }
}
