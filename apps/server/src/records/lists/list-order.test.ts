import { describe, expect, test } from '@jest/globals';
import { BUILT_IN_FIELDS, RECORD_KINDS, type FieldDefinition } from '@haycart/core';
import fc from 'fast-check';
import { Values } from '../../platform/database/values';
import { readListCursor, writeListCursor } from '../../platform/list-cursor';
import { blankRows, cursorText, filledRows, listOrder } from './list-order';

const ID = '0195e7a0-0000-7000-8000-000000000001';
const own = (type: FieldDefinition['type']): FieldDefinition => ({
  record: 'deal',
  key: 'bays',
  label: 'Bays',
  type,
  builtIn: false,
  required: false,
});
const order = (type: FieldDefinition['type'], down = false) => listOrder('deal', { field: 'bays', down }, [own(type)]);

describe('a place in a list', () => {
  test('is read as it was written, whatever the value', () => {
    fc.assert(
      fc.property(fc.option(fc.string({ unit: 'binary' })), fc.uuid(), (value, id) => {
        const text = writeListCursor({ value, id });
        expect(text).toMatch(/^[\w-]+$/);
        expect(readListCursor(text)).toEqual({ value, id });
      }),
    );
  });

  test.each([
    'x',
    'bnVsbA',
    Buffer.from('["a","not an id"]').toString('base64url'),
    Buffer.from('[1,2]').toString('base64url'),
  ])('that no list gave is refused: %s', (text) =>
    expect(() => readListCursor(text)).toThrow('after takes what an earlier page gave as next.'),
  );

  test('is nowhere when none is given', () =>
    expect([readListCursor(undefined), readListCursor('')]).toEqual([null, null]));
});

describe('the order of a list', () => {
  test('begins with what was changed last', () =>
    expect(listOrder('contact', undefined, [])).toEqual({
      by: 'r.updated_at',
      type: 'timestamptz',
      down: true,
      blanks: false,
    }));

  test.each(RECORD_KINDS)('can be by any built-in field of a %s with an order', (kind) => {
    for (const field of BUILT_IN_FIELDS.filter(({ record, type }) => record === kind && type !== 'several-of'))
      expect(listOrder(kind, { field: field.key, down: false }, [field]).by).toContain(`r.${field.key}`);
  });

  test.each<[FieldDefinition['type'], string]>([
    ['whole-number', 'numeric'],
    ['decimal', 'numeric'],
    ['money', 'numeric'],
    ['text', 'text'],
    ['date', 'text'],
    ['one-of', 'text'],
  ])('by a field of one’s own of the type %s compares as %s', (type, compared) =>
    expect(order(type).type).toBe(compared),
  );

  test('names its place exactly, times to the microsecond', () => {
    expect(cursorText(listOrder('deal', undefined, []))).toContain('US');
    expect(cursorText(order('text'))).toBe(`(${order('text').by})::text`);
  });
});

describe('the rows of a page', () => {
  const rows = (down: boolean, after: Parameters<typeof filledRows>[1]) => {
    const values = new Values(['workspace']);
    return { sql: filledRows(order('text', down), after, values), values: values.all };
  };

  test('go on after the row before, in the way of the order', () => {
    expect(rows(false, { value: 'b', id: ID })).toEqual({
      sql: `(${order('text').by}, r.id) > ($2::text, $3::uuid)`,
      values: ['workspace', 'b', ID],
    });
    expect(rows(true, { value: 'b', id: ID }).sql).toContain(' < ');
  });

  test('that are filled come first, and none of them after a blank one', () => {
    expect(rows(false, null).sql).toBe(`${order('text').by} is not null`);
    expect(rows(false, { value: null, id: ID }).sql).toBe('false');
  });

  test('that are blank come last, in the order of their ids', () => {
    const values = new Values([]);
    expect(blankRows(order('text'), null, values)).toBe(`${order('text').by} is null`);
    expect(blankRows(order('text'), { value: null, id: ID }, values)).toBe(
      `${order('text').by} is null and r.id > $1::uuid`,
    );
  });
});
