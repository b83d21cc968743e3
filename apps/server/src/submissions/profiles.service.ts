import { Injectable } from '@nestjs/common';
import {
  driftOf,
  emptyProfile,
  profileDateOrder,
  profileKind,
  profileLabel,
  ProfileLearner,
  readPayload,
  type BodyFormat,
  type Drift,
  type Profile,
  type ProfileField,
} from '@haycart/core';
import type { ProfileFieldShape, ProfileShape } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';

interface Arrived {
  id: string;
  at: string;
  format: BodyFormat;
  body: Buffer;
}

interface Kept {
  profile: Profile;
  upto_at: string;
  upto_id: string;
  names: Record<string, string>;
}

/** How many are learnt from at once, and at most in one call; what is older than that at first is not looked at. */
const BATCH = 1_000;
const MOST = 20_000;
/** Values shown of a field. */
const VALUES = 100;
const BEGINNING = { upto_at: '-infinity', upto_id: '00000000-0000-0000-0000-000000000000' };

/** An intake whose fields changed, and how. */
export interface DriftingIntake {
  id: string;
  key: string;
  name: string;
  kind: string;
  drift: Drift[];
}

/**
 * Keeps the profile of each intake. It is brought up to date when somebody looks, so that neither accepting nor routing
 * pays for it. What arrived in the last moments is looked at each time anew, since others may still be arriving before it.
 */
@Injectable()
export class ProfilesService {
  async shape(tx: WorkspaceTx, intakeKey: string): Promise<ProfileShape> {
    const { profile, names } = await this.#current(tx, await this.#intakeId(tx, intakeKey));
    const { submissions, beyond, fields } = profile;
    return { submissions, beyond, fields: Object.values(fields).map((field) => shapeOf(field, names[field.key])) };
  }

  /** The keys of the fields that an intake has received, also as they were written otherwise. */
  async fieldKeys(tx: WorkspaceTx, intakeKey: string): Promise<Set<string>> {
    const { profile } = await this.#current(tx, await this.#intakeId(tx, intakeKey));
    return new Set(Object.values(profile.fields).flatMap(({ key, also }) => [key, ...also]));
  }

  /**
   * Gives fields names for people, or takes them back (`null`).
   *
   * @throws ProblemError 404 for a field that never came.
   */
  async name(tx: WorkspaceTx, intakeKey: string, wanted: Record<string, string | null>): Promise<ProfileShape> {
    const intakeId = await this.#intakeId(tx, intakeKey);
    const { profile, names } = await this.#current(tx, intakeId);
    const unknown = Object.keys(wanted).find((field) => !Object.hasOwn(profile.fields, field));
    if (unknown !== undefined) throw new ProblemError('not-found', `No field “${unknown}” ever came.`);
    const next = Object.entries({ ...names, ...wanted }).filter(([, name]) => name !== null);
    await tx.statement(
      'name_fields',
      `insert into intake_profile (workspace_id, intake_id, profile, upto_at, upto_id, names) values ($1, $2, $3, $4, $5, $6)
       on conflict (workspace_id, intake_id) do update set names = excluded.names`,
      [
        tx.workspaceId,
        intakeId,
        JSON.stringify(emptyProfile()),
        BEGINNING.upto_at,
        BEGINNING.upto_id,
        Object.fromEntries(next),
      ],
    );
    return this.shape(tx, intakeKey);
  }

  /**
   * Learns from all that arrived meanwhile, and works out anew how the fields of each intake concerned changed. Answers
   * whether that is otherwise than before.
   */
  async learn(tx: WorkspaceTx): Promise<boolean> {
    const behind = await tx.statement<{ id: string; drift: Drift[] | null }>(
      'intakes_to_learn',
      `select i.id, p.drift from intake i left join intake_profile p on p.workspace_id = i.workspace_id and p.intake_id = i.id
       cross join lateral (select s.received_at, s.id from submission s where s.workspace_id = i.workspace_id and s.intake_id = i.id
         order by s.received_at desc, s.id desc limit 1) latest
       where i.workspace_id = $1 and (latest.received_at, latest.id) > (coalesce(p.upto_at, $2::timestamptz), coalesce(p.upto_id, $3::uuid))`,
      [tx.workspaceId, BEGINNING.upto_at, BEGINNING.upto_id],
    );
    let otherwise = false;
    for (const { id, drift: before } of behind) {
      const drift = driftOf((await this.#current(tx, id)).profile);
      if (JSON.stringify(drift) === JSON.stringify(before ?? [])) continue;
      otherwise = true;
      await tx.statement(
        'keep_drift',
        `insert into intake_profile (workspace_id, intake_id, profile, upto_at, upto_id, drift) values ($1, $2, $3, $4, $5, $6)
         on conflict (workspace_id, intake_id) do update set drift = excluded.drift`,
        [
          tx.workspaceId,
          id,
          JSON.stringify(emptyProfile()),
          BEGINNING.upto_at,
          BEGINNING.upto_id,
          JSON.stringify(drift),
        ],
      );
    }
    return otherwise;
  }

  /** How the fields of the workspace’s intakes changed, as far as was learnt. */
  drift(tx: WorkspaceTx): Promise<DriftingIntake[]> {
    return tx.statement(
      'drift_of_intakes',
      `select i.id, i.key, i.name, i.kind, p.drift from intake_profile p join intake i on i.workspace_id = p.workspace_id and i.id = p.intake_id
       where p.workspace_id = $1 and p.drift <> '[]'::jsonb and i.state = 'live' order by i.name`,
      [tx.workspaceId],
    );
  }

  async #intakeId(tx: WorkspaceTx, key: string): Promise<string> {
    const [row] = await tx.statement<{ id: string }>(
      'profiled_intake',
      'select id from intake where workspace_id = $1 and key = $2',
      [tx.workspaceId, key],
    );
    if (!row) throw new ProblemError('not-found', 'There is no such intake.');
    return row.id;
  }

  async #current(tx: WorkspaceTx, intakeId: string): Promise<Pick<Kept, 'profile' | 'names'>> {
    const [known] = await tx.statement<Kept>(
      'intake_profile',
      `select profile, upto_at::text, upto_id, names from intake_profile where workspace_id = $1 and intake_id = $2 for update`,
      [tx.workspaceId, intakeId],
    );
    const kept = known ?? { profile: emptyProfile(), ...(await this.#beginning(tx, intakeId)), names: {} };
    const learner = new ProfileLearner(kept.profile);
    let last = { at: kept.upto_at, id: kept.upto_id };
    let learnt = 0;
    for (;;) {
      const settled = await this.#arrived(tx, intakeId, last, true);
      settled.forEach((one) => learn(learner, one));
      learnt += settled.length;
      last = settled.at(-1) ?? last;
      if (settled.length < BATCH || learnt >= MOST) break;
    }
    if (learnt) await this.#keep(tx, intakeId, learner.profile, last);
    for (const one of await this.#arrived(tx, intakeId, last, false)) learn(learner, one);
    return { profile: learner.profile, names: kept.names };
  }

  /** Before the latest of an intake that was never looked at. */
  async #beginning(tx: WorkspaceTx, intakeId: string): Promise<{ upto_at: string; upto_id: string }> {
    const [row] = await tx.statement<{ upto_at: string; upto_id: string }>(
      'profile_beginning',
      `select received_at::text as upto_at, id as upto_id from submission where workspace_id = $1 and intake_id = $2
       order by received_at desc, id desc offset $3 limit 1`,
      [tx.workspaceId, intakeId, MOST],
    );
    return row ?? BEGINNING;
  }

  #arrived(tx: WorkspaceTx, intakeId: string, after: { at: string; id: string }, settled: boolean): Promise<Arrived[]> {
    return tx.statement<Arrived>(
      settled ? 'arrived_before' : 'arrived_just_now',
      `select id, received_at::text as at, format, body from submission
       where workspace_id = $1 and intake_id = $2 and (received_at, id) > ($3::timestamptz, $4::uuid) and state <> 'set-aside'
         ${settled ? `and received_at < now() - interval '5 seconds'` : ''}
       order by received_at, id limit $5`,
      [tx.workspaceId, intakeId, after.at, after.id, BATCH],
    );
  }

  async #keep(tx: WorkspaceTx, intakeId: string, profile: Profile, last: { at: string; id: string }): Promise<void> {
    await tx.statement(
      'keep_profile',
      `insert into intake_profile (workspace_id, intake_id, profile, upto_at, upto_id) values ($1, $2, $3, $4, $5)
       on conflict (workspace_id, intake_id) do update set profile = excluded.profile, upto_at = excluded.upto_at, upto_id = excluded.upto_id
       where (intake_profile.upto_at, intake_profile.upto_id) < (excluded.upto_at, excluded.upto_id)`,
      [tx.workspaceId, intakeId, JSON.stringify(profile), last.at, last.id],
    );
  }
}

function learn(learner: ProfileLearner, { format, body, at }: Arrived): void {
  const read = readPayload(format, body);
  if (read.ok) learner.learn(read.payload, new Date(at).toISOString());
}

function shapeOf(field: ProfileField, name: string | undefined): ProfileFieldShape {
  const { key, pointer, sent, filled, values, more, examples, firstSeen, lastSeen, lastFilled, also } = field;
  const counted = Object.entries(values).map(([value, count]) => ({ value, count }));
  return {
    key,
    label: name ?? profileLabel(field),
    named: name !== undefined,
    pointer,
    kind: profileKind(field),
    sent,
    filled,
    distinct: counted.length,
    more,
    values: counted.sort((a, b) => b.count - a.count).slice(0, VALUES),
    examples,
    firstSeen,
    lastSeen,
    lastFilled,
    also,
    dateOrder: profileDateOrder(field),
  };
}
