import type { IncomingMessage } from 'node:http';
import { PassThrough } from 'node:stream';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { LIMITS } from '@haycart/core';
import { readRequest } from './read-request';

beforeEach(() => void jest.useFakeTimers({ doNotFake: ['nextTick', 'setImmediate', 'queueMicrotask'] }));
afterEach(() => {
  jest.useRealTimers();
});

const request = (headers: Record<string, string>) =>
  Object.assign(new PassThrough(), { headers, socket: {} }) as unknown as IncomingMessage & PassThrough;
const json = () => request({ 'content-type': 'application/json' });
const settle = () => new Promise((resolve) => setImmediate(resolve));

test('a body that dribbles in is given up after its time', async () => {
  const slow = json();
  const read = readRequest(slow, '192.0.2.1').catch((cause: unknown) => cause);
  slow.write('{');
  await settle();
  jest.advanceTimersByTime(LIMITS.plainBody.most * 1_000);
  expect(await read).toMatchObject({ code: 'too-slow', status: 408 });
});

test('bodies that are received at once hold no more bytes than allowed, and give them back', async () => {
  const piece = Buffer.alloc(LIMITS.body.most);
  const senders = Array.from({ length: LIMITS.bodiesAtOnce.most / piece.length + 1 }, json);
  const reads = senders.map((sender) => readRequest(sender, '192.0.2.1').catch((cause: unknown) => cause));
  for (const sender of senders) sender.write(piece);
  await settle();
  expect(await reads.at(-1)).toMatchObject({ code: 'not-available' });
  for (const sender of senders) sender.end();
  await Promise.all(reads);
  const again = json();
  const read = readRequest(again, '192.0.2.1');
  again.end('{}');
  expect((await read).body.toString()).toBe('{}');
});

test('one address sends so many posts with files at once, and others go on', async () => {
  const headers = { 'content-type': 'multipart/form-data; boundary=x' };
  const open = Array.from({ length: LIMITS.uploadsPerClient.most }, () => request(headers));
  const reads = open.map((one) => readRequest(one, '192.0.2.1').catch(() => null));
  await expect(readRequest(request(headers), '192.0.2.1')).rejects.toMatchObject({ code: 'too-many' });
  const other = request(headers);
  const read = readRequest(other, '192.0.2.2');
  other.end('--x\r\ncontent-disposition: form-data; name="a"\r\n\r\n1\r\n--x--\r\n');
  expect((await read).body.toString()).toBe('{"a":"1"}');
  for (const one of open) one.end('--x--\r\n');
  await Promise.all(reads);
});

test.each([
  ['follows', ['n'.repeat(3_000), 'file']],
  ['is open', ['file', 'n'.repeat(3_000)]],
])('a broken part ends the post at once also where a file %s, and leaves its place', async (_, names) => {
  const parts = names.map(
    (name) => `--x\r\ncontent-disposition: form-data; name="${name}"; filename="a.pdf"\r\n\r\n%PDF\r\n`,
  );
  for (let n = 0; n <= LIMITS.uploadsPerClient.most; n += 1) {
    const broken = request({ 'content-type': 'multipart/form-data; boundary=x' });
    const read = readRequest(broken, '192.0.2.3').catch((cause: unknown) => cause);
    broken.end(parts.join(''));
    expect(await read).toMatchObject({ code: 'unreadable' });
  }
});
