import { Inject, Injectable, Logger, type OnModuleInit } from '@nestjs/common';
import { pathOnOwnDomain } from '@haycart/core';
import { BeforeFramework } from '../platform/before-framework';
import { Database } from '../platform/database/database';
import { Events } from '../platform/events/events';

/** Where a request leads that nothing answers. */
const NOWHERE = '/forms/nowhere';

/** Which host names are domains of companies' own. They are few and asked for with every request, so all are kept. */
@Injectable()
export class FormHosts implements OnModuleInit {
  #workspaces = new Map<string, string>();
  readonly #log = new Logger('form-hosts');

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
    @Inject(BeforeFramework) private readonly before: BeforeFramework,
  ) {}

  async onModuleInit(): Promise<void> {
    this.before.rewriteBy((url, host) => this.addressFor(url, host));
    this.events.all.subscribe(({ topics }) => {
      if (topics.includes('form-domains')) void this.#readAgain();
    });
    await this.read();
  }

  async read(): Promise<void> {
    const rows = await this.database.gate<{ host: string; workspace_id: string }>('form_domains');
    this.#workspaces = new Map(rows.map(({ host, workspace_id: workspaceId }) => [host, workspaceId]));
  }

  /** Whose domain a `Host` header names; `undefined` for the application's own. */
  workspaceOf(host: string | undefined): string | undefined {
    return host && this.#workspaces.size ? this.#workspaces.get(nameIn(host)) : undefined;
  }

  /** What a request asks of this server: on an own domain there are forms, and nothing of the application. */
  addressFor(url: string, host: string | undefined): string {
    return this.workspaceOf(host) === undefined ? url : (pathOnOwnDomain(url) ?? NOWHERE);
  }

  async #readAgain(): Promise<void> {
    try {
      await this.read();
    } catch (err) {
      this.#log.warn({ err }, 'The own domains could not be read; those known before are kept.');
    }
  }
}

/** The name in a `Host` header: without the port, in small letters. */
function nameIn(host: string): string {
  return host.replace(/:\d+$/, '').replace(/\.$/, '').toLowerCase();
}
