import { lookup, Resolver } from 'node:dns/promises';
import { Inject, Injectable } from '@nestjs/common';
import type { Config } from './config';
import { ProblemError } from './errors/problem-error';
import { CONFIG } from './tokens';

/** Asks the domain name system: this machine's own servers, or the one that the configuration names. */
@Injectable()
export class DomainNames {
  /** Whether the configuration names a server. */
  readonly #named: boolean;
  readonly #resolver = new Resolver({ timeout: 3_000, tries: 2 });

  constructor(@Inject(CONFIG) { nameServer }: Config) {
    this.#named = nameServer !== null;
    if (nameServer) this.#resolver.setServers([nameServer]);
  }

  /** The texts (TXT records) at a name; none when there are none. @throws ProblemError 503 when nobody answers. */
  async texts(name: string): Promise<string[]> {
    const found = await this.#ask(() => this.#resolver.resolveTxt(name));
    return found.map((pieces) => pieces.join(''));
  }

  /** Whether a name leads to any machine. @throws ProblemError 503 when nobody answers. */
  async leadsSomewhere(name: string): Promise<boolean> {
    return (await this.#resolved(name)).length > 0;
  }

  /** The addresses that a name leads to, by this machine’s own reading where no server is named. @throws ProblemError 503 */
  async addresses(name: string): Promise<string[]> {
    return this.#named
      ? this.#resolved(name)
      : this.#ask(async () => (await lookup(name, { all: true })).map(({ address }) => address));
  }

  async #resolved(name: string): Promise<string[]> {
    const found = await Promise.all([
      this.#ask(() => this.#resolver.resolve4(name)),
      this.#ask(() => this.#resolver.resolve6(name)),
    ]);
    return found.flat();
  }

  async #ask<Answer>(ask: () => Promise<Answer[]>): Promise<Answer[]> {
    try {
      return await ask();
    } catch (cause) {
      const { code } = cause as NodeJS.ErrnoException;
      if (code === 'ENOTFOUND' || code === 'ENODATA') return [];
      throw new ProblemError('not-available', `The domain name servers do not answer (${code}). Try again later.`);
    }
  }
}
