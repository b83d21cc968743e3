import { describe, expect, test } from '@jest/globals';
import {
  blocksOf,
  BUILT_IN_FIELDS,
  companyDomain,
  comparedForm,
  likeness,
  normalPhone,
  startingModel,
  USUAL_THRESHOLDS,
  checkAnswers,
  checkRoute,
  followFields,
  formWords,
  formShape,
  payloadFields,
  readRoute,
  type Destination,
  type FieldDefinition,
} from '@haycart/core';
import { Random } from './random';
import { VALUE_SETS } from './quillfern/value-sets';
import { MARRAM } from './marram';
import { FIELDS, PIPELINES } from './quillfern/destination';
import { CANCEL_FORM, GRANT_FORM, CALLS_FORM, PRICELIST_FORM, SURVEY_FORM } from './quillfern/forms';
import { personKey, TEAMS } from './quillfern/teams';
import { CANCEL_ROUTE_WRITING, LEAVING_TEMPLATE } from './quillfern/cancellation-route';
import { GRANT_ROUTE_BY_MAIL } from './quillfern/grant-route';
import {
  CONFIRM_TEMPLATE,
  PRICE_LIST_FILE,
  PRICE_LIST_TEMPLATE,
  PRICELIST_ROUTE,
  PRICELIST_ROUTE_CONFIRMING,
} from './quillfern/price-list';
import { CALLS_ROUTE, DEALERS_ROUTE, SURVEY_ROUTE, SURVEY_ROUTE_TELLING } from './quillfern/routes';
import { PLANTED, plantedArrivals } from './planted';
import { madeUpYear } from './submissions';

const NOW = new Date('2026-11-24T04:00:00Z');
const year = madeUpYear(new Random(20_260_314), NOW);
const destination: Destination = {
  teams: Object.fromEntries(TEAMS.map(({ key, name, people }) => [key, { name, people: people.map(personKey) }])),
  defaultCountry: 'GB',
  defaultCurrency: 'GBP',
  fields: [...BUILT_IN_FIELDS, ...FIELDS.filter(({ builtIn }) => !builtIn)].map((field) => prepared(field)),
  channels: [{ key: 'care-desk', name: 'Care desk', by: 'chat' }],
  templates: [LEAVING_TEMPLATE, CONFIRM_TEMPLATE, PRICE_LIST_TEMPLATE],
  files: [{ ...PRICE_LIST_FILE, size: 1 }],
  pipelines: [...PIPELINES, MARRAM.pipeline],
};

/** A field with what the demo’s seed gives it to choose from. */
function prepared(field: FieldDefinition): FieldDefinition {
  const labelled = (keys: readonly string[]) => keys.map((key) => ({ key, label: key }));
  if (field.key === 'owner')
    return { ...field, options: labelled(TEAMS.flatMap(({ people }) => people.map(personKey))) };
  return field.key === 'lists' ? { ...field, options: labelled(['spring-newsletter']) } : field;
}

describe('the made-up year', () => {
  test('is the same every time, about 3,000, oldest first, none later than now', () => {
    expect(madeUpYear(new Random(20_260_314), NOW)).toEqual(year);
    expect(year.length).toBeGreaterThan(2_300);
    expect(year.length).toBeLessThan(3_800);
    const times = year.map(({ at }) => at.getTime());
    expect(times).toEqual([...times].sort((a, b) => a - b));
    expect(times.at(-1)).toBeLessThan(NOW.getTime());
  });

  test('names no address or number that could be anybody’s', () => {
    for (const { payload, visit } of year) {
      for (const { value } of payloadFields(payload)) {
        const text = String(value);
        if (text.includes('@'))
          expect(text.trim().toLowerCase()).toMatch(/@([a-z-]+\.example|example\.(com|org|net))$/);
        if (/^(\+|0)\d/.test(text))
          expect(text.replace(/[^\d+]/g, '')).toMatch(/^(07700900|\+447700900|02079460|\+141655501|\+3160000)/);
      }
      if (visit.page) expect(visit.page).toMatch(/^https:\/\/quillfern\.example/);
    }
  });

  test('has the mess of real life: people who come again, names in one case, answers that do not fit, a renamed field', () => {
    const emails = year
      .map(({ payload }) =>
        String(payload.email ?? '')
          .trim()
          .toLowerCase(),
      )
      .filter(Boolean);
    expect(new Set(emails).size).toBeLessThan(emails.length * 0.8);
    expect(year.some(({ payload }) => payload.growing_for === 'Rooftop café')).toBe(true);
    expect(year.some(({ payload }) => payload.bays === 'a few')).toBe(true);
    const renamed = year.filter(({ payload }) =>
      payloadFields(payload).some(({ key }) => key === 'person.name.surname'),
    );
    expect(renamed.length).toBeGreaterThan(0);
  });
});

describe('the demo’s own definitions', () => {
  test.each([
    ['survey', SURVEY_ROUTE],
    ['pricelist', PRICELIST_ROUTE],
    ['dealers', DEALERS_ROUTE],
    ['calls', CALLS_ROUTE],
    ['cancel', CANCEL_ROUTE_WRITING],
    ['grant', GRANT_ROUTE_BY_MAIL],
    ['pricelist', PRICELIST_ROUTE_CONFIRMING],
    ['survey', SURVEY_ROUTE_TELLING],
    ['sheds', MARRAM.route],
  ])('the route of %s has nothing wrong with it', (key, route) => {
    expect(readRoute(route).ok).toBe(true);
    const valueSets = Object.fromEntries(VALUE_SETS.map(({ key: set, ...own }) => [set, own]));
    expect(checkRoute(route, { destination: { ...destination, valueSets }, intakes: [{ key, name: key }] })).toEqual(
      [],
    );
  });

  test('the forms fit their format, and take what the year sends', () => {
    for (const form of [SURVEY_FORM, PRICELIST_FORM, CALLS_FORM, GRANT_FORM, CANCEL_FORM, MARRAM.form])
      expect(formShape.safeParse(form).success).toBe(true);
    const followed = followFields(SURVEY_FORM, [...BUILT_IN_FIELDS, ...FIELDS]);
    const survey = { ...followed, items: followed.items.filter(({ name }) => name !== 'bays') };
    const asked = year
      .filter(({ intake }) => intake === 'survey')
      .filter(({ payload }) => payload.growing_for !== 'Rooftop café');
    for (const { payload } of asked)
      expect(checkAnswers(survey, payload, { words: formWords('en') }).refused).toEqual([]);
  });
});

describe('the planted duplicates', () => {
  const forms = plantedArrivals(NOW).map(({ payload }) => {
    const text = (key: string) => String(payload[key] ?? '');
    const phone = normalPhone(text('phone'), 'GB');
    const domain = companyDomain(text('email'));
    return comparedForm(
      'contact',
      {
        first_name: text('first_name'),
        last_name: text('last_name'),
        email: text('email'),
        ...(phone.ok ? { phone: phone.phone } : {}),
      },
      { companies: domain ? [{ id: domain, values: { name: text('organisation'), domain } }] : [] },
    );
  });
  const model = startingModel('contact', 1_500);
  const cases = PLANTED.map((planted, index) => ({
    ...planted,
    who: `${planted.one.first} ${planted.one.last}`,
    probability: likeness(model, forms[2 * index]!, forms[2 * index + 1]!).probability,
    compared: blocksOf(forms[2 * index]!).some((block) => blocksOf(forms[2 * index + 1]!).includes(block)),
  }));

  test.each(cases.filter((one) => one.same).map((one) => [one.why, one.who, one] as const))(
    '%s, %s, is found or asked about',
    (_, __, { probability, compared }) => {
      expect(compared).toBe(true);
      expect(probability).toBeGreaterThan(USUAL_THRESHOLDS.ask);
    },
  );

  test.each(cases.filter((one) => !one.same).map((one) => [one.why, one.who, one] as const))(
    '%s, %s, is left alone',
    (_, __, { probability }) => expect(probability).toBeLessThan(USUAL_THRESHOLDS.ask),
  );
});
