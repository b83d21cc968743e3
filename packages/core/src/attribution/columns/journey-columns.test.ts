import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { JOURNEY_KINDS, JourneyColumns } from './journey-columns';
import { lastOfEach, plainRecord, portionOf, type PlainRecord, type PlainTouch } from './testing';

/** What columns hold of a record. */
function held(columns: JourneyColumns, nr: number): PlainTouch[][] {
  return [0, 1, 2].map((basis) =>
    Array.from({ length: columns.count(nr, basis) }, (_, back) => {
      const at = columns.start(nr, basis) + back;
      return { source: columns.source[at]!, at: columns.at[at]!, level: columns.level[at]! };
    }),
  );
}

test('columns hold what was put in last of each record, whatever was put in before', () =>
  fc.assert(
    fc.property(fc.array(fc.array(plainRecord, { maxLength: 12 }), { maxLength: 6 }), (portions) => {
      const columns = new JourneyColumns();
      const known = new Map<number, PlainRecord>();
      for (const records of portions.map(lastOfEach)) {
        const gone = [...known.keys()].filter((nr) => nr % 7 === 0 && !records.some((one) => one.nr === nr));
        columns.put(portionOf(records, gone));
        for (const record of records) known.set(record.nr, record);
        for (const nr of gone) known.delete(nr);
      }
      for (let nr = 0; nr < columns.end; nr += 1) {
        const record = known.get(nr);
        expect(held(columns, nr)).toEqual(record?.journeys ?? [[], [], []]);
        expect(JOURNEY_KINDS[columns.kind[nr]!]).toBe(record?.kind);
        if (record) expect(columns.madeAt[nr]).toBe(record.madeAt);
      }
    }),
  ));

test('what is replaced over and over takes no more room', () => {
  const journey = (nr: number, turn: number) =>
    Array.from({ length: 100 }, (_, back) => ({ source: 1 + ((nr + turn) % 5), at: 1e9 - back, level: back ? 0 : 5 }));
  const record = (nr: number, turn: number): PlainRecord => ({
    ...{ nr, kind: 'deal', madeAt: 1e9, wonAt: null, amount: 1, currency: 'GBP' },
    // Of every second record two journeys are the same.
    journeys: [[], journey(nr, turn), nr % 2 ? journey(nr, turn) : journey(nr, turn + 1)],
  });
  const columns = new JourneyColumns();
  const sizes = Array.from({ length: 12 }, (_, turn) => {
    columns.put(portionOf(Array.from({ length: 100 }, (_record, at) => record(1 + at, turn))));
    return columns.bytes;
  });
  expect(Math.max(...sizes.slice(4))).toBeLessThanOrEqual(Math.max(...sizes.slice(0, 4)));
  for (let nr = 1; nr <= 100; nr += 1) expect(held(columns, nr)).toEqual(record(nr, 11).journeys);
});
