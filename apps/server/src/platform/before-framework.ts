import type { IncomingMessage, ServerResponse } from 'node:http';
import { Injectable } from '@nestjs/common';

/** Answers some requests straight from Node’s HTTP server. */
export interface EarlyHandler {
  /** Whether a request is for this handler. */
  takes(request: IncomingMessage): boolean;
  /** Answers it, also when it fails. */
  handle(request: IncomingMessage, response: ServerResponse): Promise<void>;
}

/** Returns the address that a request is answered by, where a host shows something else than others do. */
export type AddressFor = (url: string, host: string | undefined) => string;

/** What areas do with a request before the framework sees it. */
@Injectable()
export class BeforeFramework {
  readonly #handlers: EarlyHandler[] = [];
  #addressFor: AddressFor = (url) => url;

  add(handler: EarlyHandler): void {
    this.#handlers.push(handler);
  }

  rewriteBy(addressFor: AddressFor): void {
    this.#addressFor = addressFor;
  }

  handlerOf(request: IncomingMessage): EarlyHandler | undefined {
    return this.#handlers.find((handler) => handler.takes(request));
  }

  addressFor(url: string, host: string | undefined): string {
    return this.#addressFor(url, host);
  }
}
