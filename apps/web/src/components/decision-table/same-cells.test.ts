import { expect, test } from '@jest/globals';
import { cellsNeverMet, unreadableCells } from './same-cells';

test('cells that cannot be read for one reason are told once', () =>
  expect(
    unreadableCells({
      rows: [
        { row: 0, unreadable: [{ column: 1, text: 'Type a number.' }] },
        { row: 3, takenBefore: [1] },
        {
          row: 4,
          unreadable: [
            { column: 1, text: 'Type a number.' },
            { column: 2, text: 'Type a number.' },
          ],
        },
      ],
    }),
  ).toEqual([
    { column: 1, text: 'Type a number.', rows: [0, 4] },
    { column: 2, text: 'Type a number.', rows: [4] },
  ]));

test('cells that nothing met are told by what stands in them', () => {
  const came = ['NL', 'BE'];
  const texts = ['UK', 'UK', 'FR'];
  const met = [0, 1, 2].map((row) => ({ row, column: 0, came }));
  expect(cellsNeverMet(met, (row) => texts[row]!)).toEqual([
    { column: 0, text: 'UK', rows: [0, 1], came },
    { column: 0, text: 'FR', rows: [2], came },
  ]);
});
