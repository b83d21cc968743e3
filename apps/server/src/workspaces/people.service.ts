import { Inject, Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { newKey } from '@haycart/core';
import { and, asc, eq, inArray } from 'drizzle-orm';
import type { Caller } from '../platform/auth/caller';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { newId } from '../platform/new-id';
import { newSecret, secretHash } from '../platform/auth/secret';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { apiToken, person, session } from './tables';

const SESSION_DAYS = 14;
/** Tries to sign in within a quarter of an hour, for one e-mail address and from one client. */
const MOST_TRIES = { address: 10, client: 50 } as const;
/** What a wrong e-mail address is checked against, so that it takes as long as a wrong password. */
const NOBODY = hash('nobody has this password');

/** People, their passwords (argon2id) and sessions, and the tokens of scripts. */
@Injectable()
export class PeopleService {
  constructor(@Inject(Database) private readonly database: Database) {}

  async add(
    tx: WorkspaceTx,
    { name, email, password }: { name: string; email: string; password: string },
  ): Promise<string> {
    const id = newId();
    await oneAtATime(tx, 'people');
    const taken = await tx.db.select({ key: person.key }).from(person).where(eq(person.workspaceId, tx.workspaceId));
    await tx.db.insert(person).values({
      workspaceId: tx.workspaceId,
      id,
      key: newKey(
        name,
        taken.map(({ key }) => key),
      ),
      name,
      email: email.toLowerCase(),
      passwordHash: await hash(password),
    });
    return id;
  }

  async named(tx: WorkspaceTx, ids: readonly string[]): Promise<Map<string, string>> {
    if (!ids.length) return new Map();
    const rows = await tx.db
      .select({ id: person.id, name: person.name })
      .from(person)
      .where(inArray(person.id, [...ids]));
    return new Map(rows.map(({ id, name }) => [id, name]));
  }

  async one(
    tx: WorkspaceTx,
    id: string,
  ): Promise<{ id: string; key: string; name: string; email: string } | undefined> {
    const [found] = await tx.db
      .select({ id: person.id, key: person.key, name: person.name, email: person.email })
      .from(person)
      .where(eq(person.id, id));
    return found;
  }

  /** Everybody as what can be chosen in a field. */
  choices(tx: WorkspaceTx): Promise<{ key: string; name: string; email: string; active: boolean }[]> {
    return tx.db
      .select({ key: person.key, name: person.name, email: person.email, active: person.active })
      .from(person)
      .where(eq(person.workspaceId, tx.workspaceId))
      .orderBy(asc(person.name), asc(person.key));
  }

  /** The keys of each team's people, by the key of the team. */
  async teams(tx: WorkspaceTx): Promise<Record<string, string[]>> {
    const rows = await tx.statement<{ key: string; people: string[] }>(
      'team_people',
      `select t.key, coalesce(array_agg(p.key order by p.key) filter (where p.key is not null), '{}') as people from team t
       left join team_member m on m.workspace_id = t.workspace_id and m.team_key = t.key
       left join person p on p.workspace_id = m.workspace_id and p.id = m.person_id where t.workspace_id = $1 group by t.key`,
      [tx.workspaceId],
    );
    return Object.fromEntries(rows.map(({ key, people }) => [key, people]));
  }

  /** What whoever asks is called: a person by name, a script by its token's. */
  async nameOf(tx: WorkspaceTx, by: Caller['by']): Promise<string> {
    return by.kind === 'token' ? by.name : ((await this.one(tx, by.id))?.name ?? 'somebody');
  }

  /** Ends all sessions of somebody, on every machine. */
  async endSessions(tx: WorkspaceTx, personId: string): Promise<void> {
    await tx.db.delete(session).where(and(eq(session.workspaceId, tx.workspaceId), eq(session.personId, personId)));
  }

  /** Checks e-mail and password, and answers the secret of a new session. @throws ProblemError 401, or 429 after too many tries. */
  async signIn(email: string, password: string, client: string): Promise<{ secret: string; expiresAt: Date }> {
    const [byAddress] = await this.database.gate<{ gate_sign_in_try: number }>(
      'sign_in_try',
      `address ${secretHash(email.toLowerCase())}`,
    );
    const [byClient] = await this.database.gate<{ gate_sign_in_try: number }>('sign_in_try', `client ${client}`);
    if (byAddress!.gate_sign_in_try > MOST_TRIES.address || byClient!.gate_sign_in_try > MOST_TRIES.client) {
      throw new ProblemError('too-many', 'Too many tries to sign in. Wait a quarter of an hour.', undefined, 900);
    }
    const people = await this.database.gate<{ workspace_id: string; id: string; password_hash: string }>(
      'people_signing_in',
      email,
    );
    for (const found of people) {
      if (await verify(found.password_hash, password)) return this.startSession(found.workspace_id, found.id);
    }
    if (!people.length) await verify(await NOBODY, password);
    throw new ProblemError('wrong-sign-in', 'E-mail or password is wrong.');
  }

  /** Starts a session without a password; only the demo's one-click sign-in may. */
  async signInAs(email: string): Promise<{ secret: string; expiresAt: Date }> {
    const [found] = await this.database.gate<{ workspace_id: string; id: string }>('people_signing_in', email);
    if (!found) throw new ProblemError('not-found', 'There is no such person in the demo.');
    return this.startSession(found.workspace_id, found.id);
  }

  async startSession(workspaceId: string, personId: string): Promise<{ secret: string; expiresAt: Date }> {
    const secret = newSecret();
    const expiresAt = new Date(Date.now() + SESSION_DAYS * 86_400_000);
    await this.database.inWorkspace(workspaceId, (tx) =>
      tx.db.insert(session).values({ workspaceId, hash: secretHash(secret), personId, expiresAt }),
    );
    return { secret, expiresAt };
  }

  async endSession(workspaceId: string, secret: string): Promise<void> {
    await this.database.inWorkspace(workspaceId, (tx) =>
      tx.db.delete(session).where(eq(session.hash, secretHash(secret))),
    );
  }

  /** Makes an API token of a workspace; it is shown once and kept only as a hash. */
  async addToken(workspaceKey: string, name: string): Promise<string> {
    const workspaces = await this.database.gate<{ id: string; key: string }>('workspaces');
    const found = workspaces.find(({ key }) => key === workspaceKey);
    if (!found) {
      const known = workspaces.map(({ key }) => key).join(', ') || 'none yet';
      throw new ProblemError('not-found', `There is no workspace “${workspaceKey}”. There is: ${known}.`);
    }
    const secret = `hc_${newSecret()}`;
    await this.database.inWorkspace(found.id, (tx) =>
      tx.db.insert(apiToken).values({ workspaceId: found.id, id: newId(), name, hash: secretHash(secret) }),
    );
    return secret;
  }
}
