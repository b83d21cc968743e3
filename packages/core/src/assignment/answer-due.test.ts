import { describe, expect, test } from '@jest/globals';
import type { Destination } from '../destination/destination';
import { checkPromise } from '../people/answer-promise';
import { destination as example } from '../testing/example';
import { answerDue } from './answer-due';
import { enquiriesGiven, type PlannedAssignment } from './planned-assignments';

const weekdays = { mon: { from: '09:00', to: '17:00' }, fri: { from: '09:00', to: '17:00' } };
const destination: Destination = {
  ...example,
  pipelines: example.pipelines.map((pipeline, nth) => (nth ? pipeline : { ...pipeline, promise: { minutes: 240 } })),
  teams: {
    north: { name: 'North', people: ['ida'], promise: { minutes: 90 } },
    south: { name: 'South', people: ['ida'] },
  },
  people: { ida: { timeZone: 'Europe/Berlin', hours: weekdays, away: [] } },
};
const pipeline = example.pipelines[0]!.key;
/** A Friday in March at half past three in Berlin; on the Sunday after it clocks go forward. */
const FRIDAY = '2026-03-27T14:30:00.000Z';

describe('until when something is to be answered', () => {
  test('counts only the time at work of who gets it, over a week end and the change to summer time', () => {
    // An hour and a half on Friday; 150 minutes are left for Monday, which begins at nine, seven in Greenwich.
    expect(answerDue({ person: 'ida', pipeline }, FRIDAY, destination)).toBe('2026-03-30T09:30:00.000Z');
  });

  test('is what the team promises before what the pipeline does', () => {
    expect(answerDue({ person: 'ida', team: 'north', pipeline }, FRIDAY, destination)).toBe('2026-03-27T16:00:00.000Z');
    expect(answerDue({ person: 'ida', team: 'south', pipeline }, FRIDAY, destination)).toBe('2026-03-30T09:30:00.000Z');
  });

  test('is nothing where nothing is promised, and by usual hours for whom none are known', () => {
    expect(answerDue({ person: 'ida', team: 'south' }, FRIDAY, destination)).toBeNull();
    expect(answerDue({ person: 'ida', pipeline: 'gone', team: 'gone' }, FRIDAY, destination)).toBeNull();
    expect(answerDue({ person: 'bo', team: 'north' }, FRIDAY, destination)).toBe('2026-03-27T16:00:00.000Z');
  });
});

test('a promise is a number of minutes, and names somebody who is there', () => {
  expect(checkPromise({ minutes: 30, missed: { do: 'task', person: 'ida' } }, ['ida'])).toEqual([]);
  expect(checkPromise({ minutes: 30, missed: { do: 'task', person: 'bo' } }, ['ida'])[0]?.code).toBe('unknown-person');
  for (const minutes of [0, -5, 1.5, Number.NaN, 10_001])
    expect(checkPromise({ minutes }, [])[0]).toMatchObject({ code: 'out-of-range', at: '/promise/minutes' });
});

test('what one person gets of an enquiry counts once, by the deal before the contact', () => {
  const given = (record: PlannedAssignment['record'], person: string): PlannedAssignment => ({
    record,
    id: `${record} of ${person}`,
    person,
    why: 'in turn',
  });
  expect(enquiriesGiven([given('contact', 'ida'), given('company', 'bo'), given('deal', 'ida')])).toEqual([
    given('deal', 'ida'),
    given('company', 'bo'),
  ]);
});
