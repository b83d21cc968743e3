import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { followFields, type Blocked, type FormDefinition, type Theme } from '@haycart/core';
import type { PublicIntake } from '../intakes/intake-directory.service';
import { Database } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { DestinationService } from '../workspaces/destination.service';
import { WorkspacesService } from '../workspaces/workspaces.service';
import { ThemesService } from './themes.service';

/** An intake that is a published form. */
export type PublicForm = PublicIntake & { form: FormDefinition };

/** A form with what it follows: the words and options of its fields, and its theme. */
export interface DressedForm {
  form: FormDefinition;
  theme: Theme | null;
  blocked: Blocked;
}

export function isPublicForm(intake: PublicIntake): intake is PublicForm {
  return intake.form !== null;
}

const KEEP_MS = 5_000;
const MOST_KEPT = 1_000;

/** Published forms as visitors get them, with a short memory, since many look at the same. */
@Injectable()
export class PublicForms implements OnModuleInit {
  readonly #kept = new Map<string, { dressed: DressedForm; until: number }>();

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(ThemesService) private readonly themes: ThemesService,
    @Inject(WorkspacesService) private readonly workspaces: WorkspacesService,
  ) {}

  onModuleInit(): void {
    this.events.all.subscribe(({ topics }) => {
      if (topics.includes('intakes') || topics.includes('fields')) this.#kept.clear();
    });
  }

  async dressed({ id, version, workspaceId, form }: PublicForm): Promise<DressedForm> {
    const key = `${id} ${version}`;
    const kept = this.#kept.get(key);
    if (kept && kept.until > Date.now()) return kept.dressed;
    const dressed = await this.database.inWorkspace(workspaceId, async (tx) => ({
      form: followFields(form, (await this.destinations.load(tx)).fields),
      theme: await this.themes.look(tx, form.theme),
      blocked: await this.workspaces.blocked(tx),
    }));
    if (this.#kept.size >= MOST_KEPT) this.#kept.clear();
    this.#kept.set(key, { dressed, until: Date.now() + KEEP_MS });
    return dressed;
  }
}
