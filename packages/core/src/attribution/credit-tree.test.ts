import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { creditTree, CREDITED, type SourceLeaf, type SourceNode } from './credit-tree';

const leaf = (path: string[], won: number, deals: number[] = []): SourceLeaf => ({
  path,
  added: { submissions: 2 },
  counted: { deals },
  credited: { won },
});

test('adds up channel, source and campaign, what brought most first', () => {
  const whole = creditTree(
    [
      leaf(['e-mail', 'news', 'spring'], 10.4, [1, 1, 1, 1]),
      leaf(['e-mail', 'news', 'autumn'], 20.3, [1, 1, 1, 2]),
      leaf(['search', 'search.example', ''], 70.3, [3, 3, 3, 3]),
    ],
    { won: 101, value: 0 },
  );
  const told = ({ name, figures: { submissions, deals, won }, children }: SourceNode): unknown => [
    name,
    submissions,
    deals,
    won,
    ...children.map(told),
  ];
  expect(told(whole)).toEqual([
    '',
    6,
    5,
    101,
    ['search', 2, 3, 70, ['search.example', 2, 3, 70, ['', 2, 3, 70]]],
    ['e-mail', 4, 2, 31, ['news', 4, 2, 31, ['autumn', 2, 2, 20], ['spring', 2, 1, 11]]],
  ]);
});

test('whatever is credited, the parts of every node add up to it and the whole to the total', () => {
  const name = fc.constantFrom('a', 'b', 'c', 'd');
  const leaves = fc.array(
    fc.record({
      path: fc.tuple(name, name, name),
      added: fc.constant({}),
      counted: fc.constant({}),
      credited: fc.record({ won: fc.double({ min: 0, max: 1e9, noNaN: true }), value: fc.nat(1e6) }),
    }),
    { minLength: 1, maxLength: 40 },
  );
  const addsUp = ({ figures, children }: SourceNode): boolean =>
    !children.length ||
    (CREDITED.every((figure) => children.reduce((sum, child) => sum + child.figures[figure], 0) === figures[figure]) &&
      children.every(addsUp));
  fc.assert(
    fc.property(leaves, fc.nat(1e12), (all, won) => {
      const whole = creditTree(all, { won, value: 17 });
      expect(whole.figures).toMatchObject({ won, value: 17 });
      expect(addsUp(whole)).toBe(true);
    }),
  );
});
