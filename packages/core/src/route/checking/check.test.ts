import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Destination } from '../../destination/destination';
import { destination, fill, firm, person, route, routeOf, sale, seenField, text } from '../../testing/example';
import { routeChanges } from '../planning/changes';
import { checkRoute, hasErrors } from './check';
import { readRoute } from '../editing/read-route';
import type { RouteSurroundings } from './surroundings';
import type { RouteDefinition } from '../../definition/route-definition';
import { describeRoute } from '../telling/describe';
import { ROUTE_SCHEMA } from '../editing/schema';
import { routeFromOutline, usualOutline } from '../../mapping/outlines';

const surroundings: RouteSurroundings = { destination, intakes: [{ key: 'survey', name: 'Site survey request' }] };
const problems = (definition: RouteDefinition, where = surroundings) =>
  checkRoute(definition, where).map(({ code, at }) => [code, at]);

const drafted = (keys: readonly string[], where: Destination) =>
  routeFromOutline(usualOutline(where), { name: 'New', intake: 'survey', seen: keys.map(seenField) }, where);

test('a sound route has no problem', () => expect(problems(route)).toEqual([]));

describe('a definition of the wrong shape is refused at its place', () => {
  test.each<[unknown, string, string]>([
    [{ ...route, colour: 'red' }, '/colour', 'unknown-property'],
    [{ ...route, format: 'haycart.route/2' }, '/format', 'wrong-value'],
    [{ ...route, writes: undefined }, '/writes', 'missing'],
    [{ ...route, writes: [{ ...person, match: [{ by: 'shoe-size' }] }] }, '/writes/0/match/0', 'wrong-shape'],
    [
      {
        ...route,
        writes: [{ ...person, fills: [{ field: 'email', value: { parts: [{ answer: 'a', text: 'b' }] } }] }],
      },
      '/writes/0/fills/0/value/parts/0',
      'wrong-shape',
    ],
    [
      { ...route, writes: [{ ...sale, place: { ...sale.place, again: 'sometimes' } }] },
      '/writes/0/place/again',
      'wrong-value',
    ],
    [null, '', 'wrong-value'],
  ])('%#', (definition, at, code) => {
    const read = readRoute(definition);
    expect(read.ok ? [] : read.problems.map((problem) => [problem.at, problem.code])).toContainEqual([at, code]);
  });

  test('and whatever it is, reading it never throws', () => {
    fc.assert(fc.property(fc.anything(), (any) => expect(readRoute(any).ok).toBe(false)));
  });
});

describe('what is not built yet is refused by name', () => {
  test.each<[Partial<RouteDefinition>, string]>([[{ sendOn: [{ to: 'crm' }] }, '/sendOn/0']])(
    '%#: %j',
    (change, at) => {
      const definition = { ...route, ...change };
      expect(readRoute(definition).ok).toBe(true);
      expect(problems(definition)).toContainEqual(['not-built-yet', at]);
    },
  );
});

describe('names that do not exist are errors with their place', () => {
  test.each<[RouteDefinition, string, string]>([
    [{ ...route, from: ['gone'] }, 'unknown-intake', '/from/0'],
    [{ ...route, from: [] }, 'no-intake', '/from'],
    [routeOf(), 'no-write', '/writes'],
    [routeOf(person), 'unknown-write', '/writes/0/links/0'],
    [routeOf(firm, { ...person, as: 'firm' }), 'name-taken', '/writes/1/as'],
    [
      routeOf(firm, { ...person, fills: [...person.fills, fill('shoe_size', text('9'))] }),
      'unknown-field',
      '/writes/1/fills/6/field',
    ],
    [
      routeOf(firm, { ...person, fills: [...person.fills, fill('emails', text('9'))] }),
      'kept-field',
      '/writes/1/fills/6/field',
    ],
    [routeOf(firm, { ...person, fills: [...person.fills, person.fills[0]!] }), 'fed-twice', '/writes/1/fills/6/field'],
    [
      routeOf(firm, { ...person, fills: person.fills.filter(({ field }) => field !== 'email') }),
      'required-unfed',
      '/writes/1/fills',
    ],
    [
      routeOf(firm, { ...person, fills: person.fills.filter(({ field }) => field !== 'email') }),
      'match-unfed',
      '/writes/1/match/0/by',
    ],
    [routeOf({ ...firm, match: [{ by: 'email' }] }), 'match-does-not-fit', '/writes/0/match/0/by'],
    [routeOf(firm, person, { ...sale, place: undefined } as never), 'no-place', '/writes/2'],
    [routeOf(firm, { ...person, place: sale.place! }), 'place-does-not-fit', '/writes/1/place'],
    [
      routeOf(firm, person, { ...sale, place: { ...sale.place!, pipeline: text('gone') } }),
      'unknown-pipeline',
      '/writes/2/place/pipeline',
    ],
    [
      routeOf(firm, person, { ...sale, place: { ...sale.place!, stage: text('gone') } }),
      'unknown-stage',
      '/writes/2/place/stage',
    ],
    [
      routeOf(firm, person, { ...sale, fills: [fill('name', { parts: [] })] }),
      'no-part',
      '/writes/2/fills/0/value/parts',
    ],
    [
      routeOf(firm, person, { ...sale, fills: [fill('name', { parts: [{ write: 'later', field: 'name' }] })] }),
      'unknown-write',
      '/writes/2/fills/0/value/parts/0/write',
    ],
    [
      routeOf(firm, person, { ...sale, fills: [fill('name', { parts: [{ write: 'firm', field: 'gone' }] })] }),
      'unknown-field',
      '/writes/2/fills/0/value/parts/0/field',
    ],
    [
      routeOf(firm, person, { ...sale, fills: [fill('name', { parts: [{ visit: 'weather' }] })] }),
      'unknown-visit-part',
      '/writes/2/fills/0/value/parts/0/visit',
    ],
    [
      routeOf(firm, person, { ...sale, fills: [fill('name', { parts: [{ answer: 'a[' }] })] }),
      'not-a-key',
      '/writes/2/fills/0/value/parts/0/answer',
    ],
    [
      routeOf(firm, person, { ...sale, fills: [fill('name', { ...text('x'), finishers: [{ use: 'polish' }] })] }),
      'unknown-finisher',
      '/writes/2/fills/0/value/finishers/0/use',
    ],
    [
      routeOf(firm, person, {
        ...sale,
        fills: [fill('name', { ...text('x'), finishers: [{ use: 'trim', with: { hard: true } }] })],
      }),
      'unknown-property',
      '/writes/2/fills/0/value/finishers/0/with/hard',
    ],
    [
      routeOf(firm, {
        ...person,
        fills: [...person.fills.filter(({ field }) => field !== 'growing_for'), fill('growing_for', text('Moss'))],
      }),
      'unknown-option',
      '/writes/1/fills/5/value/parts/0/text',
    ],
  ])('%#', (definition, code, at) => {
    expect(problems(definition)).toContainEqual([code, at]);
    expect(hasErrors(checkRoute(definition, surroundings))).toBe(true);
  });
});

test('an answer never seen yet is a warning', () => {
  const seen = {
    ...surroundings,
    intakes: [
      { key: 'survey', name: 'Survey', fieldKeys: new Set(['first', 'last', 'email', 'phone.number', 'company']) },
    ],
  };
  const found = checkRoute(route, seen);
  expect(found.map(({ code, at }) => [code, at])).toEqual([
    ['unseen-answer', '/writes/1/fills/4/value/parts/0/answer'],
    ['unseen-answer', '/writes/2/fills/1/value/parts/0/answer'],
  ]);
  expect(hasErrors(found)).toBe(false);
});

test('the format is described as JSON Schema 2020-12, by name', () => {
  expect(ROUTE_SCHEMA).toMatchObject({
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    type: 'object',
    additionalProperties: false,
  });
  expect(Object.keys((ROUTE_SCHEMA as { $defs?: object }).$defs ?? {})).toEqual(
    expect.arrayContaining(['Write', 'Value', 'Part', 'Condition', 'MatchRule', 'DecisionTable']),
  );
});

test('a route is told in sentences', () => {
  expect(describeRoute(route, surroundings)).toEqual({
    decide: 'nothing by tables',
    sentence: 'Site survey request → company, contact and deal in New builds, Enquiry',
    takesFrom: 'Site survey request',
    onlyWhen: 'everything that arrives',
    mapping: '12 fields fed',
    recognise: 'company by domain, only blanks filled and contact by e-mail',
    place: 'New builds, Enquiry; a second enquiry updates the open deal',
    followUp: 'nothing more',
  });
});

test('what changes between two versions is told in sentences', () => {
  expect(routeChanges(route, route, surroundings)).toEqual([]);
  const changed = routeOf(
    firm,
    { ...person, whenMatched: 'leave', fills: person.fills.slice(1) },
    { ...sale, place: { ...sale.place!, again: 'new' } },
  );
  expect(routeChanges(route, changed, surroundings)).toEqual([
    'The contact’s First name is fed no more.',
    'The contact is recognised in another way.',
    'The deal is placed otherwise: New builds, Enquiry; a second enquiry makes another deal (before: New builds, Enquiry; a second enquiry updates the open deal).',
  ]);
});

test('a first draft from what was seen can be published as it is', () => {
  const draft = drafted(['person.first_name', 'surname', 'E-mail', 'tel', 'colour'], destination);
  expect(readRoute(draft).ok).toBe(true);
  expect(checkRoute(draft, surroundings)).toEqual([]);
  expect(draft.writes[0]!.fills.map(({ field }) => field)).toEqual([
    'first_name',
    'last_name',
    'email',
    'phone',
    'source',
  ]);
});

test('where leads come first, a first draft makes a lead, named by what was seen', () => {
  const pipeline = {
    key: 'calls',
    name: 'Calls',
    record: 'lead' as const,
    stages: [{ key: 'new', name: 'New', state: 'open' as const }],
  };
  const where = { ...destination, leadHandling: 'leads' as const, pipelines: [...destination.pipelines, pipeline] };
  const draft = drafted(['first_name', 'surname', 'email'], where);
  expect(checkRoute(draft, { ...surroundings, destination: where })).toEqual([]);
  expect(draft.writes).toMatchObject([
    {
      record: 'lead',
      place: { pipeline: { parts: [{ text: 'calls' }] } },
      fills: [{ field: 'name' }, { field: 'email' }, { field: 'source' }],
    },
  ]);
  expect(drafted([], { ...where, pipelines: [] }).writes[0]!.place).toBeUndefined();
});
