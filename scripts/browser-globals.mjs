import { TextDecoder, TextEncoder } from 'node:util';

/** What every browser has and jsdom leaves out. */
Object.assign(globalThis, { TextDecoder, TextEncoder });
