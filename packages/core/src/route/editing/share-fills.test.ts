import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  answer,
  destination,
  fill,
  firm,
  known,
  maren,
  person,
  plan,
  route,
  routeOf,
  sale,
  submission,
} from '../../testing/example';
import type { RouteDefinition } from '../../definition/route-definition';
import { lookupsFor, lookupsText } from '../planning/lookups';
import { sharingFills } from './share-fills';

const copy = (definition: RouteDefinition) => structuredClone(definition);
const changed = routeOf(firm, {
  ...person,
  fills: person.fills.map((one) => (one.field === 'first_name' ? fill('first_name', answer('first', 'trim')) : one)),
});

describe('a version that shares fills with another', () => {
  test('says the same, and takes every fill that both have from the other', () => {
    const shared = sharingFills(copy(changed), route);
    expect(shared).toEqual(changed);
    const own = shared.writes.flatMap((write, w) =>
      write.fills.filter((one) => !route.writes[w]!.fills.includes(one)).map(({ field }) => field),
    );
    expect(own).toEqual(['first_name']);
  });

  test('is planned as it is alone, before and after the other', () => {
    const came = submission(maren);
    const alone = plan(copy(changed), submission(maren, { id: came.id }));
    const shared = sharingFills(copy(changed), route);
    plan(route, came);
    expect(plan(shared, came)).toEqual(alone);
    expect(plan(shared, came)).toEqual(alone);
  });
});

describe('what a submission gives is worked out once', () => {
  test('but anew for another workspace’s defaults', () => {
    const came = submission({ email: 'ada@weir.example', phone: '0612345678' });
    const phoneIn = (country: string) =>
      plan(routeOf({ ...person, links: [] }), came, known(), {
        ...destination,
        defaultCountry: country,
      }).writes[0]!.fields.find(({ field }) => field === 'phone')!.after;
    expect(phoneIn('NL')).toBe('+31612345678');
    expect(phoneIn('GB')).not.toBe('+31612345678');
    expect(phoneIn('NL')).toBe('+31612345678');
  });

  test('and never for another submission, nor for what depends on records written before', () => {
    const names = fc.stringMatching(/^[A-Z][a-z]{2,8}$/);
    fc.assert(
      fc.property(fc.array(names, { minLength: 2, maxLength: 5 }), (firsts) => {
        const told = firsts.map((first) => {
          const planned = plan(route, submission({ ...maren, first, email: `${first}@weir.example` }));
          return planned.writes.at(-1)!.fields.find(({ field }) => field === 'name')!.after;
        });
        expect(told).toEqual(firsts.map((first) => expect.stringContaining(first)));
      }),
      { numRuns: 20 },
    );
  });
});

test('lookups that ask for the same have one text, whatever their order', () => {
  const came = submission(maren);
  const one = lookupsFor(route, came, destination);
  const other = lookupsFor(routeOf(sale, person, firm), came, destination);
  expect(lookupsText(other)).toBe(lookupsText(one));
  expect(lookupsText({ ...one, keys: [...one.keys, ...one.keys] })).toBe(lookupsText(one));
  expect(lookupsText({ ...one, deals: !one.deals })).not.toBe(lookupsText(one));
  expect(lookupsText(lookupsFor(route, submission({ ...maren, email: 'b@weir.example' }), destination))).not.toBe(
    lookupsText(one),
  );
});
