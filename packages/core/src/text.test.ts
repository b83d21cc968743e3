import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isJsonObject, jsonPointer, sameJson } from './json';
import { counted, listInWords, nearlySame, shorten, storableText } from './text';

describe('text for sentences', () => {
  test('lists things as people do', () => {
    expect([[], ['a'], ['a', 'b'], ['a', 'b', 'c']].map((items) => listInWords(items))).toEqual([
      '',
      'a',
      'a and b',
      'a, b and c',
    ]);
    expect(listInWords(['a', 'b'], 'or')).toBe('a or b');
  });

  test.each([
    ['Site survey', 'site-surveys', true],
    ['Contact form', 'Contact form 2', true],
    ['Contact form', 'Contact form, copy', true],
    ['Site survey', 'Site visit', false],
    ['1', '2', false],
  ])('%s and %s may be taken for each other: %s', (one, other, alike) => expect(nearlySame(one, other)).toBe(alike));

  test('counts things', () => {
    expect([counted(0, 'deal'), counted(1, 'deal'), counted(2, 'deal'), counted(2, 'company', 'companies')]).toEqual([
      '0 deals',
      '1 deal',
      '2 deals',
      '2 companies',
    ]);
  });

  test('is shortened on a whole character', () => {
    expect(shorten('👩‍🌾👩‍🌾', 3)).toBe('👩‍…');
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.integer({ min: 1, max: 20 }), (text, most) =>
        expect([...shorten(text, most)].length).toBeLessThanOrEqual(
          Math.max(most, [...text].length <= most ? [...text].length : most),
        ),
      ),
    );
  });
});

describe('text that can be stored', () => {
  test('is well-formed and without NUL, whatever it was', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 0xffff })), (units) => {
        const text = storableText(String.fromCharCode(...units));
        expect(text.includes('\0')).toBe(false);
        expect(() => encodeURIComponent(text)).not.toThrow();
      }),
    );
  });

  test('is what it was when it was sound', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) =>
        expect(storableText(text)).toBe(text.replaceAll('\0', '')),
      ),
    );
  });
});

describe('JSON', () => {
  test('says the same whatever the order of keys', () => {
    expect(sameJson({ a: 1, b: [{ c: null }] }, { b: [{ c: null }], a: 1 })).toBe(true);
    expect(sameJson({ a: 1 }, { a: 1, b: undefined as never })).toBe(false);
    expect(sameJson([1, 2], [2, 1])).toBe(false);
    expect(sameJson({ a: undefined as never }, { b: undefined as never })).toBe(false);
  });

  test('is the same as itself and as its copy', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) =>
        expect(sameJson(value as never, JSON.parse(JSON.stringify(value)) as never)).toBe(true),
      ),
    );
  });

  test('has pointers that escape', () => expect(jsonPointer(['a/b', '~', 0])).toBe('/a~1b/~0/0'));

  test('has objects that are neither lists nor null', () =>
    expect([{}, [], null, 'a', 1].map(isJsonObject)).toEqual([true, false, false, false, false]));
});
