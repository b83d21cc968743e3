import { describe, expect, test } from '@jest/globals';
import { FIELD_TYPES, type FieldType, type FieldValue } from '@haycart/core';
import { COLUMNS_OF, ownOrder } from './field-columns';

/** A value of each type, and the row as the database gives it where it is not what was written. */
const SAMPLES: Record<FieldType, { value: FieldValue; row?: unknown }> = {
  text: { value: 'Ada' },
  'long-text': { value: 'two\nlines' },
  'whole-number': { value: 12, row: '12' },
  decimal: { value: 12.5, row: '12.5' },
  money: { value: { amount: 4_800, currency: 'GBP' } },
  date: { value: '2027-03-14' },
  'date-time': { value: '2027-03-14T09:30:00.000Z', row: new Date('2027-03-14T09:30:00Z') },
  'yes-no': { value: false },
  'one-of': { value: 'moss' },
  'several-of': { value: ['moss', 'figs'] },
  email: { value: 'ada@weir.example' },
  phone: { value: '+44 7700 900318' },
  web: { value: 'https://weir.example' },
  person: { value: 'ida-weir' },
};

describe('a built-in field', () => {
  test.each(FIELD_TYPES)(
    'of the type %s comes back from its columns as it was, and blank where it was blank',
    (type) => {
      const { names, write, read } = COLUMNS_OF[type];
      const { value, row } = SAMPLES[type];
      const columns = write('it', value);
      expect(Object.keys(columns)).toEqual(names('it'));
      expect(read('it', row === undefined ? columns : { it: row })).toEqual(value);
      expect(read('it', write('it', undefined))).toBeNull();
      expect(read('it', {})).toBeNull();
    },
  );

  test.each(FIELD_TYPES)('of the type %s has an order and knows blanks', (type) => {
    const { order, blank } = COLUMNS_OF[type];
    expect(order('it').by).toContain('r.it');
    expect(blank('it')).toContain('r.it');
    expect(ownOrder('it', type).by).toContain("'it'");
    // Letters are compared without capitals; numbers, times and keys as they stand.
    expect(/lower\(/.test(order('it').by)).toBe(
      ['text', 'long-text', 'one-of', 'several-of', 'email', 'phone', 'web'].includes(type),
    );
  });
});
