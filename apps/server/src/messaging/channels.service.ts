import { Inject, Injectable } from '@nestjs/common';
import {
  checkHours,
  hostOf,
  newKey,
  normalPhone,
  WEEKDAYS,
  type Availability,
  type MessageChannel,
  type WorkingHours,
} from '@haycart/core';
import type { ChannelShape, TextGatewayShape } from '@haycart/api';
import { and, asc, eq } from 'drizzle-orm';
import { SecretBox } from '../platform/auth/secret-box';
import type { WorkspaceTx } from '../platform/database/database';
import { databaseFailure } from '../platform/database/failure';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { newId } from '../platform/new-id';
import { plainName } from './plain-name';
import { channel, textGateway } from './tables';

export interface NewChannel {
  name: string;
  by: 'chat' | 'text';
  /** Of a chat. */
  address?: string | undefined;
  /** Of a phone; only the demo and tests give a key. */
  number?: string | undefined;
  /** When somebody reads it: IANA name, and hours. */
  timeZone?: string | null | undefined;
  hours?: WorkingHours | undefined;
  perMinute?: number | null | undefined;
  key?: string;
}

/** How a channel is reached. */
export type ReachedChannel =
  | { by: 'chat'; name: string; address: string; perMinute: number | null }
  | { by: 'text'; name: string; number: string; perMinute: number | null };

/** Where messages go that are for no one person, and what sends text messages. */
@Injectable()
export class ChannelsService {
  constructor(
    @Inject(Events) private readonly events: Events,
    @Inject(SecretBox) private readonly box: SecretBox,
  ) {}

  async all(tx: WorkspaceTx): Promise<ChannelShape[]> {
    const rows = await tx.db
      .select()
      .from(channel)
      .where(eq(channel.workspaceId, tx.workspaceId))
      .orderBy(asc(channel.name), asc(channel.key));
    return rows.map((row) => this.#shape(row));
  }

  /** As routes name them. */
  async named(tx: WorkspaceTx): Promise<MessageChannel[]> {
    return tx.db
      .select({ key: channel.key, name: channel.name, by: channel.by })
      .from(channel)
      .where(eq(channel.workspaceId, tx.workspaceId))
      .orderBy(asc(channel.name), asc(channel.key));
  }

  async add(
    tx: WorkspaceTx,
    { name, by, key, timeZone, hours, perMinute, ...given }: NewChannel,
  ): Promise<ChannelShape> {
    const plain = plainName(name);
    await oneAtATime(tx, 'channels');
    const taken = (await this.named(tx)).map((one) => one.key);
    const id = newId();
    const reached = { ...this.#reached(id, by, given), ...hoursOf({ timeZone, hours }), perMinute: perMinute ?? null };
    try {
      const [row] = await tx.db
        .insert(channel)
        .values({ workspaceId: tx.workspaceId, id, key: key ?? newKey(name, taken), name: plain, by, ...reached })
        .returning();
      await this.events.tell(tx, 'channels');
      return this.#shape(row!);
    } catch (cause) {
      throw nameTaken(cause, name);
    }
  }

  /** @throws ProblemError 404, 409 where the name is taken, 422 where it could not be reached so */
  async change(
    tx: WorkspaceTx,
    key: string,
    { name, timeZone, hours, perMinute, ...given }: Partial<Omit<NewChannel, 'by' | 'key'>>,
  ): Promise<ChannelShape> {
    const { id, by } = await this.#one(tx, key);
    const reached = given.address === undefined && given.number === undefined ? {} : this.#reached(id, by, given);
    const named = name === undefined ? {} : { name: plainName(name) };
    const pace = perMinute === undefined ? {} : { perMinute };
    const set = { ...named, ...reached, ...hoursOf({ timeZone, hours }), ...pace };
    if (!Object.keys(set).length) throw new ProblemError('refused', 'Nothing to change was given.');
    try {
      const [row] = await tx.db.update(channel).set(set).where(this.#of(tx, key)).returning();
      await this.events.tell(tx, 'channels');
      return this.#shape(row!);
    } catch (cause) {
      throw nameTaken(cause, name ?? key);
    }
  }

  /** What still waits for it is given up when it is tried, and says so. */
  async remove(tx: WorkspaceTx, key: string): Promise<void> {
    await this.#one(tx, key);
    await tx.db.delete(channel).where(this.#of(tx, key));
    await this.events.tell(tx, 'channels');
  }

  /** `null` for one that is gone. */
  async reached(tx: WorkspaceTx, key: string): Promise<ReachedChannel | null> {
    const [row] = await tx.db.select().from(channel).where(this.#of(tx, key));
    if (!row) return null;
    const { id, by, name, address, number, perMinute } = row;
    return by === 'chat'
      ? { by, name, address: this.box.open(address!, `channel ${id}`), perMinute }
      : { by, name, number: number!, perMinute };
  }

  /** When somebody reads it; nothing is known of one that is gone. */
  async availability(tx: WorkspaceTx, key: string): Promise<Availability | undefined> {
    const [row] = await tx.db
      .select({ timeZone: channel.timeZone, hours: channel.hours })
      .from(channel)
      .where(this.#of(tx, key));
    return row && { ...row, away: [] };
  }

  async gateway(tx: WorkspaceTx): Promise<TextGatewayShape> {
    const address = await this.gatewayAddress(tx);
    return { host: address === null ? null : hostOf(address) };
  }

  /** Where text messages are posted to; `null` where nothing sends any. */
  async gatewayAddress(tx: WorkspaceTx): Promise<string | null> {
    const [row] = await tx.db.select().from(textGateway).where(eq(textGateway.workspaceId, tx.workspaceId));
    return row ? this.box.open(row.address, `text gateway ${tx.workspaceId}`) : null;
  }

  /** Has text messages posted to an address, or sent no more. */
  async setGateway(tx: WorkspaceTx, address: string | null): Promise<TextGatewayShape> {
    const { workspaceId } = tx;
    if (address === null) await tx.db.delete(textGateway).where(eq(textGateway.workspaceId, workspaceId));
    else {
      const sealed = this.box.seal(existingAddress(address), `text gateway ${workspaceId}`);
      await tx.db
        .insert(textGateway)
        .values({ workspaceId, address: sealed })
        .onConflictDoUpdate({ target: textGateway.workspaceId, set: { address: sealed, setAt: new Date() } });
    }
    await this.events.tell(tx, 'channels');
    return this.gateway(tx);
  }

  async #one(tx: WorkspaceTx, key: string): Promise<typeof channel.$inferSelect> {
    const [row] = await tx.db.select().from(channel).where(this.#of(tx, key));
    if (!row) throw new ProblemError('not-found', `There is no channel “${key.slice(0, 60)}”.`);
    return row;
  }

  #of(tx: WorkspaceTx, key: string) {
    return and(eq(channel.workspaceId, tx.workspaceId), eq(channel.key, key));
  }

  #reached(
    id: string,
    by: 'chat' | 'text',
    { address, number }: { address?: string | undefined; number?: string | undefined },
  ) {
    if (by === 'chat') return { address: this.box.seal(existingAddress(address ?? ''), `channel ${id}`), number: null };
    // A number needs its country: a plain one could be anybody's.
    const read = normalPhone(number ?? '', '');
    if (!read.ok)
      throw refusedAt('/number', 'not-a-phone', 'Type the number with its country, such as +44 20 7946 0018.');
    return { address: null, number: read.phone };
  }

  #shape({
    id,
    key,
    name,
    by,
    address,
    number,
    timeZone,
    hours,
    perMinute,
  }: typeof channel.$inferSelect): ChannelShape {
    const host = address === null ? null : hostOf(this.box.open(address, `channel ${id}`));
    return { key, name, by, to: host ?? number ?? '', timeZone, hours, perMinute };
  }
}

/** What is kept of the hours that are given. @throws ProblemError 422 */
function hoursOf({ timeZone, hours }: Pick<NewChannel, 'timeZone' | 'hours'>): Partial<typeof channel.$inferInsert> {
  const problems = checkHours({ timeZone: timeZone ?? null, hours: hours ?? {} });
  if (problems.length) throw new ProblemError('refused', problems[0]!.text, problemsAt(problems));
  return {
    ...(timeZone === undefined ? {} : { timeZone }),
    ...(hours === undefined ? {} : { hours: namedDays(hours) }),
  };
}

/** The hours of the days of the week, without anything else that came with them. */
function namedDays(hours: WorkingHours): WorkingHours {
  return Object.fromEntries(
    WEEKDAYS.flatMap((day) => {
      const span = hours[day];
      return span ? [[day, { from: span.from, to: span.to }]] : [];
    }),
  );
}

function existingAddress(address: string): string {
  if (hostOf(address)) return address;
  throw refusedAt('/address', 'not-an-address', 'Type an address that begins with https:// or http://.');
}

function refusedAt(at: string, code: 'not-an-address' | 'not-a-phone', message: string): ProblemError {
  return new ProblemError('refused', message, [{ at, code, message }]);
}

function nameTaken(cause: unknown, name: string): unknown {
  return databaseFailure(cause) === 'refused'
    ? new ProblemError('conflict', `There is a channel “${name}” already. Choose another name.`)
    : cause;
}
