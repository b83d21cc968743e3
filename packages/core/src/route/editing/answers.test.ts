import { expect, test } from '@jest/globals';
import { answer, destination, fill, firm, person, plan, routeOf, submission } from '../../testing/example';
import { answersUsed, templatesNaming, usesAnswer, withAnswerRenamed } from './answers';
import { checkRoute } from '../checking/check';
import type { RouteDefinition } from '../../definition/route-definition';

const route: RouteDefinition = {
  ...routeOf(firm, {
    ...person,
    when: { not: { of: { answer: 'spam' }, test: 'is', value: 'yes' } },
    fills: [
      ...person.fills.filter(({ field }) => field !== 'phone'),
      fill('phone', {
        parts: [{ answer: 'phone' }],
        finishers: [{ use: 'phone', with: { countryFrom: 'land' } }],
      }),
    ],
  }),
  onlyWhen: {
    any: [
      { of: { answer: 'last' }, test: 'filled' },
      { of: { visit: 'page' }, test: 'filled' },
    ],
  },
};

test('every answer that a route names is found: in values, conditions and settings of finishers', () => {
  expect([...answersUsed(route)].sort()).toEqual([
    'company',
    'email',
    'first',
    'growing',
    'land',
    'last',
    'phone',
    'spam',
  ]);
  expect(usesAnswer(route, 'LAST')).toBe(true);
  expect(usesAnswer(route, 'lasting')).toBe(false);
});

test('a renamed answer is read under its new name and under its old one', () => {
  const repaired = withAnswerRenamed(route, 'last', 'surname');
  const lastName = (payload: Record<string, string>) =>
    plan(repaired, submission({ first: 'Maren', email: 'm@weir.example', ...payload })).writes[1]!.fields.find(
      ({ field }) => field === 'last_name',
    )!.after;
  expect(lastName({ surname: 'oduya' })).toBe('Oduya');
  expect(lastName({ last: 'oduya' })).toBe('Oduya');
  expect(lastName({ surname: ' ', last: 'oduya' })).toBe('Oduya');
  expect(lastName({ surname: 'oduya', last: 'before' })).toBe('Oduya');
});

test('the condition, the setting of a finisher and every write follow, and nothing else changes', () => {
  const repaired = withAnswerRenamed(withAnswerRenamed(route, 'last', 'surname'), 'land', 'country');
  expect(repaired.onlyWhen).toEqual({
    any: [
      { of: { answer: 'surname', or: ['last'] }, test: 'filled' },
      { of: { visit: 'page' }, test: 'filled' },
    ],
  });
  expect([...answersUsed(repaired)].sort()).toEqual([
    'company',
    'country',
    'email',
    'first',
    'growing',
    'last',
    'phone',
    'spam',
    'surname',
  ]);
  expect(withAnswerRenamed(route, 'never', 'ever')).toEqual(route);
});

test('a field that goes back to its old name is read first there again', () => {
  const again = withAnswerRenamed(withAnswerRenamed(route, 'last', 'surname'), 'surname', 'last');
  expect(again.writes[1]!.fills.find(({ field }) => field === 'last_name')!.value.parts).toEqual([
    { answer: 'last', or: ['surname'] },
  ]);
});

test('an answer is unseen only where none of its names ever came', () => {
  const check = (...seen: string[]) =>
    checkRoute(
      routeOf({ ...person, links: [], fills: [fill('email', { parts: [{ answer: 'mail', or: ['email'] }] })] }),
      { destination, intakes: [{ key: 'survey', name: 'Survey', fieldKeys: new Set(seen) }] },
    ).filter(({ code }) => code === 'unseen-answer');
  expect(check('email')).toEqual([]);
  expect(check('other')).toHaveLength(1);
  expect(answersUsed(routeOf({ ...person, fills: [fill('email', answer('email'))] }))).toEqual(new Set(['email']));
});

test.each<[string, string, boolean]>([
  ['{{ answers.last }}', 'last', true],
  ['{{ answers.last | upcase }} of {{ value }}', 'last', true],
  ['{% if answers["a.b"] %}x{% endif %}', 'a.b', true],
  ['{{ answers.person.last }}', 'person.last', true],
  ['{{ answers.lastly }}', 'last', false],
  ['{{ value }} last', 'last', false],
  ['{{ answers.lasts }} {{ answers.x }}', 'a+b(c', false],
])('whether the template %s names %s', (text, key, named) => {
  const value = { parts: [{ answer: 'first' }], finishers: [{ use: 'template', with: { text } }] };
  const definition = routeOf({ ...person, fills: [fill('first_name', value), fill('email', answer('email'))] });
  expect(templatesNaming(definition, key)).toEqual(named ? [{ record: 'contact', field: 'first_name' }] : []);
});
