import { TextDecoder, TextEncoder } from 'node:util';

/** As much of a request as the router asks of it. */
class Request {
  constructor(url, { method = 'GET', signal } = {}) {
    Object.assign(this, { url, method, signal });
  }
}

/** What every browser has and jsdom leaves out. */
Object.assign(globalThis, { TextDecoder, TextEncoder, Request });
