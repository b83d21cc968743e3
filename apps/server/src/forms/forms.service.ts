import { Inject, Injectable } from '@nestjs/common';
import {
  checkForm,
  exampleAnswers,
  followFields,
  formChanges,
  formShape,
  hasErrors,
  jsonPointer,
  newKey,
  routeFromForm,
  wishOfRoute,
  type FormDefinition,
  type FormRouteWish,
  type JsonObject,
} from '@haycart/core';
import type { FormShape, FormVersionShape, IntakeShape, ProblemAt } from '@haycart/api';
import { and, desc, eq } from 'drizzle-orm';
import { HostedForms, type Trial } from '../intakes/hosted-forms.service';
import { IntakesService } from '../intakes/intakes.service';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { RoutesService } from '../routes/routes.service';
import { DestinationService } from '../destination/destination.service';
import { FormTrials } from './form-trials.service';
import { formVersion } from './tables';

/** What goes with publishing a form. */
export interface Publishing {
  note?: string | null;
  /** Where what it brings goes, if its route is to be made. */
  route?: FormRouteWish | null;
  /** How many of the visitors see it, 0 to 1, while the others go on with the version before; absent: all. */
  share?: number | undefined;
}

/** Forms as they are built: a draft that is saved as one goes, and numbered versions that visitors see. */
@Injectable()
export class FormsService {
  constructor(
    @Inject(IntakesService) private readonly intakes: IntakesService,
    @Inject(HostedForms) private readonly hosted: HostedForms,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(FormTrials) private readonly trials: FormTrials,
  ) {}

  async all(tx: WorkspaceTx): Promise<IntakeShape[]> {
    return (await this.intakes.all(tx)).filter(({ kind }) => kind === 'form');
  }

  async one(tx: WorkspaceTx, idOrKey: string): Promise<FormShape> {
    const { intake, draft, revision, copiedFrom } = await this.hosted.draft(tx, idOrKey);
    return {
      intake,
      draft,
      revision,
      problems: checkForm(draft, await this.destinations.load(tx)),
      changes: intake.form ? formChanges(intake.form, draft) : [],
      versions: await this.#versions(tx, intake.id),
      wish: copiedFrom ? await this.#wishOf(tx, copiedFrom) : null,
    };
  }

  /** Made-up answers to what visitors of a form see, or to its draft; `null` for an intake that is no form. */
  async example(tx: WorkspaceTx, idOrKey: string): Promise<{ payload: JsonObject | null }> {
    const { id, kind, form } = await this.intakes.one(tx, idOrKey);
    if (kind !== 'form') return { payload: null };
    const asked = form ?? (await this.hosted.draft(tx, id)).draft;
    return { payload: exampleAnswers(followFields(asked, (await this.destinations.load(tx)).fields)) };
  }

  /** A new form, empty but for a question, or a copy of another. Its address is made from its name. */
  async add(
    tx: WorkspaceTx,
    name: string,
    draft: FormDefinition,
    { key, slug, copiedFrom }: { key?: string; slug?: string; copiedFrom?: string } = {},
  ): Promise<IntakeShape> {
    return this.intakes.add(tx, {
      ...(key === undefined ? {} : { key }),
      kind: 'form',
      name,
      form: { draft, slug: slug ?? (await this.#freeSlug(name)), copiedFrom },
    });
  }

  async copy(tx: WorkspaceTx, idOrKey: string, name: string): Promise<IntakeShape> {
    const { intake, draft } = await this.hosted.draft(tx, idOrKey);
    return this.add(tx, name, draft, { copiedFrom: intake.id });
  }

  /** Keeps the draft. Whoever changes one that somebody else changed meanwhile is told. */
  async saveDraft(tx: WorkspaceTx, idOrKey: string, form: unknown, revision: number): Promise<FormShape> {
    const held = await this.hosted.draft(tx, idOrKey);
    if (held.revision !== revision)
      throw new ProblemError(
        'conflict',
        'Somebody else changed this form meanwhile. Open it again to see what they did; nothing of theirs was overwritten.',
      );
    await this.hosted.saveDraft(tx, held, readForm(form));
    return this.one(tx, idOrKey);
  }

  /** Makes the draft what visitors see, with the next number; on wish with the route that follows from it. */
  async publish(
    tx: WorkspaceTx,
    idOrKey: string,
    by: string,
    { note = null, route, share }: Publishing,
  ): Promise<{ version: number; route: string | null }> {
    const { intake, draft } = await this.hosted.draft(tx, idOrKey);
    const destination = await this.destinations.load(tx);
    const problems = checkForm(draft, destination);
    if (hasErrors(problems))
      throw new ProblemError(
        'refused',
        'The form cannot be published yet.',
        problemsAt(problems.filter(({ severity }) => severity === 'error')),
      );
    const trial = share === undefined ? null : await this.trials.against(tx, intake, share);
    const version = await this.#publish(tx, intake, draft, by, note, trial);
    if (!route) return { version, route: null };
    const made = await this.routes.add(tx, routeFromForm(intake, draft, destination, route));
    await this.routes.publish(tx, made.id, by, `Follows from the form ${intake.name}.`);
    return { version, route: made.id };
  }

  /** Ends a trial with one of its versions for everybody: the earlier one is published again, with the next number. */
  async endTrial(tx: WorkspaceTx, idOrKey: string, keep: number, by: string): Promise<{ version: number }> {
    const { intake } = await this.hosted.draft(tx, idOrKey);
    const trial = await this.hosted.trial(tx, intake.id);
    if (!trial) throw new ProblemError('conflict', 'No two versions of the form share its visitors any more.');
    if (keep === intake.version) {
      await this.hosted.endTrial(tx, intake.id);
      return { version: keep };
    }
    if (keep !== trial.version)
      throw new ProblemError('refused', `The trial is between the versions ${trial.version} and ${intake.version}.`);
    const note = `Version ${keep} again, after it shared the visitors with version ${intake.version}.`;
    return { version: await this.#publish(tx, intake, trial.form, by, note, null) };
  }

  /** Takes an earlier version up again as the draft. */
  async restore(tx: WorkspaceTx, idOrKey: string, version: number): Promise<FormShape> {
    const held = await this.hosted.draft(tx, idOrKey);
    const [row] = await tx.db
      .select()
      .from(formVersion)
      .where(and(this.#of(tx, held.intake.id), eq(formVersion.version, version)));
    if (!row) throw new ProblemError('not-found', `The form has no version ${version}.`);
    await this.hosted.saveDraft(tx, held, row.form);
    return this.one(tx, idOrKey);
  }

  async #publish(
    tx: WorkspaceTx,
    intake: IntakeShape,
    form: FormDefinition,
    by: string,
    note: string | null,
    trial: Trial | null,
  ): Promise<number> {
    const version = intake.version + 1;
    await tx.db
      .insert(formVersion)
      .values({ workspaceId: tx.workspaceId, intakeId: intake.id, version, form, note, publishedBy: by });
    await this.hosted.publish(tx, intake.id, { form, version, trial });
    return version;
  }

  /** What the route that takes from a form would have to be wished for; null where none does. */
  async #wishOf(tx: WorkspaceTx, intakeId: string): Promise<FormRouteWish | null> {
    const { key } = await this.intakes.one(tx, intakeId);
    const routes = (await this.routes.definitions(tx)).map(({ published, draft }) => published ?? draft);
    const taking = routes.find((route) => route?.from.includes(key));
    return taking ? wishOfRoute(taking) : null;
  }

  #of(tx: WorkspaceTx, intakeId: string) {
    return and(eq(formVersion.workspaceId, tx.workspaceId), eq(formVersion.intakeId, intakeId));
  }

  async #versions(tx: WorkspaceTx, intakeId: string): Promise<FormVersionShape[]> {
    const rows = await tx.db
      .select()
      .from(formVersion)
      .where(this.#of(tx, intakeId))
      .orderBy(desc(formVersion.version))
      .limit(100);
    return rows.map(({ version, publishedAt, publishedBy, note }) => ({
      version,
      publishedAt: publishedAt.toISOString(),
      publishedBy,
      note,
    }));
  }

  async #freeSlug(name: string): Promise<string> {
    const taken: string[] = [];
    for (;;) {
      const slug = newKey(name, taken);
      if (await this.hosted.isFree(slug)) return slug;
      taken.push(slug);
    }
  }
}

/** Reads a form: every unknown property and every wrong value is an error with its place. */
export function readForm(form: unknown): FormDefinition {
  const read = formShape.safeParse(form);
  if (read.success) return read.data;
  const errors = read.error.issues.map(({ path, code, message }): ProblemAt => ({
    at: jsonPointer(path as (string | number)[]),
    code: code === 'unrecognized_keys' ? 'unknown-property' : 'wrong-shape',
    message,
  }));
  const [first] = errors;
  throw new ProblemError('refused', `The form does not fit its format: ${first!.at} ${first!.message}.`, errors);
}
