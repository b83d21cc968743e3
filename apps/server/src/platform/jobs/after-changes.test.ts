import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { EventTopic } from '@haycart/api';
import { Subject } from 'rxjs';
import type { Database } from '../database/database';
import type { Events } from '../events/events';
import { AfterChanges } from './after-changes';
import type { Jobs } from './jobs';

let told: Subject<{ workspaceId: string; topics: EventTopic[] }>;
let asked: [string, number][];
let work: jest.Mock<(workspaceId: string, stopping: AbortSignal) => Promise<void>>;
let tasks: Map<string, (payload: unknown, stopping: AbortSignal) => unknown>;
let after: AfterChanges;

beforeEach(async () => {
  jest.useFakeTimers();
  told = new Subject();
  asked = [];
  tasks = new Map();
  work = jest.fn(() => Promise.resolve());
  const jobs = {
    register: ({ name, work: task }: { name: string; work: (payload: unknown, stopping: AbortSignal) => unknown }) =>
      tasks.set(name, task),
    add: (_: string, __: object, key: string, seconds: number) => Promise.resolve(asked.push([key, seconds])),
  };
  const database = { gate: () => Promise.resolve([{ id: 'one' }, { id: 'two' }]) };
  after = new AfterChanges(
    { background: true, pace: 1 },
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

test('is asked for after its own topic, and once however often that is told in a moment', async () => {
  await after.onApplicationBootstrap();
  asked = [];
  jest.advanceTimersByTime(10_000);
  for (let n = 0; n < 50; n += 1) told.next({ workspaceId: 'one', topics: ['runs', 'records'] });
  told.next({ workspaceId: 'two', topics: ['records'] });
  expect(asked).toEqual([['learn one', 2]]);
  jest.advanceTimersByTime(1_000);
  told.next({ workspaceId: 'one', topics: ['runs'] });
  told.next({ workspaceId: 'two', topics: ['runs'] });
  expect(asked.slice(1)).toEqual([
    ['learn one', 2],
    ['learn two', 2],
  ]);
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
