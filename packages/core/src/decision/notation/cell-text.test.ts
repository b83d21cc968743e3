import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { destination as example } from '../../testing/example';
import { comparedCell } from '../cell';
import { columnsOf } from '../column';
import { cellSetting } from '../decide';
import type { CellTest, DecisionInput } from '../decision-table';
import { readCell, showCell } from './cell-text';

const destination = {
  ...example,
  valueSets: { north: { name: 'North', values: ['Leeds'] }, 'in-between': { name: 'in between', values: [] } },
  teams: { design: { name: 'Design, early', people: [] } },
};
const INPUTS = {
  town: { of: { answer: 'town' }, label: 'Town' },
  bays: { of: { answer: 'bays' }, label: 'Bays', as: 'number' },
  start: { of: { answer: 'start' }, label: 'Start', as: 'date' },
  customer: { of: { answer: 'customer' }, label: 'Customer', as: 'yes-no' },
  crops: { of: { answer: 'crops' }, label: 'Crops', as: 'several' },
  where: { of: { answer: 'country' }, label: 'Where', as: 'region' },
  day: { of: { visit: 'receivedAt' }, label: 'Day', as: 'weekday' },
  time: { of: { visit: 'receivedAt' }, label: 'Time', as: 'time-of-day' },
  use: { of: { write: 'person', field: 'growing_for' }, label: 'Growing for' },
  value: { of: { write: 'sale', field: 'value' }, label: 'Value' },
} satisfies Record<string, DecisionInput>;
type Name = keyof typeof INPUTS;
const around = {
  destination,
  writes: [
    { as: 'person', record: 'contact' as const },
    { as: 'sale', record: 'deal' as const },
  ],
  tables: [],
};
const column = (name: Name) => columnsOf({ name: 't', inputs: [INPUTS[name]], outputs: [], rows: [] }, around)[0]!;
const names = { ...destination, valueSets: destination.valueSets };
const read = (name: Name, typed: string) => {
  const got = readCell(typed, column(name), names);
  return got.ok ? got.cell : got.text;
};

describe('a cell', () => {
  test.each<[Name, string, CellTest | null]>([
    ['town', '', null],
    ['town', ' Any ', null],
    ['town', 'Leeds', { test: 'is', value: 'Leeds' }],
    ['town', 'Leeds, "York, North"', { test: 'is', value: ['Leeds', 'York, North'] }],
    ['town', 'not Leeds', { test: 'is-not', value: 'Leeds' }],
    ['town', 'Starts with Le', { test: 'starts-with', value: 'Le' }],
    ['town', 'contains "sea, north"', { test: 'contains', value: 'sea, north' }],
    ['town', 'in north', { test: 'in-set', value: 'north' }],
    ['town', 'not in in between', { test: 'not-in-set', value: 'in-between' }],
    ['town', '"in Leeds"', { test: 'is', value: 'in Leeds' }],
    ['town', 'not blank', { test: 'filled' }],
    ['bays', 'at least 50', { test: 'at-least', value: 50 }],
    ['bays', 'under 4.5', { test: 'below', value: 4.5 }],
    ['bays', '4 to 9', { test: 'between', value: [4, 9] }],
    ['bays', '-3', { test: 'is-number', value: -3 }],
    // As people write them in a sheet.
    ['bays', '> 5,000', { test: 'above', value: 5_000 }],
    ['bays', '>=10', { test: 'at-least', value: 10 }],
    ['bays', '≤ 12.5', { test: 'at-most', value: 12.5 }],
    ['bays', '20+', { test: 'at-least', value: 20 }],
    ['bays', '20 or more', { test: 'at-least', value: 20 }],
    ['bays', '9 and under', { test: 'at-most', value: 9 }],
    ['bays', 'up to 999', { test: 'at-most', value: 999 }],
    ['bays', 'less than 10', { test: 'below', value: 10 }],
    ['bays', '1000-5000', { test: 'between', value: [1_000, 5_000] }],
    ['bays', '1,000 – 5,000', { test: 'between', value: [1_000, 5_000] }],
    ['bays', 'between 4 and 9', { test: 'between', value: [4, 9] }],
    ['bays', 'from 4 to 9', { test: 'between', value: [4, 9] }],
    ['bays', '-3 - 4', { test: 'between', value: [-3, 4] }],
    ['bays', 'all', null],
    ['value', '£5,000+', { test: 'at-least', value: { amount: 500_000, currency: 'GBP' } }],
    ['town', 'Leeds; York\nRipon', { test: 'is', value: ['Leeds', 'York', 'Ripon'] }],
    ['town', 'Le*, Yo*', { test: 'starts-with', value: ['Le', 'Yo'] }],
    ['town', '*glass*', { test: 'contains', value: 'glass' }],
    ['town', '"Le*"', { test: 'is', value: 'Le*' }],
    ['town', '<> Leeds', { test: 'is-not', value: 'Leeds' }],
    ['start', '> 2027-03-14', { test: 'from', value: '2027-03-15' }],
    ['where', 'UK; Netherlands', { test: 'is', value: ['UK', 'Netherlands'] }],
    ['value', 'at least GBP 1,200', { test: 'at-least', value: { amount: 120_000, currency: 'GBP' } }],
    ['start', 'from 14 March 2027', { test: 'from', value: '2027-03-14' }],
    ['start', 'until 2027-03-14', { test: 'before', value: '2027-03-15' }],
    ['start', '2027-03-01 to 2027-03-31', { test: 'in-period', value: ['2027-03-01', '2027-03-31'] }],
    ['start', 'in the last 7 days', { test: 'last-days', value: 7 }],
    ['customer', 'YES', { test: 'yes' }],
    ['crops', 'all of leeks, onions', { test: 'holds-all-of', value: ['leeks', 'onions'] }],
    ['where', 'NL 1000-1999, BE', { test: 'is', value: ['NL 1000-1999', 'BE'] }],
    ['where', 'not Netherlands', { test: 'is-not', value: 'Netherlands' }],
    ['day', 'Mon to Wednesday, sun', { test: 'is-any-of', value: ['mon', 'tue', 'wed', 'sun'] }],
    ['time', '9:00 to 17:30', { test: 'between', value: [540, 1_050] }],
    ['time', 'before 9:00', { test: 'below', value: 540 }],
    ['use', 'teaching garden', { test: 'is-any-of', value: ['school'] }],
    ['use', 'not school garden', { test: 'is-none-of', value: ['school'] }],
  ])('%s: “%s” is read', (name, typed, expected) => expect(read(name, typed)).toEqual(expected));

  test.each<[Name, string, RegExp]>([
    ['town', 'in Atlantis', /no value set “Atlantis”/],
    ['bays', 'many', /Type a number\. Or a test such as/],
    ['bays', '9 to 4', /ends before it begins/],
    ['start', 'soon', /Type a day/],
    ['start', '2027-02-30', /Type a day/],
    ['customer', 'perhaps', /Type yes or no/],
    ['where', 'Atlantis', /no country/],
    ['where', 'NL 1999-1000', /end before they begin/],
    ['day', 'Sun to Mon', /has no choice “Sun to Mon”/],
    ['time', '25:00 to 26:00', /Type times/],
    ['use', 'Teachin garden', /Did you mean “Teaching garden”\?/],
    ['use', 'Orchard', /has no choice “Orchard”. It has Teaching garden/],
    ['town', ','.repeat(5), /Type what to compare with/],
    ['town', 'x'.repeat(20_000), /at most 10,000/],
  ])('%s: “%s” is refused with what to type', (name, typed, why) => expect(read(name, typed)).toMatch(why));

  test('is shown as what would be typed for it, whatever it holds', () => {
    const word = fc.oneof(
      fc.string({ minLength: 1, unit: 'grapheme' }).map((text) => text.replace(/\s+/g, ' ').trim()),
      fc.constantFrom(
        'not',
        'in',
        'in North',
        'blank',
        'any',
        '-',
        'starts with a',
        '"',
        'a, b',
        'contains',
        'Not x',
        'All',
        'n/a',
        'a*',
        '*b',
        '<> c',
        '=d',
        'e; f',
        'except g',
      ),
    );
    const texts = fc.oneof(word, fc.array(word, { minLength: 2, maxLength: 4 }));
    const cells = fc.oneof(
      fc.record({
        test: fc.constantFrom('is', 'is-not', 'starts-with', 'ends-with', 'contains', 'contains-not'),
        value: texts,
      }),
      fc.record({ test: fc.constantFrom('in-set', 'not-in-set'), value: fc.constantFrom('north', 'in-between') }),
      fc.constantFrom<CellTest | null>(null, { test: 'blank' }, { test: 'filled' }),
    );
    fc.assert(
      fc.property(cells, (cell) => {
        fc.pre(!cell || [(cell as CellTest).value].flat().every((one) => one !== ''));
        expect(read('town', showCell(cell, column('town'), names))).toEqual(cell);
      }),
    );
  });

  test('of numbers, days and times is shown as it was read', () => {
    const number = fc
      .double({ noNaN: true, noDefaultInfinity: true, min: -1e9, max: 1e9 })
      .map((n) => Math.round(n * 100) / 100 + 0);
    const bays = fc.oneof(
      fc.record({ test: fc.constantFrom('at-least', 'at-most', 'above', 'below', 'is-number'), value: number }),
      fc.tuple(number, number).map(([a, b]) => ({ test: 'between', value: [Math.min(a, b), Math.max(a, b)] })),
    );
    fc.assert(fc.property(bays, (cell) => expect(read('bays', showCell(cell, column('bays'), names))).toEqual(cell)));
    for (const [name, typed] of [
      ['value', 'GBP 10.00 to GBP 12.50'],
      ['start', 'in the next 3 days'],
      ['time', '00:00 to 23:59'],
      ['day', 'not Saturday, Sunday'],
      ['crops', 'none of leeks'],
      ['where', 'not NL 1000-1999'],
    ] as const) {
      const cell = read(name, typed) as CellTest;
      expect(read(name, showCell(cell, column(name), names))).toEqual(cell);
    }
  });

  test('of each kind of field of a record can be compared once it was read', () => {
    const setting = cellSetting(destination, '2026-01-01T00:00:00.000Z');
    for (const [name, typed] of [
      ['town', 'in North'],
      ['where', 'NL, DE 40-49'],
      ['start', '2027-03-01 to 2027-03-31'],
    ] as const)
      expect(comparedCell(read(name, typed) as CellTest, column(name), setting)).toBeInstanceOf(Object);
  });
});
