import { describe, expect, test } from '@jest/globals';
import type { FieldValues, RecordKind } from '../../diff/record';
import { agreements, COMPARED_FIELDS } from './compared-fields';
import { comparedForm, type Around } from './compared';

type Side = FieldValues | { values: FieldValues; around: Around };

/** How two records agree in one field, as `level how`. */
function agreed(kind: RecordKind, field: string, one: Side, other: Side): string {
  const [a, b] = [one, other].map((side) => {
    const { values, around } =
      'around' in side
        ? (side as { values: FieldValues; around: Around })
        : { values: side as FieldValues, around: {} };
    return comparedForm(kind, values, around);
  });
  const index = COMPARED_FIELDS[kind].findIndex((compared) => compared.field === field);
  const { level, how } = agreements(a!, b!)[index]!;
  return `${level} ${how}`;
}
const both = (kind: RecordKind, field: string, one: Side, other: Side, expected: string) => {
  expect(agreed(kind, field, one, other)).toBe(expected);
  expect(agreed(kind, field, other, one)).toBe(expected);
};

describe('names of people', () => {
  test.each<[FieldValues, FieldValues, string, string]>([
    [{ full_name: 'Ada Weir' }, { full_name: 'ADA  WEIR' }, 'exact same', 'exact same'],
    [{ full_name: 'Weir, Ada' }, { full_name: 'Ada Weir' }, 'exact same', 'exact same'],
    [{ full_name: 'Robert Moss' }, { full_name: 'Bob Moss' }, 'near nickname', 'exact same'],
    [{ full_name: 'R. Moss' }, { full_name: 'Robert Moss' }, 'near initial', 'exact same'],
    [{ full_name: 'K. Moss' }, { full_name: 'Robert Moss' }, 'far different', 'exact same'],
    [{ full_name: 'Jean-Luc Petit' }, { full_name: 'Jean Petit' }, 'near part', 'exact same'],
    [{ full_name: 'Hanneke van der Meer' }, { full_name: 'Hanneke Meer' }, 'exact same', 'exact same'],
    [{ full_name: 'Hanneke Meer-Smit' }, { full_name: 'Hanneke Smit' }, 'exact same', 'near part'],
    [{ full_name: 'Ada Thackeray' }, { full_name: 'Ada Thackery' }, 'exact same', 'near typing'],
    [{ full_name: 'Ada Schmidt' }, { full_name: 'Ada Schmitt' }, 'exact same', 'near typing'],
    [
      { first_name: 'Weir', last_name: 'Ada' },
      { first_name: 'Ada', last_name: 'Weir' },
      'near swapped',
      'near swapped',
    ],
    [{ full_name: 'Müller, Jörg' }, { full_name: 'Joerg Mueller' }, 'exact same', 'exact same'],
    [{ full_name: 'Олена Шевченко' }, { full_name: 'Olena Shevchenko' }, 'exact same', 'exact same'],
    [
      { first_name: 'Hendrik', last_name: 'Vos' },
      { first_name: 'Hendrika', last_name: 'Vos' },
      'far different',
      'exact same',
    ],
    [{ full_name: 'Ada Weir' }, {}, 'missing not-told', 'missing not-told'],
    [{ last_name: 'Weir' }, { full_name: 'Ada Weir' }, 'missing not-told', 'exact same'],
  ])('%j beside %j: given name %s, family name %s', (one, other, given, family) => {
    both('contact', 'given', one, other, given);
    both('contact', 'family', one, other, family);
  });
});

describe('addresses', () => {
  test.each<[string, string, string]>([
    ['ada.weir@fenn.example', 'ada.weir@fenn.example', 'exact same'],
    ['ada.weir+fair@fenn.example', 'ada.weir@fenn.example', 'exact same'],
    ['a.daweir@gmail.com', 'adaweir@googlemail.com', 'exact same'],
    ['quillon@fenn.example', 'quilon@fenn.example', 'near typing'],
    ['quillon@fenn.example', 'quillon@fen.example', 'near typing'],
    ['quillon88@fenn.example', 'quillon88@other-firm.example', 'near other-domain'],
    ['quillon20@fenn.example', 'quillon27@fenn.example', 'far different'],
    ['j.quillon@fenn.example', 'k.quillon@fenn.example', 'far different'],
    ['info@fenn.example', 'info@fenn.example', 'missing shared-mailbox'],
    ['info@fenn.example', 'ada.weir@fenn.example', 'missing not-told'],
  ])('%s beside %s is %s', (one, other, expected) =>
    both('contact', 'email', { email: one }, { email: other }, expected),
  );

  test('an address made of the name tells nothing that the name has not told', () => {
    const ada = (domain: string) => ({ full_name: 'Ada Thackeray', email: `ada.thackeray@${domain}` });
    both('contact', 'email', ada('fenn.example'), ada('gmail.com'), 'missing not-told');
  });

  test('of several, one in common is enough', () => {
    const several = { emails: ['ada.w@home.example', 'quillon@fenn.example'] };
    both('contact', 'email', several, { email: 'quillon@fenn.example' }, 'exact same');
  });
});

test.each<[string[], string[], string]>([
  [['+447700900318'], ['+447700900318'], 'exact same'],
  [['+447700900318', '+442079460018'], ['+442079460018'], 'exact same'],
  [['+447700900318'], ['+357700900318'], 'near part'],
  [['+447700900318'], ['+447700900319'], 'far different'],
  [['+447700900318'], [], 'missing not-told'],
])('numbers %j beside %j are %s', (one, other, expected) =>
  both('contact', 'phone', { phones: one }, { phones: other }, expected),
);

describe('the company of a person', () => {
  const at = (...companies: { id: string; values: FieldValues }[]) => ({ values: {}, around: { companies } });
  const fenn = { id: 'fenn', values: { name: 'Fennwick Nursery Ltd', domain: 'fennwick.example' } };

  test.each<[Side, Side, string]>([
    [at(fenn), at(fenn), 'exact same'],
    [at(fenn), { email: 'ada@fennwick.example' }, 'exact same'],
    [at(fenn), at({ id: 'other', values: { name: 'FENNWICK NURSERY' } }), 'exact same'],
    [at(fenn), at({ id: 'other', values: { name: 'Moss & Sons' } }), 'far different'],
    [
      at({ id: 'x', values: { name: 'Pellrowan Estate' } }),
      { email: 'ada@pellrowan-estate.example' },
      'near fits-name',
    ],
    [at(fenn), { email: 'ada@gmail.com' }, 'missing not-told'],
    [{}, at(fenn), 'missing not-told'],
  ])('%j beside %j is %s', (one, other, expected) => both('contact', 'company', one, other, expected));

  test('of a lead is the one that it names', () =>
    both(
      'lead',
      'company',
      { company_name: 'Fennwick Nursery' },
      { company_name: 'Fennwick Nursery GmbH' },
      'exact same',
    ));
});

describe('companies', () => {
  test.each<[string, string, string]>([
    ['Fennwick Nursery Ltd', 'The Fennwick Nursery', 'exact same'],
    ['Fennwick Nursery', 'Fenwick Nursery', 'near typing'],
    ['Moorkamp Gärtnerei GmbH & Co. KG', 'Moorkamp Gaertnerei', 'exact same'],
    ['Fennwick Nursery', 'Larkhill Orchards', 'far different'],
  ])('%s beside %s is %s', (one, other, expected) => both('company', 'name', { name: one }, { name: other }, expected));

  test.each<[FieldValues, FieldValues, string]>([
    [{ domain: 'fennwick.example' }, { domain: 'fennwick.example' }, 'exact same'],
    [{ domain: 'fennwick.example' }, { domain: 'fennwick.test' }, 'near other-domain'],
    [{ domain: 'fennwick.example' }, { domain: 'fenwick.example' }, 'near typing'],
    [{ domain: 'fennwick.example' }, { domain: 'larkhill.example' }, 'far different'],
    [{ domain: 'fennwick.example' }, { name: 'Fennwick' }, 'near fits-name'],
    [{ domain: 'fennwick.example' }, { name: 'Larkhill' }, 'missing not-told'],
  ])('domains: %j beside %j is %s', (one, other, expected) => both('company', 'domain', one, other, expected));
});

describe('deals', () => {
  const deal = (values: FieldValues, around: Around = {}) => ({ values, around });
  const worth = (amount: number, currency = 'GBP') => deal({ value: { amount, currency } });
  const begun = (createdAt: string) => deal({}, { createdAt });

  test.each<[string, Side, Side, string]>([
    ['contact', deal({}, { contacts: ['a', 'b'] }), deal({}, { contacts: ['b'] }), 'exact same'],
    ['contact', deal({}, { contacts: ['a'] }), deal({}, { contacts: ['b'] }), 'far different'],
    ['contact', deal({}, { contacts: ['a'] }), deal({}), 'missing not-told'],
    ['value', worth(10_000), worth(10_000), 'exact same'],
    ['value', worth(10_000), worth(10_900), 'near alike'],
    ['value', worth(10_000), worth(40_000), 'far different'],
    ['value', worth(10_000), worth(10_000, 'EUR'), 'far different'],
    ['begun', begun('2026-03-01T09:00:00Z'), begun('2026-03-01T10:00:00Z'), 'exact same'],
    ['begun', begun('2026-03-01T09:00:00Z'), begun('2026-09-01T09:00:00Z'), 'far different'],
    ['pipeline', deal({ pipeline: 'new-builds' }), deal({ pipeline: 'new-builds' }), 'exact same'],
    ['pipeline', deal({ pipeline: 'new-builds' }), deal({ pipeline: 'care-plans' }), 'far different'],
    ['name', deal({ name: 'Glass for Ada Weir' }), deal({ name: 'glass for ada weir' }), 'exact same'],
  ])('in %s: %j beside %j is %s', (field, one, other, expected) => both('deal', field, one, other, expected));
});
