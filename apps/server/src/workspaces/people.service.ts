import { Injectable, Logger } from '@nestjs/common';
import { checkPromise, newKey, type AnswerPromise, type Destination, type Team } from '@haycart/core';
import { and, asc, eq, inArray } from 'drizzle-orm';
import type { Caller } from '../platform/auth/caller';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { newId } from '../platform/new-id';
import type { WorkspaceTx } from '../platform/database/database';
import { keptPassword } from './passwords';
import { person } from './tables';

/** The people of a workspace. */
@Injectable()
export class PeopleService {
  readonly #log = new Logger('security');

  async add(
    tx: WorkspaceTx,
    { name, email, password }: { name: string; email: string; password?: string },
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
      passwordHash: password === undefined ? null : await keptPassword(password, email),
    });
    this.#log.log({ person: id }, 'A person was added.');
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

  /** What planning may know of people, by key: when they work, and how they are told something. */
  async known(tx: WorkspaceTx): Promise<NonNullable<Destination['people']>> {
    const rows = await tx.db
      .select({
        key: person.key,
        timeZone: person.timeZone,
        hours: person.hours,
        away: person.away,
        phone: person.phone,
        email: person.email,
        capacity: person.capacity,
        perDay: person.perDay,
        languages: person.languages,
        skills: person.skills,
      })
      .from(person)
      .where(and(eq(person.workspaceId, tx.workspaceId), eq(person.active, true)))
      .orderBy(asc(person.key));
    return Object.fromEntries(
      rows.map(({ key, phone, capacity, perDay, ...known }) => [
        key,
        {
          ...known,
          ...(phone ? { phone } : {}),
          ...(capacity === null ? {} : { capacity }),
          ...(perDay === null ? {} : { perDay }),
        },
      ]),
    );
  }

  /** The teams by their keys. */
  async teams(tx: WorkspaceTx): Promise<Record<string, Team>> {
    const rows = await tx.statement<Omit<Team, 'promise'> & { key: string; promise: AnswerPromise | null }>(
      'team_people',
      `select t.key, t.name, t.promise, coalesce(array_agg(p.key order by p.key) filter (where p.key is not null), '{}') as people from team t
       left join team_member m on m.workspace_id = t.workspace_id and m.team_key = t.key
       left join person p on p.workspace_id = m.workspace_id and p.id = m.person_id where t.workspace_id = $1 group by t.key, t.name, t.promise`,
      [tx.workspaceId],
    );
    return Object.fromEntries(rows.map(({ key, promise, ...team }) => [key, { ...team, ...(promise && { promise }) }]));
  }

  /** Refuses a promise that names somebody who is not there. @throws ProblemError 422 */
  async refuseMissedBy(tx: WorkspaceTx, promise: AnswerPromise | null): Promise<void> {
    const active = (await this.choices(tx)).filter((one) => one.active).map(({ key }) => key);
    const problems = promise ? checkPromise(promise, active) : [];
    if (problems.length) throw new ProblemError('refused', problems[0]!.text, problemsAt(problems));
  }

  /** What whoever asks is called: a person by name, a script by its token's. */
  async nameOf(tx: WorkspaceTx, by: Caller['by']): Promise<string> {
    return by.kind === 'token' ? by.name : ((await this.one(tx, by.id))?.name ?? 'somebody');
  }
}
