import type { IncomingMessage } from 'node:http';
import { Inject, Injectable } from '@nestjs/common';
import { clientAddress, compileTrust, type Trust } from './client-address';
import type { Config } from './config';
import { CONFIG } from './tokens';

type Request = Pick<IncomingMessage, 'headers'>;

/** What the server is called from outside: who asks, by which name, and over which way. One place for all of it. */
@Injectable()
export class Doors {
  readonly #trust: Trust;
  readonly #host: string | null;
  /** Whether people come over TLS, so that cookies are for that alone. */
  readonly secure: boolean;

  constructor(@Inject(CONFIG) private readonly config: Pick<Config, 'trustedProxies' | 'publicUrl' | 'host'>) {
    this.#trust = compileTrust(config.trustedProxies);
    this.#host = config.publicUrl ? new URL(config.publicUrl).host : null;
    this.secure = config.publicUrl?.startsWith('https:') ?? false;
  }

  /** Which hops are believed, for the framework. */
  get trust(): Trust {
    return this.#trust;
  }

  addressOf(request: IncomingMessage): string {
    return clientAddress(request, this.#trust);
  }

  /**
   * Whether the application answers under the name that a request asks for: its public one, an address, or this machine. A
   * page elsewhere whose name is made to lead here could else act as whoever is signed in (DNS rebinding).
   */
  answersTo(host: string | undefined): boolean {
    if (!host) return true;
    const name = host.replace(/:\d+$/, '').toLowerCase();
    if (host.toLowerCase() === this.#host || name === this.config.host) return true;
    return /^(localhost|[a-z0-9-]+\.localhost|\d{1,3}(\.\d{1,3}){3}|\[[0-9a-f:.]+\])$/.test(name);
  }

  /** Whether a request that changes something comes from a page of another site. */
  isFromElsewhere({ headers: { origin, host } }: Request): boolean {
    if (!origin) return false;
    if (origin === this.config.publicUrl) return false;
    return !URL.canParse(origin) || new URL(origin).host !== host;
  }
}

/** Whether an address is of the API or the application; forms, intakes and the pages behind links answer under every name, and to every site. */
export function isOfApplication(url: string): boolean {
  return !/^\/(in|f|forms|embed|entry|ask|consent|healthz|readyz)(\/|\?|$)/.test(url);
}
