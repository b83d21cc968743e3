import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FIELD_TYPES, type FieldDefinition, type FieldType } from './field-definition';
import { readFieldValue, showFieldValue, TEXT_LIMITS } from './field-value';

const DEFAULTS = { defaultCountry: 'GB', defaultCurrency: 'GBP' };
const OPTIONS = [
  { key: 'warm', label: 'Warm', aliases: ['heated'] },
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
const read = (type: FieldType, text: string) => readFieldValue(field(type), text, DEFAULTS);

describe('a text becomes a value of its field', () => {
  test.each<[FieldType, string, unknown, string]>([
    ['text', ' as typed ', ' as typed ', ' as typed '],
    ['long-text', 'one\ntwo', 'one\ntwo', 'one\ntwo'],
    ['whole-number', '-12', -12, '-12'],
    ['decimal', '1,5', 1.5, '1.5'],
    ['decimal', '-2.25', -2.25, '-2.25'],
    ['decimal', '1.250,5', 1250.5, '1250.5'],
    ['money', '€ 1.200', { amount: 120_000, currency: 'EUR' }, '€ 1,200.00'],
    ['date', '2028-02-29', '2028-02-29', '2028-02-29'],
    ['date-time', '2026-03-14T09:30:00+01:00', '2026-03-14T08:30:00.000Z', '2026-03-14T08:30:00.000Z'],
    ['yes-no', 'JA', true, 'yes'],
    ['yes-no', 'off', false, 'no'],
    ['one-of', 'HEATED', 'warm', 'Warm'],
    ['several-of', 'cold; heated, cold', ['cold', 'warm'], 'Cold, Warm'],
    ['email', ' Ada@Weir.EXAMPLE ', 'ada@weir.example', 'ada@weir.example'],
    ['phone', '07700 900318', '+447700900318', '+44 7700 900318'],
    ['web', 'https://weir.example', 'https://weir.example', 'https://weir.example'],
  ])('%s: %j', (type, text, value, shown) => {
    const found = read(type, text);
    expect(found).toEqual({ value });
    expect(showFieldValue(field(type), found.value)).toBe(shown);
  });

  test.each<[FieldType, string]>([
    ['whole-number', '1.5'],
    ['whole-number', '99999999999999999999'],
    ['decimal', 'a few'],
    ['money', 'ask us'],
    ['date', '2026-02-30'],
    ['date', '14/03/2026'],
    ['date-time', '2026-03-14'],
    ['date-time', 'tomorrow'],
    ['yes-no', 'maybe'],
    ['one-of', 'tropical'],
    ['several-of', 'warm, tropical'],
    ['email', 'nobody'],
    ['phone', '12'],
  ])('%s refuses %j, quoting it, and guesses nothing', (type, text) => {
    const { value, problem } = read(type, text);
    expect(value).toBeNull();
    expect(problem!.text).toContain(text.split(', ').at(-1)!);
    expect(problem!.text).toMatch(/\.$/);
  });

  test('text that is too long is refused with its length, never cut', () => {
    for (const [type, most] of [
      ['text', TEXT_LIMITS.text],
      ['long-text', TEXT_LIMITS.longText],
    ] as const) {
      expect(read(type, 'x'.repeat(most)).value).toHaveLength(most);
      expect(read(type, 'x'.repeat(most + 1)).problem).toMatchObject({ code: 'value-too-long' });
    }
  });

  test('whatever comes in: a value that fits or a reason, and blank for nothing', () => {
    fc.assert(
      fc.property(fc.constantFrom(...FIELD_TYPES), fc.string({ unit: 'grapheme' }), (type, text) => {
        const { value, problem } = read(type, text);
        if (text === '') expect({ value, problem }).toEqual({ value: null, problem: undefined });
        else if (value === null) expect(problem === undefined || problem.text.length > 10).toBe(true);
        else expect(typeof showFieldValue(field(type), value)).toBe('string');
      }),
    );
  });

  test('a value shown to people is read as the same value again', () => {
    const again = (type: FieldType, text: string) =>
      read(type, showFieldValue(field(type), read(type, text).value)).value;
    for (const [type, text] of [
      ['one-of', 'warm'],
      ['several-of', 'warm,cold'],
      ['yes-no', 'on'],
      ['phone', '020 7946 0123'],
      ['money', 'GBP 12.50'],
      ['whole-number', '007'],
    ] as const)
      expect(again(type, text)).toEqual(read(type, text).value);
  });
});

test('blank is shown as nothing, and a key without its option as the key', () => {
  expect(showFieldValue(field('text'), null)).toBe('');
  expect(showFieldValue(field('one-of'), 'gone')).toBe('gone');
  expect(showFieldValue(undefined, ['a', 'b'])).toBe('a, b');
});
