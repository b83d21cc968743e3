import { expect, test } from '@jest/globals';
import { firm, person, route, routeOf, sale } from '../../testing/example';
import { feedsField, moveFill } from './move-fill';

const FROM = { record: 'contact', key: 'growing_for' } as const;
const TO = { record: 'deal', key: 'grown' } as const;

test('a field that moves is fed where it went, by the same answers', () => {
  const moved = moveFill(route, FROM, TO)!;
  expect([feedsField(moved, FROM), feedsField(moved, TO)]).toEqual([false, true]);
  expect(moved.writes[2]!.fills.at(-1)!.value).toEqual(
    person.fills.find(({ field }) => field === 'growing_for')!.value,
  );
  expect(moved.writes[0]).toBe(route.writes[0]);
});

test('a route that has nowhere to feed it cannot follow, and one that does not feed it stays as it is', () => {
  expect(moveFill(routeOf(firm, person), FROM, TO)).toBeNull();
  expect(moveFill(routeOf(firm, sale), FROM, TO)).toEqual(routeOf(firm, sale));
});
