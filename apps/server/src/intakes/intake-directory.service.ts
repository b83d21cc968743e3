import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { intakeKind, type FormDefinition } from '@haycart/core';
import { SecretBox } from '../platform/auth/secret-box';
import { Database } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { ShortMemory } from '../platform/short-memory';
import type { Trial } from './tables';

/** An intake as its public address needs it. */
export interface PublicIntake {
  workspaceId: string;
  id: string;
  key: string;
  kind: string;
  name: string;
  state: 'draft' | 'live' | 'closed';
  slug: string | null;
  /** The published form. */
  form: FormDefinition | null;
  version: number;
  trial: Trial | null;
  forColleagues: boolean;
  closedMessage: string | null;
  /** With which posts must be signed; the new one first, while there are two. None: they need not be. */
  secrets: string[];
  perMinute: number | null;
}

interface Row extends Omit<PublicIntake, 'workspaceId' | 'perMinute' | 'closedMessage' | 'forColleagues' | 'secrets'> {
  secret: string | null;
  old_secret: string | null;
  old_secret_until: Date | null;
  workspace_id: string;
  per_minute: number | null;
  closed_message: string | null;
  for_colleagues: boolean;
}

/** Finds intakes by what stands in public addresses, with a short memory, so that accepting costs no look-up. */
@Injectable()
export class IntakeDirectory implements OnModuleInit {
  readonly #kept = new ShortMemory<PublicIntake | null>(5_000);

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
    @Inject(SecretBox) private readonly box: SecretBox,
  ) {}

  onModuleInit(): void {
    this.events.all.subscribe(({ topics }) => {
      if (topics.includes('intakes')) this.#kept.forgetAll();
    });
  }

  byKey(key: string): PublicIntake | null | Promise<PublicIntake | null> {
    const known = this.#kept.get(`key ${key}`);
    return known === undefined ? this.#find(`key ${key}`, key, null) : known;
  }

  bySlug(slug: string): PublicIntake | null | Promise<PublicIntake | null> {
    const known = this.#kept.get(`slug ${slug}`);
    return known === undefined ? this.#find(`slug ${slug}`, null, slug) : known;
  }

  #secretsOf({ id, secret, old_secret: old, old_secret_until: until }: Row): string[] {
    const kept = [secret, until && until > new Date() ? old : null].filter((one) => one !== null);
    return kept.map((one) => this.box.open(one, `intake ${id}`));
  }

  async #find(as: string, key: string | null, slug: string | null): Promise<PublicIntake | null> {
    const [row] = await this.database.gate<Row>('intake', key, slug);
    return this.#kept.keep(as, row && intakeKind(row.kind).takesPosts ? publicIntake(row, this.#secretsOf(row)) : null);
  }
}

function publicIntake(row: Row, secrets: string[]): PublicIntake {
  const { workspace_id, per_minute, closed_message, for_colleagues } = row;
  const { id, key, kind, name, state, slug, form, version, trial } = row;
  return {
    workspaceId: workspace_id,
    id,
    key,
    kind,
    name,
    state,
    slug,
    form,
    version,
    trial,
    forColleagues: for_colleagues,
    closedMessage: closed_message,
    secrets,
    perMinute: per_minute,
  };
}
