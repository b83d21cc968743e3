import { randomBytes } from 'node:crypto';
import { Inject, Injectable, Logger } from '@nestjs/common';
import { LIMITS, type FormDefinition } from '@haycart/core';
import type { IntakeLine, IntakeShape } from '@haycart/api';
import { and, asc, eq, sql, type SQL } from 'drizzle-orm';
import { SecretBox } from '../platform/auth/secret-box';
import { newId } from '../platform/new-id';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { databaseFailure } from '../platform/database/failure';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { RunCounts } from '../runs/counts/run-counts.service';
import { ArrivalCounts } from '../submissions/counts/arrival-counts.service';
import { intake, type Trial } from './tables';

export type { Trial };

type Row = typeof intake.$inferSelect;
type IntakeChange = { [Name in keyof Row]?: Row[Name] | SQL };

/** A new intake. Only the demo gives its own keys; all others get one that cannot be guessed. */
export type NewIntake = { key?: string; name: string } & (
  { kind: 'endpoint' | 'sheet' } | { kind: 'form'; slug: string; draft: FormDefinition; copiedFrom?: string }
);

/** A form's draft that nobody else can change meanwhile. */
export interface HeldDraft {
  intake: IntakeShape;
  draft: FormDefinition;
  revision: number;
  /** The id of the form that it is a copy of. */
  copiedFrom: string | null;
}

/** Where submissions arrive. */
@Injectable()
export class IntakesService {
  readonly #log = new Logger('security');

  constructor(
    @Inject(Events) private readonly events: Events,
    @Inject(Database) private readonly database: Database,
    @Inject(SecretBox) private readonly box: SecretBox,
    @Inject(ArrivalCounts) private readonly arrivals: ArrivalCounts,
    @Inject(RunCounts) private readonly runs: RunCounts,
  ) {}

  async all(tx: WorkspaceTx): Promise<IntakeShape[]> {
    const rows = await tx.db
      .select()
      .from(intake)
      .where(eq(intake.workspaceId, tx.workspaceId))
      .orderBy(asc(intake.createdAt), asc(intake.id));
    return rows.map(shape);
  }

  async one(tx: WorkspaceTx, idOrKey: string): Promise<IntakeShape> {
    const found = (await this.all(tx)).find(({ id, key }) => id === idOrKey || key === idOrKey);
    if (!found) throw new ProblemError('not-found', `There is no intake ${idOrKey.slice(0, 60)}.`);
    return found;
  }

  async add(tx: WorkspaceTx, made: NewIntake): Promise<IntakeShape> {
    const key = made.key ?? newKey();
    const form =
      made.kind === 'form'
        ? {
            slug: made.slug,
            draft: made.draft,
            state: 'draft' as const,
            draftRevision: 1,
            copiedFrom: made.copiedFrom ?? null,
          }
        : {};
    try {
      const [row] = await tx.db
        .insert(intake)
        .values({ workspaceId: tx.workspaceId, id: newId(), key, kind: made.kind, name: made.name, ...form })
        .returning();
      await this.events.tell(tx, 'intakes');
      return shape(row!);
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
    change: Partial<Pick<Row, 'name' | 'state' | 'perMinute' | 'closedMessage' | 'archived' | 'forColleagues'>>,
  ): Promise<IntakeShape> {
    const { id, state } = await this.one(tx, idOrKey);
    if (change.state && state === 'draft')
      throw new ProblemError('conflict', 'The form was never published, so there is nothing to open or close.');
    return this.#set(tx, id, change);
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
    this.#log.log({ intake: id, signed }, 'The signing secret of an intake was changed.');
    return secret;
  }

  /** The draft of a form, with how often it was changed; held against others who change it, not against arrivals. */
  async draft(tx: WorkspaceTx, idOrKey: string): Promise<HeldDraft> {
    const { id } = await this.one(tx, idOrKey);
    const [row] = await tx.db.select().from(intake).where(eq(intake.id, id)).for('no key update');
    if (!row?.draft) throw new ProblemError('not-found', 'This intake is no form.');
    return { intake: shape(row), draft: row.draft, revision: row.draftRevision, copiedFrom: row.copiedFrom };
  }

  /** Keeps a draft. It must have been held before. */
  async saveDraft(tx: WorkspaceTx, { intake: { id }, revision }: HeldDraft, draft: FormDefinition): Promise<number> {
    await this.#set(tx, id, { draft, draftRevision: revision + 1 });
    return revision + 1;
  }

  /** Keeps what its routes take the answers of an intake for. */
  async callAnswers(tx: WorkspaceTx, key: string, called: Record<string, string>): Promise<void> {
    await tx.db
      .update(intake)
      .set({ called })
      .where(and(eq(intake.workspaceId, tx.workspaceId), eq(intake.key, key)));
  }

  /** Makes a version of a form the one that visitors see, or that shares them with an earlier one. */
  publish(
    tx: WorkspaceTx,
    id: string,
    form: FormDefinition,
    version: number,
    trial: Trial | null = null,
  ): Promise<IntakeShape> {
    return this.#set(tx, id, { form, version, trial, state: 'live', archived: false });
  }

  /** The trial of a form that runs, if one does. */
  async trial(tx: WorkspaceTx, id: string): Promise<Trial | null> {
    const [row] = await tx.db.select({ trial: intake.trial }).from(intake).where(eq(intake.id, id));
    return row?.trial ?? null;
  }

  /** Ends a trial: everybody sees the published version. */
  endTrial(tx: WorkspaceTx, id: string): Promise<IntakeShape> {
    return this.#set(tx, id, { trial: null });
  }

  /** Whether a form can have this name in its public address; addresses are one over all workspaces. */
  async isFree(slug: string): Promise<boolean> {
    return (await this.database.gate('intake', null, slug)).length === 0;
  }

  async #set(tx: WorkspaceTx, id: string, change: IntakeChange): Promise<IntakeShape> {
    const [row] = await tx.db.update(intake).set(change).where(eq(intake.id, id)).returning();
    await this.events.tell(tx, 'intakes');
    return shape(row!);
  }

  /** Every intake with its month of arrivals, its routes and how it fares. */
  async lines(tx: WorkspaceTx): Promise<IntakeLine[]> {
    const intakes = await this.all(tx);
    const months = await this.arrivals.byDay(tx, 30);
    const totals = await this.arrivals.totals(tx);
    const last = await tx.statement<{ intake_id: string; at: Date }>(
      'intake_last',
      `select i.id as intake_id, s.received_at as at from intake i cross join lateral (select received_at from submission s
         where s.workspace_id = i.workspace_id and s.intake_id = i.id order by s.received_at desc, s.id desc limit 1) s where i.workspace_id = $1`,
      [tx.workspaceId],
    );
    const failed = (await this.runs.byIntake(tx)).filter(({ outcome }) => outcome === 'failed');
    const routes = await tx.statement<{ key: string; id: string; name: string; state: 'live' | 'paused' }>(
      'intake_routes',
      `select f.key, r.id, r.name, r.state from route r
       left join route_version v on v.workspace_id = r.workspace_id and v.route_id = r.id and v.version = r.version
       cross join lateral jsonb_array_elements_text(coalesce(v.definition, r.draft) -> 'from') f (key)
       where r.workspace_id = $1 order by r.created_at`,
      [tx.workspaceId],
    );
    const files = await tx.statement<{ intake_id: string; bytes: string }>(
      'intake_files',
      'select intake_id, bytes from file_usage where workspace_id = $1',
      [tx.workspaceId],
    );
    const taken = new Map(files.map(({ intake_id: id, bytes }) => [id, Number(bytes)]));
    const inAll = [...taken.values()].reduce((sum, bytes) => sum + bytes, 0) / LIMITS.workspaceFiles.most;
    return intakes.map((one) => {
      const own = taken.get(one.id) ?? 0;
      const month = Array.from(
        { length: 30 },
        (_, i) => months.find((row) => row.intake_id === one.id && row.day === 29 - i)?.count ?? 0,
      );
      return {
        ...one,
        month,
        submissions: totals.find((row) => row.intake_id === one.id)?.count ?? 0,
        lastAt: last.find((row) => row.intake_id === one.id)?.at.toISOString() ?? null,
        failed: failed.find((row) => row.intake_id === one.id)?.count ?? 0,
        routes: routes.filter(({ key }) => key === one.key).map(({ id, name, state }) => ({ id, name, state })),
        filesTaken: own ? Math.max(own / LIMITS.intakeFiles.most, inAll) : 0,
      };
    });
  }
}

/** 22 random characters: 132 bits of the base64url alphabet. */
function newKey(): string {
  return randomBytes(17).toString('base64url').slice(0, 22);
}

function shape(row: Row): IntakeShape {
  const { id, key, kind, name, state, slug, secret, perMinute, form, version, archived, closedMessage } = row;
  const { forColleagues, trial } = row;
  const address = kind === 'form' ? `/f/${slug}` : `/in/${key}`;
  return {
    id,
    key,
    kind,
    name,
    state,
    slug,
    signed: secret !== null,
    perMinute,
    address,
    form,
    version,
    archived,
    forColleagues,
    trial: trial && { version: trial.version, share: trial.share, since: trial.since },
    closedMessage,
  };
}
