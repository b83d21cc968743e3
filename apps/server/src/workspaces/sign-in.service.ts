import { Inject, Injectable, Logger } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import { newSecret, secretHash } from '../platform/auth/secret';
import { Database } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { isPassword } from './passwords';
import { knownDevice } from './tables';

/** So many wrong tries in a row are free; each after them doubles the wait. */
const FREE = { pair: 5, client: 60, account: 40, setUp: LIMITS.setUpGuesses.most } as const;

/** Whoever signed in. */
export interface SignedIn {
  workspaceId: string;
  personId: string;
  /** The secret by which this browser is known from now on. */
  device: string;
}

/**
 * Checks e-mail and password. Waits grow for one address that tries one account, for one that tries many, and, where the
 * browser is not known, for an account that is tried from many: nobody locks a colleague out of the browser they use.
 */
@Injectable()
export class SignInService {
  readonly #log = new Logger('security');

  constructor(@Inject(Database) private readonly database: Database) {}

  /** @throws ProblemError 401, or 429 with how long to wait. */
  async signIn(email: string, password: string, client: string, device: string | undefined): Promise<SignedIn> {
    const account = secretHash(email.trim().toLowerCase());
    const people = await this.database.gate<{ workspace_id: string; id: string; password_hash: string }>(
      'people_signing_in',
      email.trim(),
    );
    const known = await this.#isKnown(device, people);
    const subjects = [
      [`pair ${client} ${account}`, FREE.pair],
      [`client ${client}`, FREE.client],
      ...(known ? [] : [[`account ${account}`, FREE.account]]),
    ] as [string, number][];
    await this.refuseWhileWaiting(subjects);
    for (const found of people) {
      if (!(await isPassword(found.password_hash, password))) continue;
      await this.database.gate('right_try', subjects[0]![0]);
      return { workspaceId: found.workspace_id, personId: found.id, device: await this.#remember(found, device) };
    }
    if (!people.length) await isPassword(null, password);
    await this.noteWrong(subjects);
    throw new ProblemError('wrong-sign-in', 'E-mail or password is wrong.');
  }

  /** Makes guesses of the set-up code slow. */
  setUpSubjects(client: string): [string, number][] {
    return [
      [`set-up ${client}`, FREE.setUp],
      ['set-up', FREE.setUp],
    ];
  }

  /** @throws ProblemError 429 */
  async refuseWhileWaiting(subjects: readonly [string, number][]): Promise<void> {
    const [row] = await this.database.gate<{ gate_wait: number }>(
      'wait',
      subjects.map(([subject]) => subject),
      subjects.map(([, free]) => free),
    );
    const wait = row!.gate_wait;
    if (wait <= 0) return;
    this.#log.log('A try to sign in came too soon after wrong ones.');
    throw new ProblemError('too-many', `Too many wrong tries. Try again in ${wait} seconds.`, undefined, wait);
  }

  async noteWrong(subjects: readonly [string, number][]): Promise<void> {
    await this.database.gate(
      'wrong_try',
      subjects.map(([subject]) => subject),
    );
    this.#log.log('A try to sign in was refused.');
  }

  async #isKnown(device: string | undefined, people: readonly { id: string }[]): Promise<boolean> {
    if (!device) return false;
    const known = await this.database.gate<{ person_id: string }>('device_known', secretHash(device));
    return known.some(({ person_id: person }) => people.some(({ id }) => id === person));
  }

  async #remember({ workspace_id: workspaceId, id: personId }: { workspace_id: string; id: string }, before?: string) {
    const device = before ?? newSecret();
    await this.database.inWorkspace(workspaceId, (tx) =>
      tx.db
        .insert(knownDevice)
        .values({ workspaceId, personId, hash: secretHash(device) })
        .onConflictDoNothing(),
    );
    return device;
  }
}
