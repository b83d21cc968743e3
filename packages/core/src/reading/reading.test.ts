import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { countryNamed } from './country-name';
import { dateOrderOf, readDate } from './date-text';
import { splitPersonName } from './person-name';
import { yesOrNo } from './yes-no-words';

describe('a person’s name', () => {
  test.each([
    ['Ada Weir', '', 'Ada', 'Weir', ''],
    ['Ada', '', 'Ada', '', ''],
    ['Weir, Ada', '', 'Ada', 'Weir', ''],
    ['Weir, Dr Ada Mary', 'Dr', 'Ada Mary', 'Weir', ''],
    ['Prof. Dr. Ada Weir', 'Prof. Dr.', 'Ada', 'Weir', ''],
    ['Ada Weir, PhD', '', 'Ada', 'Weir', 'PhD'],
    ['Tom Weir Jr.', '', 'Tom', 'Weir', 'Jr.'],
    ['Tom Weir III, OBE', '', 'Tom', 'Weir', 'III, OBE'],
    ['Joost van der Meer', '', 'Joost', 'van der Meer', ''],
    ['Mevr. Sanne de Vries-Bakker', 'Mevr.', 'Sanne', 'de Vries-Bakker', ''],
    ['Van Morrison', '', 'Van', 'Morrison', ''],
    ['Ludwig von Lind', '', 'Ludwig', 'von Lind', ''],
    ['WEIR Ada Mary', '', 'Ada Mary', 'WEIR', ''],
    ['ADA WEIR', '', 'ADA', 'WEIR', ''],
    ['José Ortega y Gasset', '', 'José', 'Ortega y Gasset', ''],
    ['Maria da Silva Santos', '', 'Maria', 'da Silva Santos', ''],
    ['Abd al-Rahman Khalid', '', 'Abd al-Rahman', 'Khalid', ''],
    ['Omar bin Said', '', 'Omar', 'bin Said', ''],
    ['J. R. R. Weir', '', 'J. R. R.', 'Weir', ''],
    ['王小明', '', '小明', '王', ''],
    ['欧阳修文', '', '修文', '欧阳', ''],
    ['김민준', '', '민준', '김', ''],
    ['山田 太郎', '', '太郎', '山田', ''],
    ['محمد علي', '', 'محمد', 'علي', ''],
    ['  Ada   Weir ', '', 'Ada', 'Weir', ''],
    ['', '', '', '', ''],
  ])('%s', (text, title, given, family, suffix) =>
    expect(splitPersonName(text)).toEqual({ title, given, family, suffix }),
  );

  test.each([
    ['Nguyễn Văn An', 'Văn An', 'Nguyễn'],
    ['Trần Thị Mai', 'Thị Mai', 'Trần'],
    ['An Nguyen', 'An', 'Nguyen'],
    ['Nagy László', 'László', 'Nagy'],
    ['László Nagy', 'László', 'Nagy'],
    ['Иванов Пётр Сергеевич', 'Пётр Сергеевич', 'Иванов'],
    ['Пётр Сергеевич Иванов', 'Пётр Сергеевич', 'Иванов'],
    ['Siti binti Yusof', 'Siti', 'binti Yusof'],
    ['محمد آل سعود', 'محمد', 'آل سعود'],
    ['Kim Min-su', 'Min-su', 'Kim'],
    ['Wang Xiaoming', 'Xiaoming', 'Wang'],
    ['Wang Johnson', 'Wang', 'Johnson'],
    ['佐藤花子', '花子', '佐藤'],
    ['VAN DER MEER Ada', 'Ada', 'VAN DER MEER'],
    ['Ana & Rui Costa', 'Ana & Rui', 'Costa'],
  ])('%s is %s of the family %s', (text, given, family) =>
    expect(splitPersonName(text)).toMatchObject({ given, family }),
  );

  test.each([
    ['Priv.-Doz. Dr. med. dent. Ilse Kern', { title: 'Priv.-Doz. Dr. med. dent.', given: 'Ilse', family: 'Kern' }],
    ['Mr and Mrs Weir', { title: 'Mr and Mrs', given: '', family: 'Weir' }],
    ['Sam Weir (they/them)', { given: 'Sam', family: 'Weir', suffix: '(they/them)' }],
  ])('%s has its titles and pronouns apart', (text, parts) => expect(splitPersonName(text)).toMatchObject(parts));

  test('has two family names where people bear both', () => {
    expect(splitPersonName('Ana María García Márquez', 2)).toMatchObject({
      given: 'Ana María',
      family: 'García Márquez',
    });
    expect(splitPersonName('Ana García', 2)).toMatchObject({ given: 'Ana', family: 'García' });
  });

  test('loses no letter, whatever was typed', () => {
    const letters = (text: string) => [...text.replace(/[\s,]/g, '')].sort().join('');
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), fc.constantFrom<1 | 2>(1, 2), (text, names) => {
        const { title, given, family, suffix } = splitPersonName(text, names);
        expect(letters(title + given + family + suffix)).toBe(letters(text));
      }),
    );
  });
});

describe('a date', () => {
  test.each([
    ['2027-04-03', '2027-04-03'],
    ['2027-04-03T09:30:00Z', '2027-04-03'],
    ['20270403', '2027-04-03'],
    ['2027/4/3', '2027-04-03'],
    ['31/12/2027', '2027-12-31'],
    ['12/31/2027', '2027-12-31'],
    ['4.4.27', '2027-04-04'],
    ['31-12-99', '1999-12-31'],
    ['3 April 2027', '2027-04-03'],
    ['April 3rd, 2027', '2027-04-03'],
    ['Sat 3 Apr 2027 at 09:30', '2027-04-03'],
    ['3. März 2027', '2027-03-03'],
    ['3 maart 2027', '2027-03-03'],
    ['3-mrt-2027', '2027-03-03'],
    ['1er août 2027', '2027-08-01'],
    ['3 de abril de 2027', '2027-04-03'],
    ['2027 April 3', '2027-04-03'],
    ['1805014800', '2027-03-14'],
    ['1805014800000', '2027-03-14'],
  ])('%s is %s', (text, date) => expect(readDate(text)).toEqual({ ok: true, date }));

  test.each(['31/02/2027', '99/99/2027', 'next week', '3 April', '12', '2027', '0/0/0', '3/4/2'])(
    '%s is none',
    (text) => expect(readDate(text)).toMatchObject({ ok: false, code: 'not-a-date' }),
  );

  test('that can be read in two ways needs an order', () => {
    expect(readDate('03/04/2027')).toEqual({ ok: false, code: 'order-unknown', either: ['2027-04-03', '2027-03-04'] });
    expect(readDate('03/04/2027', 'day-first')).toEqual({ ok: true, date: '2027-04-03' });
    expect(readDate('03/04/2027', 'month-first')).toEqual({ ok: true, date: '2027-03-04' });
  });

  test.each([
    [['03/04/2027', '25/04/2027'], 'day-first'],
    [['03/04/2027', '04/25/2027'], 'month-first'],
    [['03/04/2027', '05/06/2027'], null],
    [['25/04/2027', '04/25/2027'], null],
    [['2027-04-25', 'soon'], null],
    [[], null],
  ])('the order of %j is %s', (texts, order) => expect(dateOrderOf(texts)).toBe(order));

  test('written in any order is read in that order', () => {
    const pad = (number: number) => String(number).padStart(2, '0');
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 28 }),
        fc.integer({ min: 1, max: 12 }),
        fc.constantFrom('/', '.', '-', ' '),
        (day, month, mark) => {
          const date = `2027-${pad(month)}-${pad(day)}`;
          expect(readDate([day, month, 2027].join(mark), 'day-first')).toEqual({ ok: true, date });
          expect(readDate([month, day, 2027].join(mark), 'month-first')).toEqual({ ok: true, date });
        },
      ),
    );
  });
});

describe('a country', () => {
  test.each([
    ['United Kingdom', 'GB'],
    ['the Netherlands', 'NL'],
    ['Nederland', 'NL'],
    ['Pays-Bas', 'NL'],
    ['Deutschland', 'DE'],
    ['ESPAÑA', 'ES'],
    ['Espana', 'ES'],
    ['U.S.A.', 'US'],
    ['gb', 'GB'],
    ['Scotland', 'GB'],
    ['Österreich', 'AT'],
    ['Côte d’Ivoire', 'CI'],
    ['Suomi', 'FI'],
  ])('called %s is %s', (name, code) => expect(countryNamed(name)).toBe(code));

  test.each(['', 'Atlantis', 'ZZ', 'EU', 'Leeds', 'x'.repeat(100_000)])('is not %s', (name) =>
    expect(countryNamed(name)).toBeNull(),
  );
});

test.each([
  ['Yes', true],
  ['on', true],
  ['Ja!', true],
  ['non', false],
  ['0', false],
  ['maybe', null],
  ['', null],
])('%s says %s', (word, said) => expect(yesOrNo(word)).toBe(said));
