import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { EventTopic } from '@haycart/api';
import { Subject } from 'rxjs';
import type { Database } from '../database/database';
import type { Events } from '../events/events';
import { AfterChanges } from './after-changes';
import type { Jobs } from './jobs';

let told: Subject<{ workspaceId: string; topics: EventTopic[] }>;
let asked: [string, number][];
/** In how many milliseconds what is asked for is due; and what the database is waited for. */
let due: number;
let answered: Promise<unknown>;
let work: jest.Mock<(workspaceId: string, stopping: AbortSignal) => Promise<void>>;
let tasks: Map<string, (payload: unknown, stopping: AbortSignal) => unknown>;
let after: AfterChanges;

beforeEach(async () => {
  jest.useFakeTimers();
  told = new Subject();
  asked = [];
  due = 2_000;
  answered = Promise.resolve();
  tasks = new Map();
  work = jest.fn(() => Promise.resolve());
  const jobs = {
    register: ({ name, work: task }: { name: string; work: (payload: unknown, stopping: AbortSignal) => unknown }) =>
      tasks.set(name, task),
    add: (_: string, __: object, key: string, seconds: number) => {
      asked.push([key, seconds]);
      return answered.then(() => due);
    },
  };
  const database = { gate: () => Promise.resolve([{ id: 'one' }, { id: 'two' }]) };
  after = new AfterChanges(
    { background: true },
    database as unknown as Database,
    jobs as unknown as Jobs,
    { all: told } as unknown as Events,
  );
  after.follow({ task: 'learn', topic: 'runs', restSeconds: 2, work });
});
afterEach(() => {
  after.onModuleDestroy();
  jest.useRealTimers();
});

test('is asked for once for every workspace when the server starts, for what changed meanwhile', async () => {
  await after.onApplicationBootstrap();
  expect(asked).toEqual([
    ['learn one', 2],
    ['learn two', 2],
  ]);
});

const change = (workspaceId: string, ...topics: EventTopic[]) => told.next({ workspaceId, topics });

test('is asked for after its own topic, and once however often that is told while it waits', async () => {
  await after.onApplicationBootstrap();
  asked = [];
  await jest.advanceTimersByTimeAsync(10_000);
  change('one', 'runs', 'records');
  await jest.advanceTimersByTimeAsync(0);
  for (let n = 0; n < 50; n += 1) change('one', 'runs', 'records');
  change('two', 'records');
  expect(asked).toEqual([['learn one', 2]]);
  await jest.advanceTimersByTimeAsync(2_000);
  change('one', 'runs');
  change('two', 'runs');
  expect(asked.slice(1)).toEqual([
    ['learn one', 2],
    ['learn two', 2],
  ]);
});

test('is asked for again once what waited is due, which is sooner where another process had asked', async () => {
  await after.onApplicationBootstrap();
  await jest.advanceTimersByTimeAsync(10_000);
  due = 300;
  change('one', 'runs');
  asked = [];
  await jest.advanceTimersByTimeAsync(200);
  change('one', 'runs');
  expect(asked).toEqual([]);
  await jest.advanceTimersByTimeAsync(100);
  change('one', 'runs');
  expect(asked).toEqual([['learn one', 2]]);
});

test('sees what changes while it is being asked for, also when that was done before the answer came', async () => {
  await after.onApplicationBootstrap();
  await jest.advanceTimersByTimeAsync(10_000);
  due = 0;
  let answer = (_: unknown) => {};
  answered = new Promise((resolve) => (answer = resolve));
  change('one', 'runs');
  asked = [];
  for (let n = 0; n < 50; n += 1) change('one', 'runs');
  expect(asked).toEqual([]);
  answer(null);
  await jest.advanceTimersByTimeAsync(0);
  expect(asked).toEqual([['learn one', 2]]);
});

test('is asked for with the next change where the database was away', async () => {
  await after.onApplicationBootstrap();
  await jest.advanceTimersByTimeAsync(10_000);
  answered = Promise.reject(new Error('away'));
  change('one', 'runs');
  await jest.advanceTimersByTimeAsync(1);
  asked = [];
  change('one', 'runs');
  expect(asked).toEqual([['learn one', 2]]);
  await jest.advanceTimersByTimeAsync(1);
});

test('is done for the workspace that the job names, and asked for again where there was more to do', async () => {
  await tasks.get('learn')!({ workspaceId: 'two' }, new AbortController().signal);
  expect(work).toHaveBeenCalledWith('two', expect.anything());
  await after.again('learn', 'two', 10);
  expect(asked).toEqual([['learn again two', 10]]);
});

test('is asked for no more once the server stops', async () => {
  await after.onApplicationBootstrap();
  after.onModuleDestroy();
  jest.advanceTimersByTime(10_000);
  told.next({ workspaceId: 'one', topics: ['runs'] });
  expect(asked).toHaveLength(2);
});
