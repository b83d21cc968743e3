import { expect, test } from '@jest/globals';
import { LIMITS } from '@haycart/core';
import type { Database } from '../../platform/database/database';
import type { Events } from '../../platform/events/events';
import type { AcknowledgedCounts } from '../counts/acknowledged-counts.service';
import { SubmissionInbox, type Arrival } from './submission-inbox.service';

const events = { tellSoon: () => {} } as unknown as Events;
const acknowledged = { count: () => {} } as unknown as AcknowledgedCounts;
const arrival = (workspaceId: string, body = Buffer.from('{}')): Arrival => ({
  workspaceId,
  intakeId: 'i',
  format: 'json',
  body,
  visit: {},
});

/** An inbox whose writes wait until they are let go on, and tell for whom and how many they are. */
function waitingInbox() {
  const writes: { workspaceId: string; count: number; done: () => void }[] = [];
  const inWorkspaceOnce = (workspaceId: string, name: string, _text: string, [ids]: unknown[]) =>
    new Promise<unknown[]>((done) =>
      writes.push({ workspaceId, count: name === 'keep_alone' ? 1 : (ids as string[]).length, done: () => done([]) }),
    );
  return { writes, inbox: new SubmissionInbox({ inWorkspaceOnce } as unknown as Database, events, acknowledged) };
}

test('what two workspaces send in turn is written together, each with its own', async () => {
  const { writes, inbox } = waitingInbox();
  const kept = Array.from({ length: 100 }, (_, n) => inbox.keep(arrival(n % 2 ? 'one' : 'other')));
  for (let n = 0; n < writes.length; n += 1) {
    writes[n]!.done();
    await Promise.resolve().then(() => new Promise((resolve) => setImmediate(resolve)));
  }
  await Promise.all(kept);
  expect(writes.map(({ workspaceId, count }) => `${workspaceId} ${count}`)).toEqual([
    'other 1',
    'one 1',
    'other 49',
    'one 49',
  ]);
});

test('a workspace with a long queue does not keep another waiting', async () => {
  const { writes, inbox } = waitingInbox();
  for (let n = 0; n < 1_000; n += 1) void inbox.keep(arrival('busy'));
  void inbox.keep(arrival('quiet'));
  for (let n = 0; n < 3; n += 1) {
    writes[n]!.done();
    await new Promise((resolve) => setImmediate(resolve));
  }
  expect(writes.slice(0, 5).map(({ workspaceId }) => workspaceId)).toContain('quiet');
});

test('no more bytes wait than are allowed, however few they come in', async () => {
  const { inbox } = waitingInbox();
  const mebibyte = Buffer.alloc(1_048_576);
  const most = LIMITS.inboxBytes.most / mebibyte.length;
  const keep = () => inbox.keep(arrival('one', mebibyte));
  for (let n = 0; n < most - 1; n += 1) void keep();
  expect(() => void [keep(), keep()]).toThrow('More arrives than can be kept just now');
});
