import { describe, expect, test } from '@jest/globals';
import { RECORD_KINDS, type FieldValues } from '@haycart/core';
import { columnsToValues, fieldColumns, recordName, valuesToColumns } from './record-rows';

const VALUES: Record<(typeof RECORD_KINDS)[number], FieldValues> = {
  contact: { full_name: 'Ada', email: 'a@x.example', emails: ['a@x.example'], growing_for: 'school', may_write: true },
  company: { name: 'Weir', domain: 'weir.example', glass_area: 12.5 },
  lead: { name: 'L', message: 'two\nlines' },
  deal: {
    name: 'D',
    value: { amount: 4_800_000, currency: 'GBP' },
    pipeline: 'p',
    stage: 's',
    status: 'open',
    stage_since: '2026-03-14T09:30:00.000Z',
    bays: 6,
  },
};

describe('records as rows', () => {
  test.each(RECORD_KINDS)('a %s comes back as it was', (kind) => {
    const row = valuesToColumns(kind, VALUES[kind]);
    expect(columnsToValues(kind, row)).toEqual(VALUES[kind]);
    expect(Object.keys(row).sort()).toEqual([...fieldColumns(kind), 'custom'].sort());
  });

  test('money takes two columns, times come as dates, blanks are left out', () => {
    expect(valuesToColumns('deal', VALUES.deal)).toMatchObject({
      value_amount: 4_800_000,
      value_currency: 'GBP',
      custom: { bays: 6 },
    });
    expect(
      columnsToValues('deal', {
        name: 'D',
        value_amount: '100',
        value_currency: 'EUR',
        stage_since: new Date(0),
        closed_at: null,
      }),
    ).toEqual({ name: 'D', value: { amount: 100, currency: 'EUR' }, stage_since: '1970-01-01T00:00:00.000Z' });
  });

  test('have a name that people can say', () => {
    expect([
      recordName('contact', { email: 'a@x.example' }),
      recordName('contact', {}),
      recordName('deal', { name: 'D' }),
    ]).toEqual(['a@x.example', 'without a name', 'D']);
  });
});
