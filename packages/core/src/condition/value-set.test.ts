import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cleanValues } from './value-set';
import { readValueSetsCsv, valueSetsCsv } from './value-set-csv';

test('values are kept once, whatever their capitals and spaces', () => {
  expect(cleanValues([' Leeds ', 'LEEDS', '', 'York\tNorth', 'a\u0000b'])).toEqual(['Leeds', 'York North', 'ab']);
});

describe('value sets as CSV', () => {
  test('come back as they were', () => {
    const value = fc
      .string({ minLength: 1 })
      .map((text) => cleanValues([text])[0])
      .filter((text) => text !== undefined);
    const set = fc.record({ name: value, values: fc.uniqueArray(value, { selector: (text) => text.toLowerCase() }) });
    fc.assert(
      fc.property(
        fc.uniqueArray(set, { selector: ({ name }) => name.toLowerCase(), minLength: 1, maxLength: 5 }),
        (sets) => {
          expect(readValueSetsCsv(valueSetsCsv(sets))).toEqual(sets);
        },
      ),
    );
  });

  test.each<[string, unknown]>([
    ['North;Leeds;York\nnorth;Hull\n', [{ name: 'North', values: ['Leeds', 'York', 'Hull'] }]],
    ['\uFEFFSet,Value\r\nEmpty,\r\n', [{ name: 'Empty', values: [] }]],
    ['', expect.stringMatching(/has no line/)],
    ['"open', expect.stringMatching(/cannot be read/)],
    [Array.from({ length: 300 }, (_, n) => `set ${n},x`).join('\n'), expect.stringMatching(/at most 200/)],
  ])('%#: %j', (text, read) => expect(readValueSetsCsv(text)).toEqual(read));
});
