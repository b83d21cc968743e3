import { Injectable } from '@nestjs/common';
import { newKey, type ColourMark, type FieldOption } from '@haycart/core';
import type { LabelShape } from '@haycart/api';
import { and, asc, eq } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { ProblemError } from '../platform/errors/problem-error';
import { contactList, tag } from './tables';

/** The two kinds of label: tags on any record, and lists of contacts. */
export type LabelKind = 'tag' | 'list';
const TABLES = { tag, list: contactList };
const LABEL_KINDS = ['tag', 'list'] as const;

export interface LabelChange {
  name?: string | undefined;
  colour?: ColourMark | null | undefined;
}

/** Tags and lists as such: their names and colours. Which records carry them is the records' affair. */
@Injectable()
export class LabelsService {
  /** Every label, those out of use too, by name. */
  async all(tx: WorkspaceTx, kind: LabelKind): Promise<LabelShape[]> {
    const table = TABLES[kind];
    const rows = await tx.db
      .select()
      .from(table)
      .where(eq(table.workspaceId, tx.workspaceId))
      .orderBy(asc(table.name), asc(table.key));
    return rows.map(({ key, name, colour, retired }) => ({ key, name, colour, ...(retired ? { retired } : {}) }));
  }

  /** As what can be chosen in a field. */
  async options(tx: WorkspaceTx, kind: LabelKind): Promise<FieldOption[]> {
    return (await this.all(tx, kind)).map(({ key, name, colour, retired }) => ({
      key,
      label: name,
      ...(colour ? { colour } : {}),
      ...(retired ? { retired } : {}),
    }));
  }

  async one(tx: WorkspaceTx, kind: LabelKind, key: string): Promise<LabelShape> {
    const found = (await this.all(tx, kind)).find((label) => label.key === key && !label.retired);
    if (!found) throw new ProblemError('not-found', `There is no ${kind} “${key}”.`);
    return found;
  }

  async add(tx: WorkspaceTx, kind: LabelKind, name: string, colour: ColourMark | null): Promise<LabelShape> {
    await oneAtATime(tx, 'labels');
    const known = await this.all(tx, kind);
    refuseTaken(kind, name, known);
    const key = newKey(
      name,
      known.map((label) => label.key),
    );
    await tx.db.insert(TABLES[kind]).values({ workspaceId: tx.workspaceId, key, name: name.trim(), colour });
    return { key, name: name.trim(), colour };
  }

  async change(tx: WorkspaceTx, kind: LabelKind, key: string, { name, colour }: LabelChange): Promise<LabelShape> {
    await oneAtATime(tx, 'labels');
    const before = await this.one(tx, kind, key);
    const others = (await this.all(tx, kind)).filter((label) => label.key !== key);
    if (name !== undefined) refuseTaken(kind, name, others);
    const after = { name: name?.trim() ?? before.name, colour: colour === undefined ? before.colour : colour };
    await this.#update(tx, kind, key, after);
    return { key, ...after };
  }

  /** Takes a label out of use, in an act of somebody; whatever still carries it keeps its name. */
  retire(tx: WorkspaceTx, kind: LabelKind, key: string, act: string | null): Promise<void> {
    return this.#update(tx, kind, key, { retired: true, retiredIn: act });
  }

  /**
   * Takes labels into use again that an act took out of it.
   *
   * @returns whether there were any
   * @throws ProblemError where another label has the name by now
   */
  async bringBack(tx: WorkspaceTx, act: string): Promise<boolean> {
    let found = false;
    for (const kind of LABEL_KINDS) {
      for (const { key, name } of await this.#retiredIn(tx, kind, act)) {
        refuseTaken(kind, name, await this.all(tx, kind));
        await this.#update(tx, kind, key, { retired: false, retiredIn: null });
        found = true;
      }
    }
    return found;
  }

  #retiredIn(tx: WorkspaceTx, kind: LabelKind, act: string): Promise<{ key: string; name: string }[]> {
    const table = TABLES[kind];
    return tx.db
      .select({ key: table.key, name: table.name })
      .from(table)
      .where(and(eq(table.workspaceId, tx.workspaceId), eq(table.retiredIn, act)));
  }

  async #update(
    tx: WorkspaceTx,
    kind: LabelKind,
    key: string,
    values: Partial<typeof tag.$inferInsert>,
  ): Promise<void> {
    const table = TABLES[kind];
    await tx.db
      .update(table)
      .set(values)
      .where(and(eq(table.workspaceId, tx.workspaceId), eq(table.key, key)));
  }
}

function refuseTaken(kind: LabelKind, name: string, known: readonly LabelShape[]): void {
  const at = '/name';
  if (name.trim() === '')
    throw new ProblemError('refused', `A ${kind} needs a name.`, [{ at, code: 'name-blank', message: 'Type a name.' }]);
  const same = known.find((label) => !label.retired && label.name.toLowerCase() === name.trim().toLowerCase());
  if (same)
    throw new ProblemError('refused', `There is a ${kind} “${same.name}” already.`, [
      { at, code: 'name-taken', message: `Choose another name, or merge the two.` },
    ]);
}
