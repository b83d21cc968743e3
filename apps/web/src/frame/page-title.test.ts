import { expect, test } from '@jest/globals';
import { titleOf } from './page-title';

test.each([
  ['Submissions', 'Submissions, Hay Cart'],
  ['  Price\n list  ', 'Price list, Hay Cart'],
  ['', 'Hay Cart'],
  ['a'.repeat(200), `${'a'.repeat(79)}…, Hay Cart`],
])('%j is the window’s title %j', (heading, title) => expect(titleOf(heading)).toBe(title));
