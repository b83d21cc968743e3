import { once } from 'node:events';
import type { Server } from 'node:http';
import { connect, type AddressInfo, type Socket } from 'node:net';
import { afterEach, expect, test } from '@jest/globals';
import { LIMITS } from '@haycart/core';
import { compileTrust } from './client-address';
import { createHttpServer } from './http-server';

let server: Server;
let sockets: Socket[] = [];

afterEach(() => {
  for (const socket of sockets) socket.destroy();
  sockets = [];
  server.close();
});

async function listen(...trusted: string[]): Promise<void> {
  server = createHttpServer((_request, response) => response.end('here'), compileTrust(trusted));
  await once(server.listen(0, '127.0.0.1'), 'listening');
}

/** Opens a connection that holds its request back; says whether it is open once the server has taken it up. */
async function stall(): Promise<boolean> {
  const socket = connect((server.address() as AddressInfo).port, '127.0.0.1');
  sockets.push(socket);
  socket.on('error', () => {});
  socket.write('GET / HTTP/1.1\r\nhost: x\r\n');
  const [taken] = (await once(server, 'connection')) as [Socket];
  return !taken.destroyed;
}

test('one address holds so many connections at once; one that ends makes room', async () => {
  await listen();
  for (let n = 0; n < LIMITS.connectionsPerClient.most; n += 1) expect(await stall()).toBe(true);
  expect(await stall()).toBe(false);
  const first = sockets.shift()!;
  first.destroy();
  while (!(await stall()));
});

test.each([[null], [undefined], ['gone']])(
  'an answer of %j that comes before the body has arrived is had',
  async (body) => {
    const status = body ? 200 : 204;
    server = createHttpServer((_request, response) => response.writeHead(status).end(body), compileTrust([]));
    await once(server.listen(0, '127.0.0.1'), 'listening');
    const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    const answer = await fetch(address, { method: 'DELETE', body: 'x'.repeat(200_000) });
    expect([answer.status, await answer.text()]).toEqual([status, body ?? '']);
  },
);

test('a trusted proxy stands for many', async () => {
  await listen('127.0.0.1');
  for (let n = 0; n <= LIMITS.connectionsPerClient.most; n += 1) expect(await stall()).toBe(true);
});
