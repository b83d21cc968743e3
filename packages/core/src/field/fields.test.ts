import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkField } from './check-field';
import type { FieldDefinition } from './field-definition';
import { optionFor } from './field-value';
import { fieldsFromText, headerRow, suggestedType } from './fields-from-text';

const field = (more: Partial<FieldDefinition>): FieldDefinition => ({
  record: 'deal',
  key: 'heating',
  label: 'Heating',
  type: 'text',
  builtIn: false,
  required: false,
  ...more,
});
const list = (...options: NonNullable<FieldDefinition['options']>) => field({ type: 'one-of', options });

describe('a field is checked', () => {
  const others = [field({ key: 'bays', label: 'Bays' }), field({ record: 'contact', key: 'floor', label: 'Floor' })];

  test.each<[string, FieldDefinition, string[]]>([
    ['nothing wrong', list({ key: 'warm', label: 'Warm', aliases: ['hot'] }), []],
    ['no label', field({ label: ' ' }), ['label-blank /label']],
    ['a label that is taken, in another case', field({ label: 'BAYS ' }), ['label-taken /label']],
    ['a label that another kind of record has', field({ label: 'Floor' }), []],
    ['a list without options', field({ type: 'several-of' }), ['no-option /options']],
    ['a list of nothing but retired options', list({ key: 'a', label: 'A', retired: true }), ['no-option /options']],
    ['options that do not belong', field({ options: [{ key: 'a', label: 'A' }] }), ['options-do-not-fit /options']],
    [
      'two options of one name',
      list({ key: 'a', label: 'Warm' }, { key: 'b', label: 'Cold', aliases: ['icy', 'warm'] }),
      ['option-ambiguous /options/1/aliases/1'],
    ],
    ['an option without a name', list({ key: 'a', label: '' }), ['option-blank /options/0/label']],
  ])('%s', (_, checked, problems) =>
    expect(checkField(checked, others).map(({ code, at }) => `${code} ${at}`)).toEqual(problems),
  );

  test('against the limit of 500', () => {
    const many = Array.from({ length: 500 }, (_, n) => field({ key: `f${n}`, label: `F ${n}` }));
    expect(checkField(field({}), many).map(({ code }) => code)).toEqual(['too-many-fields']);
  });
});

test('a retired option is not found by what comes in', () => {
  const options = [
    { key: 'warm', label: 'Warm', retired: true },
    { key: 'cold', label: 'Cold', aliases: ['Icy'] },
  ];
  expect(optionFor(options, 'warm')).toBeUndefined();
  expect(optionFor(options, ' ICY ')?.key).toBe('cold');
});

describe('fields are read from a pasted list', () => {
  test.each<[string, string, string[]]>([
    ['one a line', 'Bays\n\n Wanted by \r\nBudget', ['Bays text', 'Wanted by date', 'Budget money']],
    [
      'a header row with commas and quotes',
      'Name,"Size, m²",E-mail',
      ['Name text', 'Size, m² decimal', 'E-mail email'],
    ],
    ['a header row with tabs', 'Bays\tbays\tPhone', ['Bays text', 'Phone phone']],
    ['a header row with semicolons', 'Is a school?;Message', ['Is a school? yes-no', 'Message long-text']],
    ['a quote that is not closed yet', 'Bays,"Ridge hei', ['Bays text', 'Ridge hei text']],
    ['nothing', ' \n ', []],
  ])('%s', (_, text, fields) =>
    expect(fieldsFromText(text).map(({ label, type }) => `${label} ${type}`)).toEqual(fields),
  );

  test.each([
    ['a byte order mark and rows beneath', '\uFEFFBays,Budget\r\n6,£ 4000', 'Bays,Budget'],
    ['a line end inside quotes', '"Wanted\nby",Bays\n1,2', '"Wanted by",Bays'],
    ['a quote that is never closed', '"Bays,Budget\n6,7', '"Bays,Budget'],
    ['old line ends', 'Bays\r6', 'Bays'],
  ])('the header row of a file with %s', (_, csv, row) => expect(headerRow(csv)).toBe(row));

  test('whatever is pasted: no label twice, none blank', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        const labels = fieldsFromText(text).map(({ label }) => label.toLowerCase());
        expect(new Set(labels).size).toBe(labels.length);
        expect(labels.every((label) => label.trim() !== '')).toBe(true);
      }),
    );
  });

  test.each([
    ['Work e-mail', 'email'],
    ['Mobile', 'phone'],
    ['Web site', 'web'],
    ['Number of bays', 'whole-number'],
    ['Glass area today (m²)', 'decimal'],
    ['May write', 'yes-no'],
    ['Growing for', 'text'],
  ])('%s suggests %s', (label, type) => expect(suggestedType(label)).toBe(type));
});
