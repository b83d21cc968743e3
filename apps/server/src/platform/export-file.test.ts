import { expect, test } from '@jest/globals';
import { csvCell } from './export-file';

test.each(['=1+1', ' =1+1', '\u00a0=1+1', '\t@a', '\n-a', '\ufeff+a'])('the cell %j is no formula', (cell) =>
  expect(csvCell(cell)).toBe(`'${cell}`),
);
