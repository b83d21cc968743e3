import { expect, test } from '@jest/globals';
import { rowWord, rowWords, type RowNames } from './row-name';
import type { SourceLine } from './source-tree';

const names: RowNames = {
  campaigns: [{ key: 'spring', code: 'spring-2026', name: 'Spring newsletter' }],
  split: { label: 'Pipeline', names: { dealers: 'Dealers' } },
};

test.each([
  ['splitValue', 'dealers', 'Dealers'],
  ['splitValue', 'gone', 'gone'],
  ['splitValue', 'constructor', 'constructor'],
  ['splitValue', '', 'Without pipeline'],
  ['channel', 'e-mail', 'E-mail'],
  ['channel', '', 'Unknown'],
  ['source', '', 'without a name'],
  ['campaign', 'spring-2026', 'Spring newsletter'],
  ['campaign', 'other', 'other'],
  ['campaign', '', 'without a campaign'],
  ['page', 'https://weir.example/prices', 'weir.example/prices'],
  ['page', '', 'without a page'],
] as const)('a row by %s “%s” is called %s', (part, name, words) => expect(rowWord({ part, name }, names)).toBe(words));

test('a row is called by all that it is in', () => {
  const row = { splitValue: 'dealers', channel: 'paid', source: 'ads' };
  expect(rowWords({ row } as unknown as SourceLine, names)).toBe('Dealers, Paid, ads');
});
