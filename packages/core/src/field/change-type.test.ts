import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { FieldValue } from '../diff/record';
import { changeType } from './change-type';
import { FIELD_TYPES, type FieldDefinition, type FieldType } from './field-definition';

const DEFAULTS = { defaultCountry: 'GB', defaultCurrency: 'GBP' };
const OPTIONS = [
  { key: 'warm', label: 'Warm' },
  { key: 'cold', label: 'Cold' },
];
const field = (type: FieldType): FieldDefinition => ({
  record: 'deal',
  key: 'thing',
  label: 'Thing',
  type,
  builtIn: false,
  required: false,
  ...(type === 'one-of' || type === 'several-of' ? { options: OPTIONS } : {}),
});
const becomes = (from: FieldType, to: FieldType, ...values: FieldValue[]) =>
  changeType(
    field(from),
    to,
    values.map((value) => ({ value, count: 1 })),
    DEFAULTS,
  ).becomes.map((one) => one.to);

describe('values of a field that gets another type', () => {
  test.each<[FieldType, FieldType, FieldValue, FieldValue | null]>([
    ['text', 'whole-number', '6', 6],
    ['text', 'whole-number', 'a few', null],
    ['text', 'email', 'ADA@weir.example', 'ada@weir.example'],
    ['text', 'date', '14 March', null],
    ['text', 'money', '€ 12', { amount: 1_200, currency: 'EUR' }],
    ['text', 'yes-no', 'ja', true],
    ['decimal', 'whole-number', 6, 6],
    ['decimal', 'whole-number', 6.5, null],
    ['decimal', 'text', 6.5, '6.5'],
    ['decimal', 'money', 12.5, { amount: 1_250, currency: 'GBP' }],
    ['whole-number', 'decimal', 6, 6],
    ['money', 'text', { amount: 1_250, currency: 'EUR' }, '€ 12.50'],
    ['date', 'date-time', '2026-03-14', '2026-03-14T00:00:00.000Z'],
    ['date-time', 'date', '2026-03-14T09:30:00.000Z', '2026-03-14'],
    ['yes-no', 'text', true, 'yes'],
    ['one-of', 'text', 'warm', 'Warm'],
    ['one-of', 'several-of', 'warm', ['warm']],
    ['several-of', 'one-of', ['cold'], 'cold'],
    ['several-of', 'one-of', ['cold', 'warm'], null],
    ['several-of', 'text', ['cold', 'warm'], 'Cold, Warm'],
    ['text', 'phone', '12', null],
  ])('%s to %s: %j becomes %j', (from, to, value, after) => expect(becomes(from, to, value)).toEqual([after]));

  test('give a list its options, one for each text whatever its capitals', () => {
    const { field: after, becomes: changed } = changeType(
      field('text'),
      'one-of',
      [
        { value: 'Frost-free', count: 4 },
        { value: 'frost-free', count: 1 },
        { value: 'Warm', count: 2 },
      ],
      DEFAULTS,
    );
    expect(after.options).toEqual([
      { key: 'frost-free', label: 'Frost-free' },
      { key: 'warm', label: 'Warm' },
    ]);
    expect(changed.map(({ to }) => to)).toEqual(['frost-free', 'frost-free', 'warm']);
  });

  test('never become what their new field would refuse', () => {
    fc.assert(
      fc.property(fc.constantFrom(...FIELD_TYPES), fc.string(), (type, text) => {
        const { field: after, becomes: changed } = changeType(
          field('text'),
          type,
          [{ value: text, count: 1 }],
          DEFAULTS,
        );
        const again = changeType(after, 'text', [{ value: changed[0]!.to ?? '', count: 1 }], DEFAULTS);
        expect(typeof (again.becomes[0]!.to ?? '')).toBe('string');
      }),
    );
  });
});
