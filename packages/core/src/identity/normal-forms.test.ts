import { describe, expect, test } from '@jest/globals';
import type { FieldValues } from '../diff/record';
import { companyNameForm } from './company-name-form';
import { normalExternalId } from '../reading/external-id';
import { foldWords } from '../reading/fold-text';
import { emailKeys, isExclusive } from './keys';
import { isRoleMailbox, mailboxOf } from '../reading/mailbox';
import { isNicknameOf } from './nicknames';
import { personNameForm } from './person-name-form';

test.each([
  ['Łukasz  O’Brien-MÜLLER', ['lukasz', 'obrien', 'muller']],
  ['Mueller', ['muller']],
  ['Ørsted Ångström', ['orsted', 'angstrom']],
  ['Юрий Гагарин', ['yuriy', 'gagarin']],
  ['Ελένη', ['eleni']],
  ['ﬁnch', ['finch']],
  ['  --  ', []],
])('the words of %s are %j', (text, words) => expect(foldWords(text)).toEqual(words));

test.each([
  [{ first_name: 'Ada', last_name: 'van der Meer-Smith' }, ['ada'], ['meer', 'smith']],
  [{ full_name: 'Dr. Ada van der Meer, PhD' }, ['ada'], ['meer']],
  [{ full_name: 'WEIR Ada' }, ['ada'], ['weir']],
  [{ full_name: 'Weir, Ada' }, ['ada'], ['weir']],
  [{ name: '王小明' }, ['xiaoming'], ['wang']],
  [{ first_name: 'J.', last_name: 'Weir' }, ['j'], ['weir']],
  [{ last_name: 'Weir' }, [], ['weir']],
  [{ full_name: 'Ada' }, ['ada'], []],
])('the name in %j is %j %j', (values, given, family) => {
  expect(personNameForm(values)).toMatchObject({ given, family });
});

test.each<FieldValues>([{}, { full_name: '' }, { full_name: ' . ' }])('%j tells no name', (values) => {
  expect(personNameForm(values)).toBeNull();
});

test('a name written without vowels is marked as such', () => {
  expect(personNameForm({ full_name: 'محمد علي' })!.vowelless).toBe(true);
});

test.each([
  ['The Fennwick Nursery & Sons, Ltd.', 'fennwick nursery sons'],
  ['Fennwick Gärtnerei GmbH & Co. KG', 'fennwick gartnerei'],
  ['Kwekerij De Wit B.V.', 'kwekerij de wit'],
  ['Ogrody Zając Sp. z o.o.', 'ogrody zajac'],
  ['Jardins Lefèvre S.à r.l.', 'jardins lefevre'],
  ['FENNWICK NURSERY LLC', 'fennwick nursery'],
  ['Ltd', 'ltd'],
  ['Vogt Glasbau e.K.', 'vogt glasbau'],
  ['Nordlys A/S', 'nordlys'],
  ['Viveros del Norte S.A. de C.V.', 'viveros del norte'],
  ['Zahrada Novák s.r.o.', 'zahrada novak'],
  ['Jardins Verts S.A.S.', 'jardins verts'],
  ['ООО Ромашка', 'romashka'],
  ['株式会社みどり', 'midori'],
  ['AS Roma', 'as roma'],
  ['SA Water Ltd', 'sa water'],
  ['株式会社', 'zhushihuishe'],
])('%s is told from others by “%s”', (name, text) => expect(companyNameForm(name)!.text).toBe(text));

test('a company’s name without a letter tells nothing', () => expect(companyNameForm(' -- ')).toBeNull());

describe('mailboxes', () => {
  test.each([
    ['ada.weir+shows@gmail.com', 'adaweir@gmail.com'],
    ['ada.weir@googlemail.com', 'adaweir@gmail.com'],
    ['ada.weir+shows@fennwick.example', 'ada.weir@fennwick.example'],
    ['+tag@fennwick.example', '+tag@fennwick.example'],
  ])('%s is the mailbox %s', (email, mailbox) => expect(mailboxOf(email)).toBe(mailbox));

  test('a workspace may hold tags and points to tell', () => {
    expect(mailboxOf('ada.weir+shows@gmail.com', { tags: false, points: false })).toBe('ada.weir+shows@gmail.com');
    expect(mailboxOf('ada.weir+shows@gmail.com', { tags: true, points: false })).toBe('ada.weir@gmail.com');
  });

  test.each([
    ['info@fennwick.example', true],
    ['sales.support@fennwick.example', true],
    ['office2@fennwick.example', false],
    ['verkoop@fennwick.example', true],
    ['whitlockfamily@example.net', true],
    ['ada.weir@fennwick.example', false],
    ['informatics@fennwick.example', false],
  ])('%s is read by several: %s', (email, shared) => expect(isRoleMailbox(email)).toBe(shared));

  test('a mailbox that several read is no key of one person', () => {
    expect(emailKeys('contact', 'info@fennwick.example').some(isExclusive)).toBe(false);
    expect(emailKeys('contact', 'ada+shows@fennwick.example').map(({ kind, value }) => `${kind} ${value}`)).toEqual([
      'email ada+shows@fennwick.example',
      'mailbox ada@fennwick.example',
    ]);
  });
});

test.each([
  ['bill', 'william', true],
  ['william', 'bill', true],
  ['gosia', 'malgorzata', true],
  ['ada', 'william', false],
])('%s and %s are names of one person: %s', (one, other, same) => expect(isNicknameOf(one, other)).toBe(same));

test('ids elsewhere carry the system that gave them', () => {
  expect(normalExternalId(' Shop: 10442A ')).toEqual({ ok: true, id: 'shop:10442A' });
  expect(normalExternalId('')).toEqual({ ok: false });
  for (const text of ['10442', ':1', 'shop:', 'a b:1', `shop:${'9'.repeat(300)}`])
    expect(normalExternalId(text)).toMatchObject({ ok: false, problem: { code: 'not-an-external-id' } });
});
