import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { COMPARATORS } from './registry';
import { editDistance } from './damerau-levenshtein';
import { jaro } from './jaro-winkler';

describe.each(COMPARATORS.map((comparator) => [comparator.name, comparator] as const))('%s', (_, comparator) => {
  test.each(comparator.examples)('%s beside %s comes to %s', (one, other, alike) => {
    expect(comparator.alike(one, other)).toBeCloseTo(alike, 3);
    expect(comparator.alike(other, one)).toBeCloseTo(alike, 3);
  });

  test('lies between 0 and 1, and does not depend on the order', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 12 }), fc.string({ maxLength: 12 }), (one, other) => {
        const alike = comparator.alike(one, other);
        expect(alike).toBeGreaterThanOrEqual(0);
        expect(alike).toBeLessThanOrEqual(1);
        expect(comparator.alike(other, one)).toBeCloseTo(alike, 10);
      }),
    );
  });
});

// Winkler 1990, table 1: Jaro’s values before the beginning counts.
test.each([
  ['martha', 'marhta', 0.944],
  ['dwayne', 'duane', 0.822],
  ['dixon', 'dicksonx', 0.767],
  ['jellyfish', 'smellyfish', 0.896],
  ['jon', 'jan', 0.778],
])('Jaro’s likeness of %s and %s is %s', (one, other, alike) => expect(jaro(one, other)).toBeCloseTo(alike, 3));

test('the distance of typing errors is that of its definition, and stops counting where told to', () => {
  const slow = (a: string, b: string): number => {
    if (!a.length || !b.length) return a.length + b.length;
    const ways = [
      slow(a.slice(1), b) + 1,
      slow(a, b.slice(1)) + 1,
      slow(a.slice(1), b.slice(1)) + (a[0] === b[0] ? 0 : 1),
    ];
    if (a.length > 1 && b.length > 1 && a[0] === b[1] && a[1] === b[0]) ways.push(slow(a.slice(2), b.slice(2)) + 1);
    return Math.min(...ways);
  };
  const word = fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 5 }).map((letters) => letters.join(''));
  fc.assert(
    fc.property(word, word, fc.nat(4), (a, b, most) => {
      expect(editDistance(a, b)).toBe(slow(a, b));
      expect(editDistance(a, b, most)).toBe(Math.min(slow(a, b), most + 1));
    }),
  );
});
