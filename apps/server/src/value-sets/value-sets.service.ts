import { Inject, Injectable } from '@nestjs/common';
import { cleanValues, newKey, VALUE_SET_LIMITS, type ValueSet } from '@haycart/core';
import { and, asc, eq, sql } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { databaseFailure } from '../platform/database/failure';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { ProblemError } from '../platform/errors/problem-error';
import { Events } from '../platform/events/events';
import { valueSet } from './tables';

/** A value set with the key by which cells name it. */
export interface KeyedValueSet extends ValueSet {
  key: string;
}

/** Named sets of values, such as the countries of a region. */
@Injectable()
export class ValueSetsService {
  constructor(@Inject(Events) private readonly events: Events) {}

  all(tx: WorkspaceTx): Promise<KeyedValueSet[]> {
    return tx.db
      .select({ key: valueSet.key, name: valueSet.name, values: valueSet.values })
      .from(valueSet)
      .where(eq(valueSet.workspaceId, tx.workspaceId))
      .orderBy(asc(valueSet.name), asc(valueSet.key));
  }

  /** As tables name them. */
  async named(tx: WorkspaceTx): Promise<Record<string, ValueSet>> {
    return Object.fromEntries((await this.all(tx)).map(({ key, name, values }) => [key, { name, values }]));
  }

  async one(tx: WorkspaceTx, key: string): Promise<KeyedValueSet> {
    const found = (await this.all(tx)).find((set) => set.key === key);
    if (!found) throw new ProblemError('not-found', `There is no value set “${key.slice(0, 60)}”.`);
    return found;
  }

  /** @param made Only the demo and tests give a key. @throws ProblemError 409 where the name is taken, 422 for too many values */
  async add(tx: WorkspaceTx, made: ValueSet & { key?: string | undefined }): Promise<KeyedValueSet> {
    await oneAtATime(tx, 'value-sets');
    const taken = (await this.all(tx)).map(({ key }) => key);
    const key = made.key ?? newKey(made.name, taken);
    const row = { name: plainSetName(made.name), values: checkedValues(made.values) };
    await keep(row.name, () => tx.db.insert(valueSet).values({ workspaceId: tx.workspaceId, key, ...row }));
    await this.events.tell(tx, 'labels');
    return { key, ...row };
  }

  async change(
    tx: WorkspaceTx,
    key: string,
    { name, values }: { name?: string | undefined; values?: readonly string[] | undefined },
  ): Promise<KeyedValueSet> {
    const before = await this.one(tx, key);
    const after = {
      name: name === undefined ? before.name : plainSetName(name),
      values: values === undefined ? [...before.values] : checkedValues(values),
    };
    await keep(after.name, () =>
      tx.db
        .update(valueSet)
        .set({ ...after, changedAt: new Date() })
        .where(this.#of(tx, key)),
    );
    await this.events.tell(tx, 'labels');
    return { key, ...after };
  }

  /** Sets by their names: those that are there get other values, the others are added. Answers them all as they are then. */
  async replace(tx: WorkspaceTx, sets: readonly ValueSet[]): Promise<KeyedValueSet[]> {
    await oneAtATime(tx, 'value-sets');
    const known = await this.all(tx);
    const keys = known.map(({ key }) => key);
    const rows = sets.map(({ name, values }) => {
      const plain = plainSetName(name);
      const before = known.find((set) => set.name.toLowerCase() === plain.toLowerCase());
      const key = before?.key ?? newKey(plain, keys);
      keys.push(key);
      return { workspaceId: tx.workspaceId, key, name: before?.name ?? plain, values: checkedValues(values) };
    });
    const named = new Map(rows.map((row) => [row.name.toLowerCase(), row]));
    if (named.size)
      await tx.db
        .insert(valueSet)
        .values([...named.values()])
        .onConflictDoUpdate({
          target: [valueSet.workspaceId, valueSet.key],
          set: { values: sql`excluded.values`, changedAt: sql`now()` },
        });
    await this.events.tell(tx, 'labels');
    return this.all(tx);
  }

  async remove(tx: WorkspaceTx, key: string): Promise<void> {
    await this.one(tx, key);
    await tx.db.delete(valueSet).where(this.#of(tx, key));
    await this.events.tell(tx, 'labels');
  }

  #of(tx: WorkspaceTx, key: string) {
    return and(eq(valueSet.workspaceId, tx.workspaceId), eq(valueSet.key, key));
  }
}

function plainSetName(name: string): string {
  const plain = name.trim().replace(/\s+/g, ' ');
  if (plain !== '') return plain;
  throw new ProblemError('refused', 'A value set needs a name.', [
    { at: '/name', code: 'name-blank', message: 'Type a name.' },
  ]);
}

function checkedValues(values: readonly string[]): string[] {
  const clean = cleanValues(values);
  if (clean.length <= VALUE_SET_LIMITS.values) return clean;
  const message = `A value set holds at most ${VALUE_SET_LIMITS.values.toLocaleString('en-GB')} values.`;
  throw new ProblemError('refused', message, [{ at: '/values', code: 'too-large', message }]);
}

async function keep(name: string, write: () => Promise<unknown>): Promise<void> {
  try {
    await write();
  } catch (cause) {
    if (databaseFailure(cause) !== 'refused') throw cause;
    throw new ProblemError('conflict', `There is a value set “${name}” already. Choose another name.`);
  }
}
