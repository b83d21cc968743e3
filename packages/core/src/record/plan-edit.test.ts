import { describe, expect, test } from '@jest/globals';
import type { Destination } from '../destination/destination';
import type { FieldValues } from '../diff/record';
import { destination } from '../testing/example';
import { missingFields, planEdit, type RecordEdit } from './plan-edit';

const TAGS = [
  { key: 'press', label: 'Press' },
  { key: 'vip', label: 'V.I.P.' },
];
const where: Destination = {
  ...destination,
  fields: destination.fields.map((field) => (field.key === 'tags' ? { ...field, options: TAGS } : field)),
};
const ada: FieldValues = {
  first_name: 'Ada',
  last_name: 'Weir',
  full_name: 'Ada Weir',
  email: 'ada@weir.example',
  emails: ['ada@weir.example', 'a@home.example'],
  tags: ['press'],
};
const edit = (change: RecordEdit, values = ada) => planEdit({ kind: 'contact', values }, change, where);

describe('an edit of a record', () => {
  test('brings values into the form of their fields, and tells before and after', () => {
    expect(edit({ values: { phone: '020 7946 0018', growing_for: 'School garden' } }).fields).toMatchObject({
      phone: { before: null, after: '+442079460018' },
      growing_for: { before: null, after: 'school' },
    });
  });

  test('lets what follows follow: the full name, all e-mails', () => {
    const { fields } = edit({ values: { last_name: 'Lock', email: 'ada@lock.example' } });
    expect(fields.full_name).toEqual({ before: 'Ada Weir', after: 'Ada Lock' });
    expect(fields.emails!.after).toEqual(['ada@lock.example', 'ada@weir.example', 'a@home.example']);
  });

  test('makes the first of all e-mails the one', () => {
    const { fields } = edit({ values: { emails: ['A@Home.example', 'ada@weir.example'] } });
    expect(fields.email).toEqual({ before: 'ada@weir.example', after: 'a@home.example' });
    expect(edit({ values: { emails: ['nobody'] } }).problems).toMatchObject([{ at: '/values/emails' }]);
  });

  test('puts tags on and takes them off, by key or name', () => {
    expect(edit({ add: { tags: ['V.I.P.', 'press'] } }).fields.tags!.after).toEqual(['press', 'vip']);
    expect(edit({ remove: { tags: ['press'] } }).fields.tags).toEqual({ before: ['press'], after: null });
    expect(edit({ add: { tags: ['unheard'] } }).problems).toMatchObject([{ at: '/add/tags' }]);
  });

  test('changes nothing when anything is wrong, and says where', () => {
    const { fields, problems } = edit({
      values: { first_name: 'Eda', email: null, colour: 'red', pipeline: 'x', country: 7, 'a/b': 'x' },
    });
    expect(fields).toEqual({});
    expect(problems.map(({ at, code }) => [at, code])).toEqual([
      ['/values/email', 'required-blank'],
      ['/values/colour', 'unknown-field'],
      ['/values/pipeline', 'unknown-field'],
      ['/values/country', 'value-does-not-fit'],
      ['/values/a~1b', 'unknown-field'],
    ]);
  });

  test('does not overwrite what somebody changed meanwhile', () => {
    const change = { values: { first_name: 'Eda' }, was: { first_name: 'Ida' } };
    expect(edit(change).conflicts).toEqual([{ field: 'first_name', now: 'Ada' }]);
    expect(edit({ ...change, was: { first_name: 'Ada', country: null } }).conflicts).toEqual([]);
  });
});

test.each([
  ['bays', 6, 6],
  ['bays', '6', 6],
  ['value', { amount: 5, currency: 'EUR' }, { amount: 5, currency: 'EUR' }],
  ['value', 'EUR 5', { amount: 500, currency: 'EUR' }],
])('a deal’s %s takes %j', (field, given, after) => {
  expect(planEdit({ kind: 'deal', values: {} }, { values: { [field]: given } }, where).fields[field]!.after).toEqual(
    after,
  );
});

test.each([
  ['bays', 6.5],
  ['bays', true],
  ['bays', ['6']],
  ['value', { amount: 0.5, currency: 'EUR' }],
  ['value', { amount: 5, currency: 'euro' }],
  ['value', { amount: 5, currency: 'EUR', more: 1 }],
  ['name', 7],
])('a deal’s %s refuses %j, at its place', (field, given) => {
  const { problems } = planEdit({ kind: 'deal', values: {} }, { values: { [field]: given } }, where);
  expect(problems).toMatchObject([{ at: `/values/${field}`, code: 'value-does-not-fit' }]);
});

test('what a new record needs is named', () => {
  expect(missingFields('contact', {}, where).map(({ at }) => at)).toEqual(['/values/email']);
  expect(missingFields('contact', ada, where)).toEqual([]);
});
