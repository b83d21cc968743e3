import { Injectable } from '@nestjs/common';
import {
  BUILT_IN_FIELDS,
  checkField,
  jsonPointer,
  newKey,
  ownFieldKey,
  optionFor,
  type FieldDefinition,
  type FieldOption,
  type FieldType,
  type NewOption,
  type RecordKind,
} from '@haycart/core';
import type { FieldShape } from '@haycart/api';
import { and, asc, eq, sql } from 'drizzle-orm';
import type { WorkspaceTx } from '../platform/database/database';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { newId } from '../platform/new-id';
import { field } from './tables';

/** A field as somebody asks for it: its key is chosen for it, and the keys of new options too. */
export interface NewField extends Pick<FieldDefinition, 'record' | 'label' | 'type'> {
  required?: boolean | undefined;
  help?: string | undefined;
  group?: string | undefined;
  unique?: boolean | undefined;
  options?: (Omit<FieldOption, 'key'> & { key?: string | undefined })[] | undefined;
}

/** What may be changed about a field. */
export type FieldChange = Partial<Pick<NewField, 'label' | 'required' | 'help' | 'group' | 'unique' | 'options'>> & {
  retired?: boolean | undefined;
};

/** The fields of a workspace's records: built in, changed and made. */
@Injectable()
export class FieldsService {
  /** The fields in use. */
  async all(tx: WorkspaceTx): Promise<FieldShape[]> {
    return (await this.withRetired(tx)).filter(({ retired }) => !retired);
  }

  async withRetired(tx: WorkspaceTx): Promise<FieldShape[]> {
    const rows = await tx.db
      .select()
      .from(field)
      .where(eq(field.workspaceId, tx.workspaceId))
      .orderBy(asc(field.position), asc(field.key));
    const changed = new Map(rows.filter(({ builtIn }) => builtIn).map((row) => [`${row.record} ${row.key}`, row]));
    const builtIn = BUILT_IN_FIELDS.map((definition): FieldShape => {
      const row = changed.get(`${definition.record} ${definition.key}`);
      return {
        ...definition,
        id: row?.id ?? null,
        required: definition.required || (row?.required ?? false),
        label: row?.label ?? definition.label,
        ...(row?.help ? { help: row.help } : {}),
        ...(row?.groupName ? { group: row.groupName } : {}),
      };
    });
    const made = rows
      .filter((row) => !row.builtIn)
      .map((row): FieldShape => ({
        id: row.id,
        record: row.record,
        key: row.key,
        label: row.label,
        type: row.type,
        builtIn: false,
        required: row.required,
        ...(row.options ? { options: row.options } : {}),
        ...(row.help ? { help: row.help } : {}),
        ...(row.groupName ? { group: row.groupName } : {}),
        ...(row.isUnique ? { unique: true } : {}),
        ...(row.retiredAt ? { retired: true } : {}),
      }));
    return [...builtIn, ...made];
  }

  /** Makes fields whose keys are chosen already, or changes what a workspace may change about built-in ones. */
  async add(tx: WorkspaceTx, definitions: readonly Omit<FieldDefinition, 'kept'>[]): Promise<void> {
    if (!definitions.length) return;
    const [{ last } = { last: 0 }] = await tx.db
      .select({ last: sql<number>`coalesce(max(${field.position}), 0)::int` })
      .from(field);
    const rows = definitions.map(({ group, unique, ...definition }, index) => ({
      workspaceId: tx.workspaceId,
      id: newId(),
      position: last + index + 1,
      groupName: group ?? null,
      isUnique: unique ?? false,
      ...definition,
    }));
    await tx.db.insert(field).values(rows);
  }

  /** Makes fields, all or none. @throws ProblemError 422 with the place of everything that is wrong, by their order. */
  async make(tx: WorkspaceTx, wanted: readonly NewField[], at: (index: number) => string): Promise<FieldShape[]> {
    await oneAtATime(tx, 'fields');
    const known = await this.withRetired(tx);
    const made: FieldDefinition[] = [];
    const problems = wanted.flatMap(
      ({ record, label, type, required = false, help, group, unique, options }, index) => {
        const others = [...known.filter(({ retired }) => !retired), ...made];
        const keys = [...known, ...made].filter((one) => one.record === record).map(({ key }) => key);
        const one: FieldDefinition = {
          record,
          key: ownFieldKey(label, keys),
          label: label.trim(),
          type,
          required,
          builtIn: false,
          ...(help ? { help } : {}),
          ...(group ? { group } : {}),
          ...(unique ? { unique } : {}),
          ...(options ? { options: withKeys(options, []) } : {}),
        };
        made.push(one);
        return problemsAt(checkField(one, others), at(index));
      },
    );
    if (problems.length) throw new ProblemError('refused', problems[0]!.message, problems);
    await this.add(tx, made);
    const fresh = await this.all(tx);
    return made.map(({ record, key }) => fresh.find((one) => one.record === record && one.key === key)!);
  }

  /** Changes a field; of a built-in one the label, the help and whether it is needed. */
  async change(tx: WorkspaceTx, record: RecordKind, key: string, change: FieldChange): Promise<FieldShape> {
    await oneAtATime(tx, 'fields');
    const known = await this.withRetired(tx);
    const before = known.find((one) => one.record === record && one.key === key);
    if (!before) throw new ProblemError('not-found', `A ${record} has no field ${key}.`);
    refuseFixed(before, change);
    const { id, retired: was = false, ...definition } = before;
    const { retired = was, options, label = before.label, required = before.required } = change;
    const { help = before.help, group = before.group, unique = before.unique ?? false } = change;
    const after: FieldDefinition = {
      ...definition,
      label: label.trim(),
      required,
      ...(help === undefined ? {} : { help }),
      ...(group === undefined ? {} : { group: group.trim() }),
      unique,
      ...(options ? { options: withKeys(options, before.options ?? []) } : {}),
    };
    const problems = retired
      ? []
      : checkField(
          after,
          known.filter((one) => !one.retired),
        );
    if (problems.length) throw new ProblemError('refused', problems[0]!.text, problemsAt(problems));
    const retiredAt = retired ? new Date() : null;
    if (id === null) await this.add(tx, [after]);
    else
      await tx.db
        .update(field)
        .set({
          label: after.label,
          required,
          help: help || null,
          groupName: after.group || null,
          isUnique: unique,
          options: after.options ?? null,
          retiredAt,
        })
        .where(and(eq(field.workspaceId, tx.workspaceId), eq(field.id, id)));
    return (await this.withRetired(tx)).find((one) => one.record === record && one.key === key)!;
  }

  /**
   * Adds options with keys that were chosen upon the fields as they were read before.
   *
   * @throws Error when somebody gave a field such an option meanwhile: whoever planned with it plans again.
   */
  async addOptions(tx: WorkspaceTx, wanted: readonly NewOption[]): Promise<void> {
    await oneAtATime(tx, 'fields');
    const known = await this.all(tx);
    const fields = new Map<FieldShape, FieldOption[]>();
    for (const { record, field: key, option } of wanted) {
      const one = known.find((candidate) => candidate.record === record && candidate.key === key);
      if (!one) throw new Error(`The field ${key} went while a route wanted to add to it.`);
      const options = fields.get(one) ?? [...(one.options ?? [])];
      const same = optionFor(options, option.label);
      if (same && same.key !== option.key) throw new Error(`The field ${key} got such an option meanwhile.`);
      if (!same) options.push(option);
      fields.set(one, options);
    }
    for (const [{ record, key }, options] of fields)
      await tx.db
        .update(field)
        .set({ options })
        .where(and(eq(field.workspaceId, tx.workspaceId), eq(field.record, record), eq(field.key, key)));
  }

  /** Gives a field another type; its values must have been converted. */
  async retype(tx: WorkspaceTx, record: RecordKind, key: string, type: FieldType, options: FieldOption[] | null) {
    await tx.db
      .update(field)
      .set({ type, options, isUnique: false })
      .where(and(eq(field.workspaceId, tx.workspaceId), eq(field.record, record), eq(field.key, key)));
  }
}

/** Options with their keys: those that are known keep theirs, new ones get one that no option has or had. */
function withKeys(options: NonNullable<NewField['options']>, before: readonly FieldOption[]): FieldOption[] {
  const unknown = options.find(({ key }) => key !== undefined && !before.some((option) => option.key === key));
  if (unknown)
    throw new ProblemError('refused', `There is no option with the key “${unknown.key}”.`, [
      {
        at: jsonPointer(['options', options.indexOf(unknown), 'key']),
        code: 'unknown-option',
        message: 'A new option is given without a key.',
      },
    ]);
  const left = before.filter(({ key }) => !options.some((option) => option.key === key));
  const keys = before.map(({ key }) => key);
  const kept = options.map(({ key, label, aliases = [], colour, retired = false }): FieldOption => {
    const own = key ?? newKey(label, keys);
    keys.push(own);
    return {
      key: own,
      label: label.trim(),
      ...(aliases.length ? { aliases: aliases.map((alias) => alias.trim()) } : {}),
      ...(colour ? { colour } : {}),
      ...(retired ? { retired } : {}),
    };
  });
  // What is left out is retired, not forgotten: records may hold it.
  return [...kept, ...left.map((option) => ({ ...option, retired: true }))];
}

function refuseFixed(before: FieldShape, { retired, options, required, unique }: FieldChange): void {
  if (before.builtIn && (retired || options || unique))
    throw new ProblemError(
      'conflict',
      `${before.label} is built in. Its label, its help and whether it is needed can be changed.`,
    );
  const always = BUILT_IN_FIELDS.find(({ record, key }) => record === before.record && key === before.key)?.required;
  if (always && required === false)
    throw new ProblemError('conflict', `A ${before.record} cannot be without its ${before.label.toLowerCase()}.`);
  if (before.kept && required) throw new ProblemError('conflict', `${before.label} is kept by Hay Cart itself.`);
}
