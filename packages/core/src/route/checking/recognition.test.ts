import { describe, expect, test } from '@jest/globals';
import {
  answer,
  destination,
  fill,
  firm,
  known,
  person,
  plan,
  routeOf,
  sale,
  seenField,
  submission,
} from '../../testing/example';
import { checkRoute, hasErrors } from './check';
import type { Write } from '../../definition/route-definition';
import { describeRoute } from '../telling/describe';
import { addedWrite, routeFromOutline } from '../../mapping/outlines';
import { recognitionOf, usualRules } from './recognition';

const names = { destination, intakes: [{ key: 'survey', name: 'Survey' }] };
const lead = (change: Partial<Write> = {}): Write => ({
  as: 'enquiry',
  record: 'lead',
  fills: [fill('name', answer('name')), fill('email', answer('email', 'email'))],
  ...change,
});
const warnings = (...writes: Write[]) =>
  checkRoute(routeOf(...writes), names)
    .filter(({ code }) => code === 'never-recognised')
    .map(({ at }) => at);

describe('a lead without rules of its own', () => {
  test('is said to be recognised as it is: an open one by its e-mail', () => {
    const records = known({
      id: 'old',
      kind: 'lead',
      values: { name: 'Ada', email: 'ada@weir.example', status: 'open' },
    });
    const [write] = plan(routeOf(lead()), submission({ name: 'Ada', email: 'ada@weir.example' }), records).writes;
    expect(write).toMatchObject({ id: 'old', match: { by: 'open-lead' } });
    expect(describeRoute(routeOf(lead()), names).recognise).toBe('open lead by e-mail');
    expect(recognitionOf(lead())).toMatchObject({ whenSeveral: 'latest', byDefault: true });
  });

  test.each([
    ['whose address nothing feeds', lead({ fills: [fill('name', answer('name'))] })],
    ['of which each enquiry makes another', lead({ place: { ...sale.place!, again: 'new' } })],
  ])('%s is new each time, and said to be', (_, write) => {
    expect(recognitionOf(write).rules).toEqual([]);
    expect(describeRoute(routeOf(write), names).recognise).toBe('every lead is new');
  });
});

test('of several open leads the one is taken that the screen names', () => {
  const records = known(
    ...['first', 'second'].map((id, n) => ({
      id,
      kind: 'lead' as const,
      createdAt: `2026-0${n + 1}-01T00:00:00.000Z`,
      values: { name: 'Ada', email: 'ada@weir.example', status: 'open' },
    })),
  );
  const taken = (write: Write) =>
    plan(routeOf(write), submission({ name: 'Ada', email: 'ada@weir.example' }), records).writes[0]!.id;
  for (const write of [
    lead(),
    lead({ whenSeveral: 'oldest' }),
    lead({ match: [{ by: 'email' }], whenSeveral: 'oldest' }),
  ])
    expect(taken(write)).toBe(recognitionOf(write).whenSeveral === 'oldest' ? 'first' : 'second');
});

test('a write that never recognises is warned of, where it is not asked for', () => {
  expect(warnings({ ...firm, match: [] }, { ...person, match: [], links: [] })).toEqual([
    '/writes/0/match',
    '/writes/1/match',
  ]);
  expect(warnings(firm, person, sale, lead())).toEqual([]);
});

test('a company written too is recognised as companies are, fed, and linked', () => {
  const route = routeFromOutline(
    'enquiry',
    { name: 'R', intake: 'survey', seen: ['first name', 'email'].map(seenField) },
    destination,
  );
  const keys = ['first name', 'email', 'company'].map(seenField);
  const added = addedWrite('company', route, keys, destination);
  expect(added.writes[0]).toMatchObject({ record: 'company', match: [{ by: 'domain' }, { by: 'name' }] });
  expect(added.writes.slice(1).map(({ links }) => links)).toEqual([['firm'], ['person', 'firm']]);
  expect(hasErrors(checkRoute(added, names))).toBe(false);
  expect(warnings(...added.writes)).toEqual([]);
});

test('a person is usually recognised by their address, by their number where nothing tells it', () => {
  expect(usualRules('contact', ['email', 'phone'])).toEqual([{ by: 'email' }]);
  expect(usualRules('contact', ['phone', 'last_name'])).toEqual([{ by: 'phone' }]);
  expect(usualRules('contact', ['last_name'])).toEqual([]);
});

test('an address is fed from what holds addresses, whatever it is called', () => {
  const kinds = { question_7: 'email', question_8: 'text' } as const;
  const seen = Object.entries(kinds).map(([key, kind]) => ({ ...seenField(key), kind }));
  const [write] = routeFromOutline('update', { name: 'R', intake: 'survey', seen }, destination).writes;
  expect(write!.fills[0]).toMatchObject({ field: 'email', value: { parts: [{ answer: 'question_7' }] } });
  expect(write!.match).toEqual([{ by: 'email' }]);
});
