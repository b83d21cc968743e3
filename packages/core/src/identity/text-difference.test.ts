import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { textDifference } from './text-difference';

const shown = (one: string, other: string) =>
  textDifference(one, other).map((pieces) =>
    pieces.map(({ text, differs }) => (differs ? `[${text}]` : text)).join(''),
  );

test.each([
  ['Joost de Ruiter', 'Joost de Ruyter', 'Joost de Ru[i]ter', 'Joost de Ru[y]ter'],
  ['Thackery', 'Thackeray', 'Thacker[]y', 'Thacker[a]y'],
  ['ADA', 'Ada', 'ADA', 'Ada'],
  ['Ada', 'Wilhelmina', 'Ada', 'Wilhelmina'],
  ['', 'Ada', '', 'Ada'],
])('%s beside %s', (one, other, a, b) =>
  expect(shown(one, other).map((text) => text)).toEqual([a.replace('[]', ''), b]),
);

test('nothing of either text is lost', () => {
  fc.assert(
    fc.property(fc.string(), fc.string(), (one, other) => {
      const [a, b] = textDifference(one, other).map((pieces) => pieces.map(({ text }) => text).join(''));
      expect([a, b]).toEqual([one, other]);
    }),
  );
});
