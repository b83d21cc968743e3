import { Injectable } from '@nestjs/common';
import { BUILT_IN_FIELDS, type FieldDefinition } from '@haycart/core';
import type { FieldShape } from '@haycart/api';
import { asc, eq } from 'drizzle-orm';
import { newId } from '../platform/new-id';
import type { WorkspaceTx } from '../platform/database/database';
import { field } from './tables';

/** The fields of a workspace's records: built in, changed and made. */
@Injectable()
export class FieldsService {
  async all(tx: WorkspaceTx): Promise<FieldShape[]> {
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
      }));
    return [...builtIn, ...made];
  }

  /** Makes fields, or changes what a workspace may change about built-in ones. */
  async add(tx: WorkspaceTx, definitions: readonly Omit<FieldDefinition, 'kept'>[]): Promise<void> {
    if (!definitions.length) return;
    const rows = definitions.map((definition, position) => ({
      workspaceId: tx.workspaceId,
      id: newId(),
      position,
      ...definition,
    }));
    await tx.db.insert(field).values(rows);
  }
}
