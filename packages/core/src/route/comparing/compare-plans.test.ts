import { describe, expect, test } from '@jest/globals';
import {
  answer,
  destination,
  fill,
  known,
  maren,
  person,
  plan,
  route,
  routeOf,
  sale,
  submission,
  text,
} from '../../testing/example';
import { comparePlans } from './compare-plans';
import type { RouteDefinition, Write } from '../../definition/route-definition';

const sent = submission(maren);
const differences = (one: RouteDefinition, other: RouteDefinition, from = sent, records = known()) =>
  comparePlans(plan(one, from, records), plan(other, from, records), destination).map(
    ({ text: words, before, after }) => [words, before, after],
  );
const alone: Write = { ...person, links: [] };
const withFill = (field: string, value: Parameters<typeof fill>[1]) =>
  routeOf({ ...alone, fills: [...alone.fills.filter((one) => one.field !== field), fill(field, value)] });

describe('two plans', () => {
  test('of the same route are alike, though each makes records of its own', () => {
    expect(differences(route, { ...route, name: 'Another' })).toEqual([]);
    expect(differences(route, route, submission({}))).toEqual([]);
  });

  test('differ in values, with what each has', () => {
    expect(differences(routeOf(alone), withFill('first_name', answer('first')))).toEqual([
      ['The contact’s First name is another', 'Maren', 'MAREN'],
      ['The contact’s Full name is another', 'Maren Oduya', 'MAREN Oduya'],
    ]);
    expect(differences(routeOf(alone), withFill('job_title', text('Head')))).toEqual([
      ['The contact’s Job title is another', '', 'Head'],
    ]);
  });

  test('differ in the outcome, and then in nothing else', () => {
    const strict = { ...routeOf(alone), onlyWhen: { of: { answer: 'first' }, test: 'is', value: 'Ada' } };
    expect(differences(routeOf(alone), strict)).toEqual([
      ['Written before, left out now', 'written', 'The route takes this only when first is Ada (it is “MAREN”).'],
    ]);
  });

  test('differ in the reason for which nothing is written', () => {
    const when = (value: string) => ({ ...routeOf(alone), onlyWhen: { of: { answer: 'first' }, test: 'is', value } });
    expect(differences(when('Ada'), when('Eda'))).toEqual([]);
    expect(differences(when('Ada'), routeOf(alone), submission({ first: '' }))).toHaveLength(1);
  });

  test('differ in the records that are written, recognised, placed and linked', () => {
    const records = known({
      id: 'maren',
      kind: 'contact',
      values: { email: 'm.oduya@fennwick.example', last_name: 'Oduya' },
    });
    expect(differences(routeOf(alone), routeOf({ ...alone, match: [] }), sent, known())).toEqual([]);
    const leaving = routeOf(
      { ...alone, when: { of: { answer: 'bays' }, test: 'at-least', value: 10 } },
      { ...sale, links: [], fills: [fill('name', text('A deal'))] },
    );
    const writing = routeOf(alone, { ...sale, links: [], fills: [fill('name', text('A deal'))] });
    expect(differences(leaving, writing, sent, records)).toEqual([
      ['A contact is written too', 'not written', 'kept'].map((word) => (word === 'kept' ? expect.any(String) : word)),
    ]);
    const placed = (stage: string) =>
      routeOf({
        ...sale,
        links: [],
        fills: [fill('name', text('A deal'))],
        place: { ...sale.place!, stage: text(stage) },
      });
    expect(differences(placed('enquiry'), placed('design'))).toEqual([
      ['The deal stands elsewhere', 'Placed in New builds, Enquiry', 'Placed in New builds, Design'],
    ]);
    const linked = (links: string[]) => routeOf(alone, { ...sale, links, fills: [fill('name', text('A deal'))] });
    expect(differences(linked([]), linked(['person']))).toEqual([['The deal is linked otherwise', '', 'contact']]);
  });
});
