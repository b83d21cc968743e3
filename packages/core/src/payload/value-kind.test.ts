import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FIELD_TYPES } from '../field/field-definition';
import type { JsonValue } from '../json';
import { fieldKind, fieldTypeOf, kindFamily, VALUE_KINDS, valueKind, type ValueKind } from './value-kind';

describe('what a value looks like', () => {
  test.each<[JsonValue, ValueKind | null]>([
    ['ada@weir.example', 'email'],
    ['https://weir.example/about', 'web'],
    ['www.weir.example', 'web'],
    ['2027-04-05T10:00:00Z', 'date-time'],
    ['2027-04-05', 'date'],
    ['05/04/2027', 'date'],
    ['20270405', 'date'],
    ['£ 4,200', 'money'],
    ['4.200,50 €', 'money'],
    ['EUR 12', 'money'],
    ['42', 'whole-number'],
    ['1805014800000', 'date-time'],
    ['1805014800', 'whole-number'],
    ['-3', 'whole-number'],
    ['3.5', 'decimal'],
    ['1,234.5', 'decimal'],
    ['07700 900318', 'phone'],
    ['+44 (0)20 7946 0018', 'phone'],
    ['06 12 34 56 78', 'phone'],
    ['08 12 34 56', 'phone'],
    ['04 12 05', 'date'],
    ['14 03 2027 9:30', 'date'],
    ['yes', 'yes-no'],
    ['Ja', 'yes-no'],
    ['Nederland', 'country'],
    ['3f0c2b58-9d3a-4a52-8b1e-0f6c8a4d2e11', 'id'],
    ['ord-2027-00a7bc91', 'id'],
    ['Ada Weir', 'text'],
    ['Bay 7', 'text'],
    ['first\nsecond', 'long-text'],
    ['word '.repeat(40), 'long-text'],
    [`https://weir.example/${'a'.repeat(200)}`, 'web'],
    [7, 'whole-number'],
    [1_805_014_800, 'date-time'],
    [1_805_014_800_000, 'date-time'],
    [9_805_014_800, 'whole-number'],
    [7.5, 'decimal'],
    [false, 'yes-no'],
    [['a', 'b'], 'list'],
    [{ a: 1 }, 'list'],
    ['', null],
    ['   ', null],
    [null, null],
  ])('%j: %s', (value, kind) => expect(valueKind(value)).toBe(kind));

  test('a one or a nought is a number: nothing tells that it means yes or no', () => {
    expect([valueKind('1'), valueKind('0')]).toEqual(['whole-number', 'whole-number']);
  });

  test('any value looks like something or is blank', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        const kind = valueKind(value as JsonValue);
        expect(kind === null || VALUE_KINDS.includes(kind)).toBe(true);
      }),
    );
  });
});

describe('what a field holds', () => {
  test.each<[Partial<Record<ValueKind, number>>, ValueKind]>([
    [{}, 'text'],
    [{ email: 10 }, 'email'],
    [{ email: 95, text: 5 }, 'email'],
    [{ email: 80, text: 20 }, 'text'],
    [{ 'whole-number': 60, decimal: 40 }, 'decimal'],
    [{ 'whole-number': 30, money: 70 }, 'money'],
    [{ 'whole-number': 95, money: 5 }, 'whole-number'],
    [{ date: 50, 'date-time': 50 }, 'date-time'],
    [{ 'whole-number': 40, phone: 60 }, 'phone'],
    [{ text: 99, 'long-text': 1 }, 'long-text'],
    [{ 'yes-no': 3, text: 97 }, 'text'],
  ])('%j: %s', (counts, kind) => expect(fieldKind(counts)).toBe(kind));

  test('fits a type of record field, whatever it is', () => {
    for (const kind of VALUE_KINDS) expect(FIELD_TYPES).toContain(fieldTypeOf(kind));
    expect([fieldTypeOf('list'), fieldTypeOf('country'), fieldTypeOf('money')]).toEqual([
      'several-of',
      'text',
      'money',
    ]);
  });

  test('is of one family where values go to and fro between kinds', () => {
    expect(new Set((['money', 'whole-number', 'decimal'] as const).map(kindFamily))).toEqual(new Set(['number']));
    expect(kindFamily('date')).toBe(kindFamily('date-time'));
    expect(kindFamily('id')).toBe(kindFamily('text'));
    expect(kindFamily('email')).toBe('email');
  });
});
