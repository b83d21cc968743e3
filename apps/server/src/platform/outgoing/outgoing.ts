import { request as requestPlain, type IncomingMessage, type RequestOptions } from 'node:http';
import { request as requestSecure } from 'node:https';
import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import type { Config } from '../config';
import { DomainNames } from '../domain-names';
import { CONFIG } from '../tokens';
import { allowedAddress } from './allowed-address';
import { KeptConnections } from './kept-connections';

/** What an address answered. */
export interface OutgoingAnswer {
  status: number;
  /** The beginning of what it said. */
  text: string;
  /** The seconds after which it wants to be asked again, if it said so. */
  retryAfter: number | null;
  /** Where a redirect leads, which is never followed. */
  location: string | null;
}

/** The one way to send anything outside: bounded in time and size, never inside a network, never by a redirect. */
@Injectable()
export class Outgoing implements OnModuleDestroy {
  readonly #allowed: readonly string[];
  readonly #connections = new KeptConnections();

  constructor(
    @Inject(CONFIG) { privateTargets }: Pick<Config, 'privateTargets'>,
    @Inject(DomainNames) private readonly names: DomainNames,
  ) {
    this.#allowed = privateTargets;
  }

  onModuleDestroy(): void {
    this.#connections.close();
  }

  /** @throws Error that says in a sentence why nothing was answered. */
  async post(
    to: string,
    body: string,
    headers: Record<string, string>,
    stopping: AbortSignal,
  ): Promise<OutgoingAnswer> {
    const url = new URL(to);
    const signal = AbortSignal.any([stopping, AbortSignal.timeout(LIMITS.outgoingAnswer.most * 1_000)]);
    const pinned = await allowedAddress(url.hostname, this.#allowed, this.names);
    const secure = url.protocol === 'https:';
    const options: RequestOptions = {
      method: 'POST',
      signal,
      // A connection to the address that was found allowed, kept open for what is sent there next.
      agent: this.#connections.to(`${url.origin} ${pinned.address}`, secure),
      lookup: (_, { all }, found) => (all ? found(null, [pinned]) : found(null, pinned.address, pinned.family)),
      headers: { ...headers, 'content-length': Buffer.byteLength(body), 'user-agent': 'Hay Cart' },
    };
    try {
      return await answered(url, options, body);
    } catch (cause) {
      if (cause instanceof ClosedMeanwhile)
        // The other side had most likely closed the connection by then; where it took it, the key tells that it is the same.
        return await answered(url, { ...options, agent: false }, body).catch((again: unknown) => {
          throw new Error(inWords(again as NodeJS.ErrnoException, url, signal), { cause: again });
        });
      throw new Error(inWords(cause as NodeJS.ErrnoException, url, signal), { cause });
    }
  }
}

function answered(url: URL, options: RequestOptions, body: string): Promise<OutgoingAnswer> {
  return new Promise((resolve, reject) => {
    const request = (url.protocol === 'https:' ? requestSecure : requestPlain)(url, options, (response) => {
      beginningOf(response).then((text) => {
        const { 'retry-after': retryAfter, location } = response.headers;
        resolve({
          status: response.statusCode ?? 0,
          text,
          retryAfter: retryAfter && /^\d{1,9}$/.test(retryAfter) ? Number(retryAfter) : null,
          location: location ?? null,
        });
      }, reject);
    });
    request.on('error', (cause: NodeJS.ErrnoException) =>
      reject(request.reusedSocket && cause.code === 'ECONNRESET' ? new ClosedMeanwhile('', { cause }) : cause),
    );
    request.end(body);
  });
}

/** A connection that was kept open had ended when it was used. */
class ClosedMeanwhile extends Error {
  override name = 'ClosedMeanwhile';
}

/** Reads as much of an answer as is kept; the connection of one that goes on is ended. */
async function beginningOf(response: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of response as AsyncIterable<Buffer>) {
    chunks.push(chunk);
    bytes += chunk.length;
    // Leaving it ends the connection.
    if (bytes >= LIMITS.outgoingAnswerBytes.most) break;
  }
  return Buffer.concat(chunks).subarray(0, LIMITS.outgoingAnswerBytes.most).toString('utf8');
}

function inWords({ code, message }: NodeJS.ErrnoException, { host }: URL, signal: AbortSignal): string {
  if (signal.aborted) return `${host} did not answer within ${LIMITS.outgoingAnswer.most} seconds.`;
  switch (code) {
    case 'ECONNREFUSED':
      return `Nobody listens at ${host}.`;
    case 'ECONNRESET':
      return `${host} broke the connection off before it answered.`;
    case 'EHOSTUNREACH':
    case 'ENETUNREACH':
      return `${host} cannot be reached from here.`;
    default:
      return `${host} could not be reached: ${code ?? message}.`;
  }
}
