import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { urlencodedPairs } from './urlencoded';

describe('urlencoded text', () => {
  test.each<[string, [string, string][]]>([
    ['', []],
    [
      'a=1&b=2',
      [
        ['a', '1'],
        ['b', '2'],
      ],
    ],
    [
      'a=1&a=2',
      [
        ['a', '1'],
        ['a', '2'],
      ],
    ],
    [
      'name=Ada+Weir&x=%2B',
      [
        ['name', 'Ada Weir'],
        ['x', '+'],
      ],
    ],
    ['a%5Bb%5D=c%3Dd%26e', [['a[b]', 'c=d&e']]],
    [
      '&&a&=b&c=',
      [
        ['a', ''],
        ['', 'b'],
        ['c', ''],
      ],
    ],
    ['a==b=', [['a', '=b=']]],
    ['m=%C3%A4%e6%97%a5', [['m', 'ä日']]],
    [
      'm=100%&n=%zz%4&o=%',
      [
        ['m', '100%'],
        ['n', '%zz%4'],
        ['o', '%'],
      ],
    ],
    [
      'm=%ff%fe&n=%C3+',
      [
        ['m', '\uFFFD\uFFFD'],
        ['n', '\uFFFD '],
      ],
    ],
    ['m=100%+größe', [['m', '100% größe']]],
    ['m=%EF%BB%BFx', [['m', '\uFEFFx']]],
  ])('%j is %j', (text, pairs) => expect(urlencodedPairs(text)).toEqual(pairs));

  test('is what was written down', () => {
    const text = fc.string({ unit: 'grapheme' });
    fc.assert(
      fc.property(fc.array(fc.tuple(text, text)), (pairs) =>
        expect(urlencodedPairs(new URLSearchParams(pairs).toString())).toEqual(pairs),
      ),
    );
  });

  // Other letters than ASCII beside a broken escape, and bytes that are no UTF-8, the platform reads as others: see above.
  test('of ASCII is read as the platform reads it, however broken', () => {
    const piece = fc.oneof(
      fc.string({ unit: 'grapheme-ascii' }),
      fc.constantFrom('&', '=', '+', '%', '%2', '%20', '%c3%a4', '%zz', '?', ' '),
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 30 }), (pieces) => {
        // A question mark at the beginning belongs to addresses, not to bodies.
        const text = `x${pieces.join('')}`;
        expect(urlencodedPairs(text)).toEqual([...new URLSearchParams(text)]);
      }),
    );
  });
});
