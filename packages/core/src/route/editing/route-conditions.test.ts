import { describe, expect, test } from '@jest/globals';
import { accountOf } from '../telling/account';
import { routeChanges } from '../planning/changes';
import { checkRoute } from '../checking/check';
import { readRoute } from './read-route';
import type { Condition, RouteDefinition } from '../../definition/route-definition';
import type { Part } from '../../value/value';
import { describeRoute } from '../telling/describe';
import { destination, plan as planned, route, submission as submissionOf } from '../../testing/example';

const when = (of: Part, name: string, value?: unknown): Condition => ({
  of,
  test: name,
  ...(value === undefined ? {} : { value }),
});
const answer = (key: string, name: string, value?: unknown) => when({ answer: key }, name, value);
const GIVEN = {
  first: 'Ada',
  email: 'ada@weir.example',
  bays: '12 bays',
  on: '3 April 2027',
  ok: 'Ja',
  likes: ['Moss', 'Fern'],
  empty: ' ',
};
const taken = (onlyWhen: Condition) => planned({ ...route, onlyWhen }, submissionOf(GIVEN));

describe('only when', () => {
  test.each<[Condition]>([
    [answer('first', 'is', 'ada')],
    [answer('first', 'is', ['Eda', 'Ada'])],
    [answer('gone', 'blank')],
    [answer('empty', 'blank')],
    [answer('bays', 'at-least', 12)],
    [answer('bays', 'between', ['10', '12'])],
    [answer('on', 'on', '2027-04-03')],
    [answer('ok', 'yes')],
    [answer('likes', 'contains', 'fer')],
    [answer('likes', 'is', 'moss')],
    [answer('likes', 'holds-all-of', ['Moss', 'Fern'])],
    [when({ visit: 'source' }, 'is', 'spring-newsletter')],
    [when({ visit: 'receivedAt' }, 'last-days', 1)],
    [{ not: answer('first', 'is', 'Eda') }],
    [{ any: [answer('first', 'is', 'Eda'), { all: [answer('ok', 'yes'), answer('bays', 'at-most', 12)] }] }],
    [{ all: [] }],
  ])('%j lets it through', (condition) => expect(taken(condition).outcome).toBe('write'));

  test.each<[Condition, string]>([
    [answer('first', 'is', 'Eda'), 'first is Eda (it is “Ada”)'],
    [
      { of: { answer: 'first' }, test: 'is', value: 'ada', caseSensitive: true },
      'first is ada (capitals count) (it is “Ada”)',
    ],
    [answer('gone', 'is', 'x'), 'gone is x (it is blank)'],
    [answer('empty', 'filled'), 'empty is filled'],
    [answer('bays', 'at-least', 13), 'bays is at least 13 (it is “12 bays”)'],
    [{ all: [answer('ok', 'yes'), answer('first', 'is', 'Eda')] }, 'first is Eda (it is “Ada”)'],
    [{ any: [] }, 'nothing is wanted'],
  ])('%j skips it and says which clause was not met', (condition, unmet) => {
    const plan = taken(condition);
    expect(plan).toMatchObject({ outcome: 'skip', reason: { code: 'only-when' }, writes: [], diff: { created: {} } });
    expect(plan.reason!.text).toContain(unmet);
  });

  test('of one write leaves the others, and its account says why', () => {
    const withCondition: RouteDefinition = {
      ...route,
      writes: route.writes.map((write) =>
        write.record === 'deal' ? { ...write, when: answer('bays', 'at-least', 20) } : write,
      ),
    };
    const submission = submissionOf(GIVEN);
    const plan = planned(withCondition, submission);
    expect(plan.writes.map(({ record, did }) => [record, did])).toEqual([
      ['company', 'create'],
      ['contact', 'create'],
      ['deal', 'none'],
    ]);
    expect(accountOf(plan, submission, { destination, intake: 'Survey' }).map(({ text }) => text)).toContain(
      'Wrote no deal: it is written only when bays is at least 20 (it is “12 bays”)',
    );
  });

  test('may test what an earlier write holds, by the type of its field', () => {
    const [firm, person, sale] = route.writes;
    const condition = (test: string, value?: unknown) => when({ write: 'person', field: 'growing_for' }, test, value);
    const withSale = (condition: Condition) =>
      planned(
        { ...route, writes: [firm!, person!, { ...sale!, when: condition }] },
        submissionOf({ ...GIVEN, growing: 'school garden' }),
      );
    expect(withSale(condition('is-any-of', ['school'])).writes[2]!.did).toBe('create');
    expect(withSale(condition('is-none-of', ['school'])).writes[2]!.unmet).toBe(
      'the contact’s Growing for is none of school (it is “school”)',
    );
  });
});

describe('a route’s condition is checked', () => {
  const problems = (onlyWhen: Condition) =>
    checkRoute(
      { ...route, onlyWhen },
      { destination, intakes: [{ key: 'survey', name: 'Survey', fieldKeys: new Set(['first']) }] },
    )
      .filter(({ at }) => at?.startsWith('/onlyWhen'))
      .map(({ code, at }) => [code, at]);
  test.each<[Condition, [string, string][]]>([
    [answer('first', 'is', 'Ada'), []],
    [answer('first', 'sounds-like', 'Ada'), [['condition-does-not-fit', '/onlyWhen']]],
    [{ all: [answer('first', 'is')] }, [['condition-does-not-fit', '/onlyWhen/all/0']]],
    [answer('second', 'filled'), [['unseen-answer', '/onlyWhen/answer']]],
    [when({ visit: 'moon' }, 'filled'), [['unknown-visit-part', '/onlyWhen/visit']]],
    [
      when({ write: 'person', field: 'email' }, 'filled'),
      [
        ['condition-does-not-fit', '/onlyWhen'],
        ['unknown-write', '/onlyWhen/write'],
      ].slice(1) as [string, string][],
    ],
  ])('%j', (condition, found) => expect(problems(condition)).toEqual(found));

  test('one nested without end is refused, not followed', () => {
    let deep: unknown = answer('first', 'filled');
    for (let n = 0; n < 50_000; n += 1) deep = { not: deep };
    expect(readRoute({ ...route, onlyWhen: deep })).toMatchObject({ ok: false, problems: [{ code: 'too-deep' }] });
  });
});

test('a condition stands in the route’s words and in what changed', () => {
  const names = { destination, intakes: [{ key: 'survey', name: 'Survey' }] };
  const onlyWhen: Condition = { any: [answer('first', 'is', ['Ada', 'Eda']), answer('bays', 'at-least', 4)] };
  expect(describeRoute(route, names).onlyWhen).toBe('everything that arrives');
  expect(describeRoute({ ...route, onlyWhen }, names).onlyWhen).toBe('first is Ada or Eda or bays is at least 4');
  expect(routeChanges(route, { ...route, onlyWhen }, names)).toEqual([
    'It takes only when first is Ada or Eda or bays is at least 4.',
  ]);
  expect(routeChanges({ ...route, onlyWhen }, route, names)).toEqual([
    'It takes everything that arrives, without a condition.',
  ]);
});
