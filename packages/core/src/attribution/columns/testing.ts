import fc from 'fast-check';
import { JOURNEY_KINDS, type JourneyKind, type JourneyPortion } from './journey-columns';

export interface PlainTouch {
  source: number;
  at: number;
  level: number;
}

/** A record with its three journeys as a plain object: what columns are compared with in tests. */
export interface PlainRecord {
  nr: number;
  kind: JourneyKind;
  madeAt: number;
  wonAt: number | null;
  amount: number | null;
  currency: string;
  /** By basis, the latest touch first. */
  journeys: PlainTouch[][];
}

export const DAY = 86_400;
const MONEY = ['GBP', 'EUR', 'JPY'];

const touches = fc
  .array(fc.record({ source: fc.integer({ min: 1, max: 4 }), ago: fc.integer({ min: 0, max: 400 * DAY }) }), {
    maxLength: 6,
  })
  .map((all) => all.sort((one, other) => one.ago - other.ago));

/** Records with numbers up to 30. A journey may be the same for several bases. */
export const plainRecord: fc.Arbitrary<PlainRecord> = fc
  .record({
    nr: fc.integer({ min: 1, max: 30 }),
    kind: fc.constantFrom(...JOURNEY_KINDS),
    madeAt: fc.integer({ min: 19_000 * DAY, max: 19_700 * DAY }),
    wonAfter: fc.option(fc.integer({ min: 0, max: 200 * DAY })),
    amount: fc.option(fc.integer({ min: 0, max: 1e9 })),
    currency: fc.constantFrom(...MONEY),
    own: touches,
    near: fc.option(touches),
    far: fc.option(touches),
  })
  .map(({ own, near, far, madeAt, wonAfter, ...record }) => {
    const placed = (all: typeof own): PlainTouch[] =>
      all.map(({ source, ago }, back) => ({ source, at: madeAt + 50 * DAY - ago, level: back === 0 ? 5 : source % 5 }));
    const journeys = [own, near ?? own, far ?? near ?? own].map(placed);
    return { ...record, madeAt, wonAt: wonAfter === null ? null : madeAt + wonAfter, journeys };
  });

/** The records as they are read, and the numbers of some that are gone. Bases with the same journey share its steps. */
export function portionOf(records: readonly PlainRecord[], gone: readonly number[] = []): JourneyPortion {
  const steps = records.map(({ journeys }) =>
    journeys.flatMap((journey, basis) => {
      const same = (one: PlainTouch[] | undefined) => JSON.stringify(one) === JSON.stringify(journey);
      if (basis > 0 && same(journeys[basis - 1])) return [];
      let toBasis = basis;
      while (toBasis < 2 && same(journeys[toBasis + 1])) toBasis += 1;
      return journey.map((touch) => ({ basis, toBasis, ...touch }));
    }),
  );
  const all = steps.flat();
  const none = gone.map(() => NaN);
  return {
    nr: Int32Array.from([...records.map(({ nr }) => nr), ...gone]),
    kind: Int16Array.from([...records.map(({ kind }) => JOURNEY_KINDS.indexOf(kind)), ...gone.map(() => -1)]),
    madeAt: Float64Array.from([...records.map(({ madeAt }) => madeAt), ...none]),
    wonAt: Float64Array.from([...records.map(({ wonAt }) => wonAt ?? NaN), ...none]),
    amount: Float64Array.from([...records.map(({ amount }) => amount ?? NaN), ...none]),
    currencies: [...records.map(({ amount, currency }) => (amount === null ? '' : currency)), ...gone.map(() => '')],
    counts: Int32Array.from([...steps.map(({ length }) => length), ...gone.map(() => 0)]),
    steps: {
      basis: Uint8Array.from(all.map(({ basis }) => basis)),
      toBasis: Uint8Array.from(all.map(({ toBasis }) => toBasis)),
      level: Uint8Array.from(all.map(({ level }) => level)),
      source: Int32Array.from(all.map(({ source }) => source)),
      at: Float64Array.from(all.map(({ at }) => at)),
    },
  };
}

/** Each record once: of those with the same number the last. */
export function lastOfEach(records: readonly PlainRecord[]): PlainRecord[] {
  return [...new Map(records.map((record) => [record.nr, record])).values()];
}
