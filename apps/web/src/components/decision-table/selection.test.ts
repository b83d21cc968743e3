import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blockFrom, blockText, clamped, isInside, moved, spanOf, type Selection } from './selection';

const SIZE = { rows: 5, columns: 3 };
const at = (row: number, column: number): Selection => ({ at: { row, column }, anchor: { row, column } });
const press = (from: Selection, key: string, { shiftKey = false, ctrl = false } = {}) =>
  moved(from, { key, shiftKey, ctrl }, SIZE);

describe('what is selected', () => {
  test.each<[string, Selection, Selection | null]>([
    ['ArrowDown', at(0, 0), at(1, 0)],
    ['ArrowUp', at(0, 0), at(0, 0)],
    ['ArrowRight', at(4, 2), at(4, 2)],
    ['Tab', at(0, 2), at(1, 0)],
    ['Tab', at(4, 2), null],
    ['Enter', at(1, 1), at(2, 1)],
    ['Home', at(2, 2), at(2, 0)],
    ['End', at(2, 0), at(2, 2)],
    ['PageDown', at(0, 1), at(4, 1)],
    ['a', at(0, 0), null],
  ])('%s leads on', (key, from, to) => expect(press(from, key)).toEqual(to));

  test('grows with Shift from where it began, and goes to the edges with Control', () => {
    const wide = press(press(at(1, 1), 'ArrowDown', { shiftKey: true })!, 'ArrowLeft', { shiftKey: true })!;
    expect(spanOf(wide)).toEqual({ from: { row: 1, column: 0 }, to: { row: 2, column: 1 } });
    expect(isInside({ row: 2, column: 0 }, spanOf(wide))).toBe(true);
    expect(isInside({ row: 3, column: 0 }, spanOf(wide))).toBe(false);
    expect(press(at(1, 1), 'ArrowDown', { ctrl: true })).toEqual(at(4, 1));
    expect(press(at(1, 1), 'End', { ctrl: true })).toEqual(at(4, 2));
  });

  test('stays inside when rows are gone', () => {
    expect(clamped({ at: { row: 9, column: 1 }, anchor: { row: 3, column: 5 } }, SIZE)).toEqual({
      at: { row: 4, column: 1 },
      anchor: { row: 3, column: 2 },
    });
  });

  test('never leaves the grid, whatever keys are pressed', () => {
    const keys = fc.array(
      fc.record({
        key: fc.constantFrom(
          'ArrowUp',
          'ArrowDown',
          'ArrowLeft',
          'ArrowRight',
          'Tab',
          'Enter',
          'Home',
          'End',
          'PageUp',
        ),
        shiftKey: fc.boolean(),
        ctrl: fc.boolean(),
      }),
    );
    fc.assert(
      fc.property(keys, (pressed) => {
        const end = pressed.reduce((now, key) => moved(now, key, SIZE) ?? now, at(2, 1));
        expect(isInside(end.at, { from: { row: 0, column: 0 }, to: { row: 4, column: 2 } })).toBe(true);
      }),
    );
  });
});

describe('a block of a spreadsheet', () => {
  test.each([
    [
      'GB\tat least 8\r\nNL\t\r\n',
      [
        ['GB', 'at least 8'],
        ['NL', ''],
      ],
    ],
    ['one', [['one']]],
    ['"two\nlines"\t"a ""b"""', [['two\nlines', 'a "b"']]],
    ['"open', [['open']]],
    ['', [['']]],
  ])('%j is read', (text, rows) => expect(blockFrom(text)).toEqual(rows));

  test('comes back as it was copied', () => {
    const cell = fc.string().filter((text) => !text.includes('\r'));
    const block = fc
      .integer({ min: 1, max: 4 })
      .chain((width) =>
        fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 1, maxLength: 4 }),
      );
    fc.assert(
      fc.property(block, (rows) => {
        fc.pre(!(rows.length > 1 && rows.at(-1)!.length === 1 && rows.at(-1)![0] === ''));
        expect(blockFrom(blockText(rows))).toEqual(rows);
      }),
    );
  });
});
