import { Inject, Injectable, Logger } from '@nestjs/common';
import { checkPerson, newKey, type AnswerPromise, type Person } from '@haycart/core';
import type { PersonShape, TeamShape } from '@haycart/api';
import { and, asc, eq, inArray } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { SessionsService } from './sessions.service';
import { TokensService } from './tokens.service';
import { person, team, teamMember } from './tables';

/** What may be changed about a person. */
export type PersonChange = { [Name in keyof Omit<Person, 'key'>]?: Person[Name] | undefined };

/** What may be changed about a team. */
export interface TeamChange {
  name?: string | undefined;
  people?: readonly string[] | undefined;
  /** How soon its people answer; `null`: nothing is promised. */
  promise?: AnswerPromise | null | undefined;
}

/** What is shown of a person. */
const SHOWN = {
  id: person.id,
  key: person.key,
  name: person.name,
  email: person.email,
  active: person.active,
  regions: person.regions,
  languages: person.languages,
  skills: person.skills,
  timeZone: person.timeZone,
  hours: person.hours,
  phone: person.phone,
  capacity: person.capacity,
  perDay: person.perDay,
  away: person.away,
};

/** The people of a workspace as those who look after records, and their teams. */
@Injectable()
export class TeamsService {
  readonly #log = new Logger('security');

  constructor(
    @Inject(SessionsService) private readonly sessions: SessionsService,
    @Inject(TokensService) private readonly tokens: TokensService,
  ) {}

  /** Everybody, by name, with their teams. */
  async everybody(tx: WorkspaceTx): Promise<PersonShape[]> {
    const rows = await tx.db
      .select(SHOWN)
      .from(person)
      .where(eq(person.workspaceId, tx.workspaceId))
      .orderBy(asc(person.name), asc(person.key));
    const members = await tx.db.select().from(teamMember).where(eq(teamMember.workspaceId, tx.workspaceId));
    return rows.map((row) => ({
      ...row,
      teams: members.filter(({ personId }) => personId === row.id).map(({ teamKey }) => teamKey),
    }));
  }

  /** Every team with the keys of its people. */
  async all(tx: WorkspaceTx): Promise<TeamShape[]> {
    const teams = await tx.db
      .select()
      .from(team)
      .where(eq(team.workspaceId, tx.workspaceId))
      .orderBy(asc(team.name), asc(team.key));
    const people = await this.everybody(tx);
    return teams.map(({ key, name, promise }) => ({
      key,
      name,
      promise,
      people: people.filter(({ teams: own }) => own.includes(key)).map((one) => one.key),
    }));
  }

  async one(tx: WorkspaceTx, key: string): Promise<PersonShape> {
    const found = (await this.everybody(tx)).find((one) => one.key === key);
    if (!found) throw new ProblemError('not-found', `There is nobody with the key “${key}”.`);
    return found;
  }

  async byId(tx: WorkspaceTx, id: string): Promise<PersonShape> {
    return (await this.everybody(tx)).find((one) => one.id === id)!;
  }

  /** Changes a person. Whoever is not active any more is signed out everywhere. */
  async change(tx: WorkspaceTx, key: string, change: PersonChange): Promise<PersonShape> {
    await oneAtATime(tx, 'people');
    const before = await this.one(tx, key);
    const given = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
    const { id, active, key: _, email: __, teams: ___, ...rest } = { ...before, ...given };
    const after = { ...rest, name: rest.name.trim() };
    const problems = checkPerson(after);
    if (problems.length) throw new ProblemError('refused', problems[0]!.text, problemsAt(problems));
    if (!active && !(await this.everybody(tx)).some((one) => one.active && one.key !== key))
      throw new ProblemError(
        'conflict',
        `${before.name} is the only active person, and somebody must be able to sign in.`,
      );
    await tx.db
      .update(person)
      .set({ ...after, active })
      .where(and(eq(person.workspaceId, tx.workspaceId), eq(person.id, id)));
    this.#log.log({ person: id, active }, 'A person was changed.');
    if (!active) {
      await this.sessions.endAll(tx, id);
      await this.tokens.revokeOf(tx, id);
    }
    return this.one(tx, key);
  }

  async addTeam(tx: WorkspaceTx, name: string, people: readonly string[], key?: string): Promise<TeamShape> {
    await oneAtATime(tx, 'people');
    const known = await this.all(tx);
    refuseTaken(name, known);
    const own =
      key ??
      newKey(
        name,
        known.map((one) => one.key),
      );
    await tx.db.insert(team).values({ workspaceId: tx.workspaceId, key: own, name: name.trim() });
    await this.#setPeople(tx, own, people);
    return this.#team(tx, own);
  }

  async changeTeam(tx: WorkspaceTx, key: string, { name, people, promise }: TeamChange): Promise<TeamShape> {
    await oneAtATime(tx, 'people');
    await this.#team(tx, key);
    if (name !== undefined) {
      refuseTaken(
        name,
        (await this.all(tx)).filter((one) => one.key !== key),
      );
      await tx.db
        .update(team)
        .set({ name: name.trim() })
        .where(and(eq(team.workspaceId, tx.workspaceId), eq(team.key, key)));
    }
    if (promise !== undefined)
      await tx.db
        .update(team)
        .set({ promise })
        .where(and(eq(team.workspaceId, tx.workspaceId), eq(team.key, key)));
    if (people) await this.#setPeople(tx, key, people);
    return this.#team(tx, key);
  }

  async removeTeam(tx: WorkspaceTx, key: string): Promise<void> {
    await this.#team(tx, key);
    await tx.db.delete(team).where(and(eq(team.workspaceId, tx.workspaceId), eq(team.key, key)));
  }

  async #team(tx: WorkspaceTx, key: string): Promise<TeamShape> {
    const found = (await this.all(tx)).find((one) => one.key === key);
    if (!found) throw new ProblemError('not-found', `There is no team “${key}”.`);
    return found;
  }

  async #setPeople(tx: WorkspaceTx, teamKey: string, keys: readonly string[]): Promise<void> {
    const wanted = [...new Set(keys)];
    const found = wanted.length
      ? await tx.db
          .select({ id: person.id, key: person.key })
          .from(person)
          .where(and(eq(person.workspaceId, tx.workspaceId), inArray(person.key, wanted)))
      : [];
    const unknown = wanted.find((key) => !found.some((one) => one.key === key));
    if (unknown !== undefined)
      throw new ProblemError('refused', `There is nobody with the key “${unknown}”.`, [
        { at: '/people', code: 'unknown-person', message: 'Name people by their keys.' },
      ]);
    await tx.db
      .delete(teamMember)
      .where(and(eq(teamMember.workspaceId, tx.workspaceId), eq(teamMember.teamKey, teamKey)));
    if (found.length)
      await tx.db
        .insert(teamMember)
        .values(found.map(({ id }) => ({ workspaceId: tx.workspaceId, teamKey, personId: id })));
  }
}

function refuseTaken(name: string, others: readonly TeamShape[]): void {
  const wanted = name.trim().toLowerCase();
  if (wanted === '' || others.some((one) => one.name.toLowerCase() === wanted))
    throw new ProblemError('refused', wanted ? `There is a team “${name.trim()}” already.` : 'A team needs a name.', [
      { at: '/name', code: wanted ? 'name-taken' : 'name-blank', message: 'Choose another name.' },
    ]);
}
