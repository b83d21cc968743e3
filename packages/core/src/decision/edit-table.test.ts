import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { destination as example } from '../testing/example';
import type { DecisionTable } from './decision-table';
import {
  rowTexts,
  withBlock,
  withCell,
  withInput,
  withInputChanged,
  withOutputChanged,
  withoutInput,
  withoutOutput,
  withoutRows,
  withRowMoved,
  withRows,
} from './edit-table';
import { readTableCsv, tableCsv } from './table-csv';

const destination = {
  ...example,
  fields: example.fields.map((field) =>
    field.key === 'owner' ? { ...field, options: [{ key: 'ida', label: 'Ida Vos' }] } : field,
  ),
  teams: { north: { name: 'North', people: ['ida'] } },
  valueSets: { uk: { name: 'UK', values: ['GB'] } },
};
const around = { destination, writes: [], tables: [] };
const TABLE: DecisionTable = {
  name: 'Who',
  inputs: [
    { of: { answer: 'country' }, label: 'Country' },
    { of: { answer: 'bays' }, label: 'Bays', as: 'number' },
  ],
  outputs: [
    { name: 'stage', type: 'stage' },
    { name: 'owner', type: 'owner' },
  ],
  rows: [],
};
const pasted = withBlock(
  TABLE,
  [0, 0],
  [
    ['in UK', 'at least 8', 'Design', 'Ida Vos', 'big ones'],
    ['GB, "NL, south"', '', 'Enquiry', 'North, in turn', ''],
    ['', 'loads', 'Nowhere', 'Nobody', ''],
  ],
  around,
);

describe('a table as it is edited', () => {
  test('takes a block as it is pasted, adds rows for it, and keeps what cannot be read', () => {
    expect(pasted.rows).toEqual([
      {
        when: [
          { test: 'in-set', value: 'uk' },
          { test: 'at-least', value: 8 },
        ],
        then: { stage: 'design', owner: { person: 'ida' } },
        note: 'big ones',
      },
      {
        when: [{ test: 'is', value: ['GB', 'NL, south'] }, null],
        then: { stage: 'enquiry', owner: { team: 'north' } },
      },
      {
        when: [null, { test: 'unread', value: 'loads' }],
        then: { stage: { unread: 'Nowhere' }, owner: { unread: 'Nobody' } },
      },
    ]);
    expect(rowTexts(pasted.rows[2]!, pasted, around)).toEqual(['', 'loads', 'Nowhere', 'Nobody', '']);
    const mended = withCell(pasted.rows[2]!, 1, '5', pasted, around);
    expect(mended.when[1]).toEqual({ test: 'is-number', value: 5 });
    const beyond = withBlock(TABLE, [2, 0], [['GB']], around);
    expect(beyond.rows.map(({ when }) => when[0])).toEqual([null, null, { test: 'is', value: 'GB' }]);
    expect(withBlock(pasted, [1, 3], [['Ida Vos', 'note', 'beyond the table']], around).rows[1]).toMatchObject({
      then: { owner: { person: 'ida' } },
      note: 'note',
    });
  });

  test('has its rows put in, taken out and moved', () => {
    const [first, second, third] = pasted.rows;
    expect(withRowMoved(pasted, 0, 2).rows).toEqual([second, third, first]);
    expect(withRowMoved(pasted, 0, 3)).toBe(pasted);
    expect(withoutRows(pasted, 0, 1).rows).toEqual([third]);
    expect(withRows(pasted, 1, [first!]).rows).toEqual([first, first, second, third]);
    expect(
      withRows(
        pasted,
        0,
        Array.from({ length: 2_000 }, () => first!),
      ).rows,
    ).toHaveLength(1_000);
  });

  test('has columns added, read otherwise, renamed and taken away, and its cells go along', () => {
    const more = withInput(pasted, { of: { answer: 'x' }, label: 'X' });
    expect(more.rows.map(({ when }) => when.length)).toEqual([3, 3, 3]);
    expect(withoutInput(more, 0).rows[0]!.when).toEqual([{ test: 'at-least', value: 8 }, null]);
    const text = withInputChanged(pasted, 1, { ...TABLE.inputs[1]!, as: 'text' }, around);
    expect(text.rows[0]!.when[1]).toEqual({ test: 'is', value: 'at least 8' });
    expect(withInputChanged(text, 1, TABLE.inputs[1]!, around).rows[0]).toEqual(pasted.rows[0]);
    const renamed = withOutputChanged(pasted, 0, { name: 'where', type: 'text' }, destination);
    expect(renamed.rows.map(({ then }) => then.where)).toEqual(['Design', 'Enquiry', 'Nowhere']);
    expect(withoutOutput(pasted, 0).rows[0]!.then).toEqual({ owner: { person: 'ida' } });
  });
});

describe('a table as CSV', () => {
  test('comes back as it was, with what is decided otherwise', () => {
    const table = { ...pasted, otherwise: { owner: { team: 'north' } } };
    const csv = tableCsv(table, around);
    expect(csv.split('\r\n')[0]).toBe('Row,Country,Bays,→ stage,→ owner,Note');
    expect(readTableCsv(csv, TABLE, around)).toEqual({ ok: true, table, notes: [] });
  });

  test('comes back whatever is typed into it', () => {
    const texts = fc.array(fc.array(fc.string({ maxLength: 30 }), { minLength: 5, maxLength: 5 }), { maxLength: 6 });
    fc.assert(
      fc.property(texts, (block) => {
        const table = withBlock(TABLE, [0, 0], block, around);
        const read = readTableCsv(tableCsv(table, around), TABLE, around);
        expect(read).toEqual({ ok: true, table, notes: [] });
      }),
    );
  });

  test('is read with columns in another order, fewer, others, and rows that are too long; and says so', () => {
    const read = readTableCsv('owner;Continent;bays\nIda Vos;Europe;5;more\n\nNorth;;at least 9;\n', TABLE, around);
    expect(read).toMatchObject({
      ok: true,
      table: {
        rows: [
          { when: [null, { test: 'is-number', value: 5 }], then: { owner: { person: 'ida' } } },
          { when: [null, { test: 'at-least', value: 9 }], then: { owner: { team: 'north' } } },
        ],
      },
      notes: [
        'The table has no column “Continent”; left out.',
        'The file has no column “Country” and “stage”; left blank.',
        '1 row is longer than the header; what is beyond was left out.',
      ],
    });
  });

  test.each([
    ['x,y\n1,2\n', /names none of the columns/],
    ['Country\n"open', /cannot be read as CSV/],
    [`Country\n${'GB\n'.repeat(1_200)}`, /has 1,200 rows/],
    ['', /names none of the columns/],
  ])('%# is refused with why', (text, why) =>
    expect(readTableCsv(text, TABLE, around)).toEqual({ ok: false, text: expect.stringMatching(why) }),
  );
});
