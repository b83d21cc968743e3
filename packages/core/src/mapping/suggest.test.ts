import { describe, expect, test } from '@jest/globals';
import { destination, fill, person, routeOf, sale } from '../testing/example';
import { BUILT_IN_FIELDS } from '../field/built-in-fields';
import type { RouteDefinition, Write } from '../definition/route-definition';
import type { SeenField } from './answer-names';
import { fillFrom, suggestFills } from './suggest';

const seen = (key: string, kind: SeenField['kind'], more: Partial<SeenField> = {}): SeenField => ({
  key,
  label: key,
  kind,
  filled: 10,
  values: [],
  dateOrder: null,
  ...more,
});
const contact: Write = { as: 'person', record: 'contact', fills: [] };
const company: Write = { as: 'firm', record: 'company', fills: [] };
const where = { ...destination, fields: [...BUILT_IN_FIELDS, ...destination.fields.filter(({ builtIn }) => !builtIn)] };
const suggested = (route: RouteDefinition, fields: SeenField[], others: RouteDefinition[] = []) =>
  Object.fromEntries(
    suggestFills(route, fields, where, others).map(({ fill: { field, value }, as, answer }) => [
      `${as} ${field}`,
      [answer, ...(value.finishers ?? []).map(({ use }) => use)].join(' '),
    ]),
  );

describe('suggestions', () => {
  const firsts = (fields: SeenField[], wanted: string) =>
    suggestFills(routeOf(contact), fields, where).find(({ fill: { field } }) => field === wanted)?.fill.value.finishers;

  test('read a number by the country that another answer names', () => {
    const fields = [seen('phone', 'phone'), seen('land', 'country'), seen('email', 'email')];
    expect(firsts(fields, 'phone')).toEqual([{ use: 'phone', with: { country: 'GB', countryFrom: 'land' } }]);
    expect(firsts(fields.slice(0, 1), 'phone')).toEqual([{ use: 'phone', with: { country: 'GB' } }]);
  });

  test('are finished alike when somebody names the answer and the field', () => {
    const fields = [seen('phone', 'phone'), seen('land', 'country'), seen('given', 'text'), seen('odd', 'text')];
    const from = (answer: string, key: string) =>
      fillFrom(
        answer,
        where.fields.find((field) => field.record === 'contact' && field.key === key)!,
        fields,
        where,
      );
    expect(from('phone', 'phone').value.finishers).toEqual([
      { use: 'phone', with: { country: 'GB', countryFrom: 'land' } },
    ]);
    expect(from('odd', 'last_name').value.parts).toEqual([{ answer: 'odd' }]);
    expect(from('never came', 'email')).toEqual({ field: 'email', value: { parts: [{ answer: 'never came' }] } });
  });

  test('take a name beside a given name for the family’s, and one alone for the whole', () => {
    const both = [seen('prénom', 'text'), seen('nom', 'text')];
    expect(firsts(both, 'last_name')).toEqual([{ use: 'trim' }, { use: 'name-case' }]);
    expect(firsts(both.slice(1), 'last_name')?.[0]).toEqual({ use: 'split-name', with: { part: 'family' } });
  });

  test('never take the name of a file for a person’s, and take markup away', () => {
    const file = ['file', 'name', 'type', 'size'].map((part) => seen(`cv.${part}`, 'text'));
    expect(suggested(routeOf(contact), file)).toEqual({});
    const marked = seen('voornaam', 'text', { values: [{ value: '<p>Tindra</p>', count: 1 }] });
    expect(suggested(routeOf(contact), [marked])).toEqual({
      'person first_name': 'voornaam without-markup trim name-case',
    });
  });

  test('take a column of addresses by its name where some of them are none, and a column of dates never', () => {
    expect(suggested(routeOf(contact), [seen('E-mail', 'text')])).toEqual({ 'person email': 'E-mail email' });
    expect(suggested(routeOf(contact), [seen('E-mail', 'date')])).toEqual({});
  });

  test('go by names in several languages and by what values look like', () => {
    expect(
      suggested(routeOf(company, contact), [
        seen('voornaam', 'text'),
        seen('Achternaam', 'text'),
        seen('E-mailadres', 'email'),
        seen('telefoon', 'phone'),
        seen('bedrijf', 'text'),
        seen('land', 'country'),
      ]),
    ).toEqual({
      'person first_name': 'voornaam trim name-case',
      'person last_name': 'Achternaam trim name-case',
      'person email': 'E-mailadres email',
      'person phone': 'telefoon phone',
      'person country': 'land country',
      'firm name': 'bedrijf trim',
      'firm domain': 'E-mailadres company-domain',
      'firm country': 'land country',
    });
  });

  test('take a whole name apart', () => {
    expect(suggested(routeOf(contact), [seen('name', 'text')])).toMatchObject({
      'person first_name': 'name split-name name-case',
      'person last_name': 'name split-name name-case',
    });
  });

  test('know whose a name is by what stands around it', () => {
    const both = [seen('business.name', 'text'), seen('person.name', 'text')];
    expect(suggested(routeOf(company, contact), both)).toMatchObject({
      'firm name': 'business.name trim',
      'person first_name': 'person.name split-name name-case',
    });
  });

  test('go by options that the values name, whatever the question is called', () => {
    const answer = seen('q17', 'text', {
      values: [
        { value: 'School garden', count: 4 },
        { value: 'teaching garden', count: 2 },
      ],
    });
    expect(suggestFills(routeOf(contact), [answer], where)[0]).toMatchObject({
      fill: { field: 'growing_for' },
      reasons: ['2 of 2 values name its options'],
    });
  });

  test('go by what other routes do, as they do it', () => {
    const other: RouteDefinition = {
      ...routeOf({
        ...contact,
        fills: [fill('job_title', { parts: [{ answer: 'Wat doet u?' }], finishers: [{ use: 'letter-case' }] })],
      }),
      name: 'Dealers',
    };
    const [only] = suggestFills(routeOf(contact), [seen('wat_doet_u', 'text')], where, [other]);
    expect(only).toMatchObject({
      fill: { field: 'job_title', value: { finishers: [{ use: 'letter-case' }] } },
      reasons: ['“Dealers” feeds it so'],
    });
  });

  test('leave alone what is fed, what never had an answer, and what does not fit', () => {
    expect(
      suggested(routeOf(person), [seen('email', 'email'), seen('job', 'text', { filled: 0 }), seen('phone', 'email')]),
    ).toEqual({});
    expect(suggested(routeOf({ ...sale, fills: [] }), [seen('source', 'text'), seen('name', 'text')])).toEqual({});
  });

  test('give dates the order that their column shows', () => {
    const field = {
      record: 'deal' as const,
      key: 'visit_on',
      label: 'Visit on',
      type: 'date' as const,
      builtIn: false,
      required: false,
    };
    const found = suggestFills(
      routeOf({ ...sale, fills: [] }),
      [seen('visit_on', 'date', { dateOrder: 'month-first' })],
      {
        ...where,
        fields: [...where.fields, field],
      },
    );
    expect(found[0]!.fill.value.finishers).toEqual([{ use: 'date', with: { order: 'month first' } }]);
  });

  test('never suggest one answer for two fields of a record, but parts of it', () => {
    const found = suggestFills(
      routeOf(contact, company),
      [seen('email', 'email'), seen('name', 'text'), seen('phone', 'phone')],
      where,
    );
    const plain = found.filter(
      ({ fill: { value } }) => !value.finishers?.some(({ use }) => use === 'split-name' || use === 'company-domain'),
    );
    for (const as of ['person', 'firm']) {
      const answers = plain.filter((one) => one.as === as).map(({ answer }) => answer);
      expect(new Set(answers).size).toBe(answers.length);
    }
  });
});
