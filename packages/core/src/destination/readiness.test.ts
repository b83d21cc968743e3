import { expect, test } from '@jest/globals';
import { readiness, type Prepared } from './readiness';

const field: Prepared['fields'][number] = {
  record: 'contact',
  key: 'size',
  label: 'Size',
  kept: false,
  required: false,
  routes: 1,
  filled: 3,
};
const stage = { pipeline: 'sales', pipelineName: 'Sales', stage: 'new', name: 'New', open: true, reached: true };
const ready: Prepared = {
  fields: [field],
  stages: [stage],
  routes: [{ id: 'r', name: 'Enquiries', live: true, problems: [], nobody: [] }],
  forms: [{ key: 'f', name: 'Survey', problems: [] }],
  people: [{ key: 'robin', name: 'Robin', active: true, teams: 1 }],
  intakes: 1,
};
const found = (change: Partial<Prepared>) =>
  readiness({ ...ready, ...change }).flatMap(({ name, items }) => items.map(({ text }) => [name, text]));

test('a workspace in which everything is used has nothing against it', () => expect(found({})).toEqual([]));

test.each<[string, Partial<Prepared>, string, RegExp]>([
  ['no intake', { intakes: 0 }, 'submissions-arrive', /no intake/],
  ['no live route', { routes: [{ ...ready.routes[0]!, live: false }] }, 'submissions-arrive', /No route is live/],
  [
    'nobody to get what comes',
    { routes: [{ ...ready.routes[0]!, nobody: ['Nobody gets the deal: the team is gone'] }] },
    'somebody-takes',
    /^Enquiries: Nobody gets the deal/,
  ],
  ['a field that nothing feeds', { fields: [{ ...field, routes: 0, filled: 0 }] }, 'fields-fed', /empty everywhere/],
  [
    'a needed field that nothing feeds',
    { fields: [{ ...field, routes: 0, required: true }] },
    'needed-fields-fed',
    /Size/,
  ],
  ['a stage that nothing reaches', { stages: [{ ...stage, reached: false }] }, 'stages-reached', /New of Sales/],
  ['somebody without a team', { people: [{ ...ready.people[0]!, teams: 0 }] }, 'people-in-teams', /Robin/],
  [
    'a route that names what is gone',
    { routes: [{ ...ready.routes[0]!, problems: ['There is no stage.'] }] },
    'routes-in-order',
    /Enquiries: There is no stage/,
  ],
  [
    'a form that asks for what is gone',
    { forms: [{ ...ready.forms[0]!, problems: ['“Bays” asks for a field that is gone.'] }] },
    'routes-in-order',
    /Survey: “Bays” asks/,
  ],
])('%s is pointed out', (_, change, check, text) =>
  expect(found(change)).toEqual([[check, expect.stringMatching(text)]]),
);

test('what Hay Cart keeps itself, closing stages and people who left are nobody’s task', () => {
  expect(
    found({
      fields: [{ ...field, kept: true, routes: 0 }],
      stages: [{ ...stage, open: false, reached: false }],
      people: [...ready.people, { key: 'x', name: 'X', active: false, teams: 0 }],
    }),
  ).toEqual([]);
});

test('a deal is called what the workspace calls it', () => {
  const fields = [{ ...field, record: 'deal' as const, routes: 0, filled: 0 }];
  expect(found({ fields, dealWord: 'opportunity' })).toEqual([
    ['fields-fed', 'Size of the opportunity, empty everywhere'],
  ]);
});
