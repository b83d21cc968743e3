import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { followFields, type Blocked, type FormDefinition, type Theme } from '@haycart/core';
import type { PublicIntake } from '../intakes/intake-directory.service';
import { Database } from '../platform/database/database';
import { Events } from '../platform/events/events';
import { ShortMemory } from '../platform/short-memory';
import { DestinationService } from '../destination/destination.service';
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

/** Published forms as visitors get them, with a short memory, since many look at the same. */
@Injectable()
export class PublicForms implements OnModuleInit {
  readonly #dressed = new ShortMemory<DressedForm>(1_000);

  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Events) private readonly events: Events,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(ThemesService) private readonly themes: ThemesService,
    @Inject(WorkspacesService) private readonly workspaces: WorkspacesService,
  ) {}

  onModuleInit(): void {
    this.events.all.subscribe(({ topics }) => {
      if (topics.includes('intakes') || topics.includes('fields')) this.#dressed.forgetAll();
    });
  }

  async dressed({ id, version, workspaceId, form }: PublicForm): Promise<DressedForm> {
    const key = `${id} ${version}`;
    const known = this.#dressed.get(key);
    if (known) return known;
    const dressed = await this.database.inWorkspace(workspaceId, async (tx) => ({
      form: followFields(form, (await this.destinations.load(tx)).fields),
      theme: await this.themes.look(tx, form.theme),
      blocked: await this.workspaces.blocked(tx),
    }));
    return this.#dressed.keep(key, dressed);
  }
}
