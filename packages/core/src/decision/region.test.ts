import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isInSpans, orderedSpans, regionSpan, regionText, type Span } from './region';

const isIn = (text: string | null, region: string) => {
  const { from, before } = regionSpan(region) as Span;
  return text !== null && from <= text && text < before;
};

describe('a region', () => {
  test.each<[string, string, string, boolean]>([
    ['NL', '1012 AB', 'NL', true],
    ['Netherlands', '1012 ab', 'NL 1000-1999', true],
    ['NL', '1999ZZ', 'NL 1000-1999', true],
    ['NL', '2000 AA', 'NL 1000-1999', false],
    ['NL', '', 'NL', true],
    ['NL', '', 'NL 1000-1999', false],
    ['GB', 'eh1 2ng', 'GB EH', true],
    ['GB', 'E1 6AN', 'GB EH', false],
    ['Germany', '45127', 'DE 40-49', true],
    ['DE', '50667', 'DE 40-49', false],
    ['BE', '1000', 'NL', false],
    ['Atlantis', '1000', 'NL', false],
  ])('%s %s in %s: %s', (country, postcode, region, expected) =>
    expect(isIn(regionText(country, postcode), region)).toBe(expected),
  );

  test('of a country with several words has postal codes after them', () => {
    expect(regionSpan('United Kingdom')).toEqual(regionSpan('GB'));
    expect(regionSpan('United States 90-96')).toEqual(regionSpan('US 90-96'));
  });
});

test('spans in order hold what one of them holds', () => {
  const text = fc.string({ unit: fc.constantFrom('a', 'b', 'c'), maxLength: 3 });
  const span = fc
    .tuple(text, text)
    .map(([one, other]) => (one < other ? { from: one, before: other } : { from: other, before: `${one}z` }));
  fc.assert(
    fc.property(fc.array(span, { maxLength: 8 }), text, (spans, one) => {
      const some = spans.some(({ from, before }) => from <= one && one < before);
      expect(isInSpans(one, orderedSpans(spans))).toBe(some);
    }),
  );
});
