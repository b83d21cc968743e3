import { request as requestPlain, type IncomingMessage, type RequestOptions } from 'node:http';
import { request as requestSecure } from 'node:https';
import { Inject, Injectable } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import type { Config } from '../config';
import { DomainNames } from '../domain-names';
import { CONFIG } from '../tokens';
import { allowedAddress } from './allowed-address';

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
export class Outgoing {
  readonly #allowed: readonly string[];

  constructor(
    @Inject(CONFIG) { privateTargets }: Pick<Config, 'privateTargets'>,
    @Inject(DomainNames) private readonly names: DomainNames,
  ) {
    this.#allowed = privateTargets;
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
    const options: RequestOptions = {
      method: 'POST',
      signal,
      // A connection of its own, to the address that was found allowed.
      agent: false,
      lookup: (_, { all }, found) => (all ? found(null, [pinned]) : found(null, pinned.address, pinned.family)),
      headers: { ...headers, 'content-length': Buffer.byteLength(body), 'user-agent': 'Hay Cart' },
    };
    try {
      return await answered(url, options, body);
    } catch (cause) {
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
    request.on('error', reject);
    request.end(body);
  });
}

/** Reads as much of an answer as is kept, and ends the connection. */
async function beginningOf(response: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of response as AsyncIterable<Buffer>) {
    chunks.push(chunk);
    bytes += chunk.length;
    if (bytes >= LIMITS.outgoingAnswerBytes.most) break;
  }
  response.destroy();
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
