import { createServer, type IncomingMessage, type RequestListener, type Server, type ServerResponse } from 'node:http';
import type { Socket } from 'node:net';
import { LIMITS } from '@haycart/core';
import type { Trust } from './client-address';
import { ProblemError } from './errors/problem-error';

/**
 * Returns a server that bounds what slow senders may hold, and that lets whoever still sends read an early answer: a
 * connection closed at once would be reset, and the answer lost with it.
 */
export function createHttpServer(listener: RequestListener, trust: Trust): Server {
  const server = createServer(
    {
      headersTimeout: LIMITS.requestHeaders.most * 1_000,
      requestTimeout: LIMITS.request.most * 1_000,
      keepAliveTimeout: LIMITS.idleConnection.most * 1_000,
      maxHeaderSize: LIMITS.headers.most,
      connectionsCheckingInterval: 2_000,
    },
    (request, response) => {
      if ((request.url?.length ?? 0) > LIMITS.address.most) return refuseAddress(response);
      endAfterRequest(request, response);
      listener(request, response);
    },
  );
  server.maxConnections = LIMITS.connections.most;
  limitByClient(server, trust);
  return server;
}

/** Closes what one address opens beyond its share, whatever it sends or holds back; proxies stand for many. */
function limitByClient(server: Server, trust: Trust): void {
  const open = new Map<string, number>();
  server.on('connection', (socket: Socket) => {
    const from = socket.remoteAddress;
    if (from === undefined || trust(from, 0)) return;
    const count = (open.get(from) ?? 0) + 1;
    if (count > LIMITS.connectionsPerClient.most) return void socket.destroy();
    open.set(from, count);
    socket.once('close', () => {
      const left = open.get(from)! - 1;
      if (left) open.set(from, left);
      else open.delete(from);
    });
  });
}

function refuseAddress(response: ServerResponse): void {
  const problem = new ProblemError('address-too-long', `The address has more than ${LIMITS.address.most} characters.`);
  response.writeHead(problem.status, { 'content-type': 'application/problem+json', connection: 'close' });
  response.end(JSON.stringify(problem.body()));
}

/**
 * Ends an answer that comes before its request has arrived only when that has: what still comes is read and thrown away,
 * for a while. Node would close the connection at once, and the sender lose the answer.
 */
function endAfterRequest(request: IncomingMessage, response: ServerResponse): void {
  const end = response.end.bind(response) as (...given: unknown[]) => ServerResponse;
  response.end = ((...given: unknown[]) => {
    if (request.complete || request.destroyed) return end(...given);
    const [body] = given;
    if (typeof body === 'string' || body instanceof Uint8Array) response.write(body, () => {});
    else response.flushHeaders();
    let left = LIMITS.readAfterAnswer.most;
    const done = () => {
      clearTimeout(timer);
      request.off('data', count);
      end();
    };
    const count = (chunk: Buffer) => {
      left -= chunk.length;
      if (left < 0) done();
    };
    const timer = setTimeout(done, LIMITS.lingering.most * 1_000);
    request.on('data', count);
    request.once('end', done);
    request.once('close', done);
    request.resume();
    return response;
  }) as typeof response.end;
}
