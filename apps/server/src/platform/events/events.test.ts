import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { Database } from '../database/database';
import { Events } from './events';

let told: { workspaceId: string; topics: string[] }[][];
let events: Events;

beforeEach(() => {
  jest.useFakeTimers();
  told = [];
  const query = ({ values }: { values: [string, string[]] }) => {
    told.push(values[1].map((notice) => JSON.parse(notice) as { workspaceId: string; topics: string[] }));
    return Promise.resolve();
  };
  events = new Events({ pool: { query } } as unknown as Database);
});
afterEach(async () => {
  await events.onModuleDestroy();
  jest.useRealTimers();
});

describe('what happens thousands of times a second', () => {
  test('is told at once the first time, then together after a pause', () => {
    events.tellSoon('one', 'submissions');
    expect(told).toEqual([[{ workspaceId: 'one', topics: ['submissions'] }]]);
    for (let n = 0; n < 1_000; n += 1) events.tellSoon('one', 'submissions');
    events.tellSoon('one', 'runs');
    events.tellSoon('other', 'submissions');
    expect(told).toHaveLength(1);
    jest.advanceTimersByTime(100);
    expect(told[1]).toEqual([
      { workspaceId: 'one', topics: ['submissions', 'runs'] },
      { workspaceId: 'other', topics: ['submissions'] },
    ]);
  });

  test('is told at once again after it was quiet, and nothing is told when nothing happened', () => {
    events.tellSoon('one', 'submissions');
    jest.advanceTimersByTime(10_000);
    expect(told).toHaveLength(1);
    events.tellSoon('one', 'runs');
    expect(told[1]).toEqual([{ workspaceId: 'one', topics: ['runs'] }]);
  });

  test('is told no more once the server stops', async () => {
    events.tellSoon('one', 'submissions');
    events.tellSoon('one', 'runs');
    await events.onModuleDestroy();
    jest.advanceTimersByTime(1_000);
    expect(told).toHaveLength(1);
  });
});
