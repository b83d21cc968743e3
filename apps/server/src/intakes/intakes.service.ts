import { randomBytes } from 'node:crypto';
import { Inject, Injectable, Logger } from '@nestjs/common';
import { intakeKind, jsonPointer, LIMITS, type FormDefinition, type IntakeSource } from '@haycart/core';
import type { IntakeShape } from '@haycart/api';
import { and, asc, eq, ne, sql, type SQL } from 'drizzle-orm';
import { SecretBox } from '../platform/auth/secret-box';
import { newId } from '../platform/new-id';
import type { WorkspaceTx } from '../platform/database/database';
import { databaseFailure } from '../platform/database/failure';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { hostedForm, intake } from './tables';

/** Columns of an intake, and of a form where it is one. */
type Changes<Table extends typeof intake | typeof hostedForm> = {
  [Name in keyof Table['$inferSelect']]?: Table['$inferSelect'][Name] | SQL;
};

/** What people set of any intake, and of a form alone. */
type IntakeChange = Partial<Pick<typeof intake.$inferSelect, 'name' | 'state' | 'perMinute' | 'archived' | 'source'>>;
type FormChange = Partial<Pick<typeof hostedForm.$inferSelect, 'closedMessage' | 'forColleagues'>>;

/** A new intake. Only the demo gives its own keys; all others get one that cannot be guessed. */
export interface NewIntake {
  key?: string;
  kind: string;
  name: string;
  /** What its kind asks; nothing when not said. */
  settings?: Record<string, unknown>;
  /** What a form begins with. */
  form?: { slug: string; draft: FormDefinition; copiedFrom?: string | undefined };
}

/** Where submissions arrive. */
@Injectable()
export class IntakesService {
  readonly #log = new Logger('security');

  constructor(
    @Inject(Events) private readonly events: Events,
    @Inject(SecretBox) private readonly box: SecretBox,
  ) {}

  all(tx: WorkspaceTx): Promise<IntakeShape[]> {
    return this.#read(tx, eq(intake.workspaceId, tx.workspaceId));
  }

  async one(tx: WorkspaceTx, idOrKey: string): Promise<IntakeShape> {
    const found = (await this.all(tx)).find(({ id, key }) => id === idOrKey || key === idOrKey);
    if (!found) throw new ProblemError('not-found', `There is no intake ${idOrKey.slice(0, 60)}.`);
    return found;
  }

  /** What intakes say about where their submissions come from, by their keys. */
  async sources(tx: WorkspaceTx): Promise<Record<string, IntakeSource>> {
    const rows = await tx.db
      .select({ key: intake.key, source: intake.source })
      .from(intake)
      .where(and(eq(intake.workspaceId, tx.workspaceId), ne(intake.source, {})));
    return Object.fromEntries(rows.map(({ key, source }) => [key, source]));
  }

  async add(tx: WorkspaceTx, made: NewIntake): Promise<IntakeShape> {
    const key = made.key ?? newKey();
    const settings = intakeKind(made.kind).settings.safeParse(made.settings ?? {});
    if (!settings.success)
      throw new ProblemError(
        'refused',
        'The settings of the intake do not fit its kind.',
        settings.error.issues.map(({ path, message }) => ({
          at: jsonPointer(['settings', ...path.map(String)]),
          code: 'setting',
          message: `${message}.`,
        })),
      );
    const { workspaceId } = tx;
    const id = newId();
    const { kind, name, form } = made;
    try {
      const state = form ? ('draft' as const) : ('live' as const);
      await tx.db.insert(intake).values({ workspaceId, id, key, kind, name, settings: settings.data, state });
      if (form) await tx.db.insert(hostedForm).values({ workspaceId, intakeId: id, ...form });
      return await this.#changed(tx, id);
    } catch (cause) {
      if (databaseFailure(cause) === 'refused')
        throw new ProblemError(
          'conflict',
          `There is an intake “${made.name}” already, or its address is taken. Choose another name.`,
        );
      throw cause;
    }
  }

  async change(
    tx: WorkspaceTx,
    idOrKey: string,
    { closedMessage, forColleagues, ...change }: IntakeChange & FormChange,
  ): Promise<IntakeShape> {
    const { id, state } = await this.one(tx, idOrKey);
    if (change.state && state === 'draft')
      throw new ProblemError('conflict', 'The form was never published, so there is nothing to open or close.');
    const ofForm = {
      ...(closedMessage !== undefined && { closedMessage }),
      ...(forColleagues !== undefined && { forColleagues }),
    };
    if (Object.keys(ofForm).length) await this.#setForm(tx, id, ofForm);
    if (Object.keys(change).length) await this.#set(tx, id, change);
    return this.#changed(tx, id);
  }

  /**
   * Has posts signed with a new secret, which is returned this once, or with none. The secret before holds for a day more, so
   * that the sender can be changed in peace.
   */
  async sign(tx: WorkspaceTx, idOrKey: string, signed: boolean): Promise<string | null> {
    const { id } = await this.one(tx, idOrKey);
    const secret = signed ? `whsec_${randomBytes(24).toString('base64')}` : null;
    await this.#set(tx, id, {
      secret: secret && this.box.seal(secret, `intake ${id}`),
      oldSecret: signed ? sql`secret` : null,
      oldSecretUntil: signed
        ? sql`case when secret is null then null else now() + make_interval(hours => ${LIMITS.secretOverlap.most}) end`
        : null,
    });
    await this.events.tell(tx, 'intakes');
    this.#log.log({ intake: id, signed }, 'The signing secret of an intake was changed.');
    return secret;
  }

  /** Keeps what its routes take the answers of an intake for. */
  async callAnswers(tx: WorkspaceTx, key: string, called: Record<string, string>): Promise<void> {
    await tx.db
      .update(intake)
      .set({ called })
      .where(and(eq(intake.workspaceId, tx.workspaceId), eq(intake.key, key)));
  }

  async #set(tx: WorkspaceTx, id: string, change: Changes<typeof intake>): Promise<void> {
    await tx.db
      .update(intake)
      .set(change)
      .where(and(eq(intake.workspaceId, tx.workspaceId), eq(intake.id, id)));
  }

  async #setForm(tx: WorkspaceTx, id: string, change: Changes<typeof hostedForm>): Promise<void> {
    const changed = await tx.db
      .update(hostedForm)
      .set(change)
      .where(and(eq(hostedForm.workspaceId, tx.workspaceId), eq(hostedForm.intakeId, id)))
      .returning({ id: hostedForm.intakeId });
    if (!changed.length)
      throw new ProblemError('refused', 'Only a form is for colleagues alone, or says something while it is closed.');
  }

  /** Tells that an intake changed, and reads it. */
  async #changed(tx: WorkspaceTx, id: string): Promise<IntakeShape> {
    await this.events.tell(tx, 'intakes');
    const [read] = await this.#read(tx, and(eq(intake.workspaceId, tx.workspaceId), eq(intake.id, id)));
    return read!;
  }

  async #read(tx: WorkspaceTx, where: SQL | undefined): Promise<IntakeShape[]> {
    const rows = await tx.db
      .select()
      .from(intake)
      .leftJoin(hostedForm, and(eq(hostedForm.workspaceId, intake.workspaceId), eq(hostedForm.intakeId, intake.id)))
      .where(where)
      .orderBy(asc(intake.createdAt), asc(intake.id));
    return rows.map(({ intake: row, form }) => shape(row, form));
  }
}

/** 22 random characters: 132 bits of the base64url alphabet. */
function newKey(): string {
  return randomBytes(17).toString('base64url').slice(0, 22);
}

function shape(row: typeof intake.$inferSelect, form: typeof hostedForm.$inferSelect | null): IntakeShape {
  const { id, key, kind, name, state, secret, perMinute, settings, archived, source } = row;
  const trial = form?.trial;
  const slug = form?.slug ?? null;
  return {
    id,
    key,
    kind,
    name,
    state,
    slug,
    signed: secret !== null,
    perMinute,
    settings,
    address: intakeKind(kind).address({ key, slug }),
    form: form?.form ?? null,
    version: form?.version ?? 0,
    archived,
    forColleagues: form?.forColleagues ?? false,
    trial: trial ? { version: trial.version, share: trial.share, since: trial.since } : null,
    closedMessage: form?.closedMessage ?? null,
    source,
  };
}
