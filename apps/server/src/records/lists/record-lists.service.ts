import { Inject, Injectable } from '@nestjs/common';
import {
  canGroupBy,
  canSortBy,
  checkCondition,
  foldCase,
  listedFields,
  normalEmail,
  normalPhone,
  readSort,
  type ConditionSetting,
  type Destination,
  type FieldDefinition,
  type RecordCondition,
  type RecordKind,
} from '@haycart/core';
import type { GroupCount, Page, RecordShape } from '@haycart/api';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError, problemsAt } from '../../platform/errors/problem-error';
import { Values } from '../../platform/database/values';
import { readListCursor, writeListCursor, type ListCursor } from '../../platform/list-cursor';
import { conditionSql } from './condition-sql';
import { blankRows, cursorText, filledRows, listOrder, type ListOrder } from './list-order';
import { openClockSql } from '../assignments/clock-sql';
import { searched } from './searched';
import { RecordShapes } from '../record-shapes';
import type { RecordRow } from '../record-rows';

/** What a list of records is narrowed to, as it stands in an address. */
export interface RecordQuery {
  email?: string;
  phone?: string;
  /** A part of the name or address. */
  q?: string;
  /** An intake, by its key: records that something wrote which arrived there. In statements, by its id: see `withIntake`. */
  through?: string;
  /** A condition as JSON. */
  filter?: string;
  /** The key of a field; from the other end with `-` before it. */
  sort?: string;
}

/** Who looks at a list, and at what: everything that reading an address takes. */
export interface ListSetting {
  destination: Destination;
  condition: ConditionSetting;
}

type ListedRow = RecordRow & { at: string | null };

/** A total beyond this is not counted for a page; `count` counts it. */
const COUNTED = 10_000;
const MOST_GROUPS = 200;
const NO_INTAKE = '00000000-0000-0000-0000-000000000000';

/** Lists of contacts, companies, leads and deals: filtered, sorted, searched and counted by the database. */
@Injectable()
export class RecordListsService {
  constructor(@Inject(RecordShapes) private readonly shapes: RecordShapes) {}

  /** One page. `total` is absent when there are more than ten thousand. */
  async page(
    tx: WorkspaceTx,
    kind: RecordKind,
    asked: RecordQuery,
    setting: ListSetting,
    limit: number,
    after: string | undefined,
  ): Promise<Page<RecordShape>> {
    const cursor = readListCursor(after);
    const order = readOrder(kind, asked, setting);
    const query = await withIntake(tx, asked);
    const rows = await this.#rows(tx, kind, query, setting, order, cursor, limit + 1);
    const total = cursor ? undefined : await this.#total(tx, kind, query, setting, rows.length, limit);
    const shown = rows.slice(0, limit);
    const last = rows.length > limit ? shown[shown.length - 1] : undefined;
    return {
      items: await this.shapes.of(tx, kind, shown),
      ...(last ? { next: writeListCursor({ value: last.at, id: last.id }) } : {}),
      ...(total === undefined ? {} : { total }),
    };
  }

  /** How many records there are, exactly. */
  async count(tx: WorkspaceTx, kind: RecordKind, asked: RecordQuery, setting: ListSetting): Promise<number> {
    const query = await withIntake(tx, asked);
    const values = new Values([tx.workspaceId]);
    const [row] = await tx.unnamed<{ total: number }>(
      `select count(*)::int as total from ${kind} r where ${whereSql(kind, query, setting, values)}`,
      values.all,
    );
    return row!.total;
  }

  /** How many records hold each value of a field, the most frequent first; `null` counts those that hold none. */
  async groups(
    tx: WorkspaceTx,
    kind: RecordKind,
    by: string,
    asked: RecordQuery,
    setting: ListSetting,
  ): Promise<GroupCount[]> {
    const field = listedFields(kind, setting.destination.fields).find(({ key }) => key === by);
    if (!field || !canGroupBy(field)) throw new ProblemError('refused', `Records cannot be counted by “${by}”.`);
    const query = await withIntake(tx, asked);
    const values = new Values([tx.workspaceId]);
    const [from, value] = groupedBy(field, values);
    return tx.unnamed<{ value: string | null; count: number }>(
      `select ${value} as value, count(*)::int as count from ${kind} r ${from}
       where ${whereSql(kind, query, setting, values)} group by 1 order by 2 desc, 1 limit ${MOST_GROUPS}`,
      values.all,
    );
  }

  /** The ids of what a query finds, in its order. @throws ProblemError when there are more than `most`. */
  async ids(
    tx: WorkspaceTx,
    kind: RecordKind,
    asked: RecordQuery,
    setting: ListSetting,
    most: number,
  ): Promise<string[]> {
    const order = readOrder(kind, asked, setting);
    const query = await withIntake(tx, asked);
    const rows = await this.#rows(tx, kind, query, setting, order, null, most + 1);
    if (rows.length > most)
      throw new ProblemError('refused', `At most ${most} records are changed at once. Narrow the list first.`);
    return rows.map(({ id }) => id);
  }

  /** Everything that a query finds, in its order and in portions, so that any number fits into memory. */
  async *portions(
    tx: WorkspaceTx,
    kind: RecordKind,
    asked: RecordQuery,
    setting: ListSetting,
    size: number,
  ): AsyncGenerator<RecordShape[]> {
    const order = readOrder(kind, asked, setting);
    const query = await withIntake(tx, asked);
    let cursor: ListCursor | null = null;
    for (;;) {
      const rows: ListedRow[] = await this.#rows(tx, kind, query, setting, order, cursor, size);
      if (rows.length) yield this.shapes.of(tx, kind, rows);
      const last = rows[rows.length - 1];
      if (!last || rows.length < size) return;
      cursor = { value: last.at, id: last.id };
    }
  }

  /** Rows of a page: first those with something to be ordered by, then those without. Each part walks an index. */
  async #rows(
    tx: WorkspaceTx,
    kind: RecordKind,
    query: RecordQuery,
    setting: ListSetting,
    order: ListOrder,
    cursor: ListCursor | null,
    limit: number,
  ): Promise<ListedRow[]> {
    const way = order.down ? 'desc' : 'asc';
    const read = (place: typeof filledRows, by: string, most: number) => {
      const values = new Values([tx.workspaceId]);
      const where = `${whereSql(kind, query, setting, values)} and ${place(order, cursor, values)}`;
      return tx.unnamed<ListedRow>(
        `select r.*, ${cursorText(order)} as at, ${openClockSql('r.id')} as answer from ${kind} r where ${where} order by ${by} limit ${values.add(most)}`,
        values.all,
      );
    };
    const filled = cursor?.value === null ? [] : await read(filledRows, `${order.by} ${way}, r.id ${way}`, limit);
    if (!order.blanks || filled.length === limit) return filled;
    // Rows that follow the filled ones begin at their own beginning.
    const blank = await read(
      (_, __, values) => blankRows(order, cursor?.value === null ? cursor : null, values),
      `r.id ${way}`,
      limit - filled.length,
    );
    return [...filled, ...blank];
  }

  async #total(
    tx: WorkspaceTx,
    kind: RecordKind,
    query: RecordQuery,
    setting: ListSetting,
    read: number,
    limit: number,
  ): Promise<number | undefined> {
    if (read <= limit) return read;
    const values = new Values([tx.workspaceId]);
    const [row] = await tx.unnamed<{ total: number }>(
      `select count(*)::int as total from (select 1 from ${kind} r where ${whereSql(kind, query, setting, values)} limit ${COUNTED + 1}) c`,
      values.all,
    );
    return row!.total > COUNTED ? undefined : row!.total;
  }
}

function readOrder(kind: RecordKind, { sort }: RecordQuery, { destination }: ListSetting): ListOrder {
  const fields = listedFields(kind, destination.fields);
  if (!sort) return listOrder(kind, undefined, fields);
  const read = readSort(sort);
  const field = fields.find(({ key }) => key === read.field);
  if (!field || !canSortBy(field))
    throw new ProblemError('refused', `A list cannot be sorted by “${read.field}”.`, [
      { at: '/sort', code: 'cannot-sort', message: 'Name a field of the record that has an order.' },
    ]);
  return listOrder(kind, read, fields);
}

/**
 * A query that names its intake by the id. How much came through an intake decides how its records are best found, and the
 * database knows that of an id alone.
 */
export async function withIntake(tx: WorkspaceTx, query: RecordQuery): Promise<RecordQuery> {
  if (!query.through) return query;
  const [intake] = await tx.statement<{ id: string }>(
    'intake_of_list',
    'select id from intake where workspace_id = $1 and key = $2',
    [tx.workspaceId, query.through],
  );
  return { ...query, through: intake?.id ?? NO_INTAKE };
}

/** The rows that a query `withIntake` finds, as SQL on the row `r`; `$1` is the workspace. */
export function whereSql(
  kind: RecordKind,
  query: RecordQuery,
  { destination, condition }: ListSetting,
  values: Values,
): string {
  const clauses = ['r.workspace_id = $1'];
  const withKey = (keyKind: string, key: string) =>
    clauses.push(
      `exists (select 1 from identity_key k where k.workspace_id = r.workspace_id and k.record_kind = '${kind}' and k.key_kind = '${keyKind}' and k.value = ${values.add(key, 'text')} and k.record_id = r.id)`,
    );
  if (query.email !== undefined) withKey('email', emailKey(query.email));
  if (query.phone !== undefined) withKey('phone', phoneKey(query.phone, destination.defaultCountry));
  const q = query.q?.trim();
  if (q) clauses.push(`${searched(kind)} like ${values.add(`%${foldCase(q).replace(/[\\%_]/g, '\\$&')}%`, 'text')}`);
  if (query.through)
    clauses.push(
      `r.id in (select c.record_id from submission s
         join run u on u.workspace_id = s.workspace_id and u.submission_id = s.id
         join record_change c on c.workspace_id = u.workspace_id and c.cause_id = u.attempt_id and c.cause_kind = 'run' and c.record_kind = '${kind}'
         where s.workspace_id = $1 and s.intake_id = ${values.add(query.through, 'uuid')})`,
    );
  if (query.filter) {
    const fields = listedFields(kind, destination.fields);
    clauses.push(conditionSql(readFilter(query.filter, fields, condition), fields, condition, values));
  }
  return clauses.join(' and ');
}

/** A filter from an address, checked: what is wrong with it is told with its place. */
function readFilter(text: string, fields: readonly FieldDefinition[], setting: ConditionSetting): RecordCondition {
  let filter: unknown;
  try {
    filter = JSON.parse(text);
  } catch {
    throw new ProblemError('refused', 'filter takes a condition as JSON.');
  }
  if (!isCondition(filter, 0))
    throw new ProblemError('refused', 'filter takes {all}, {any}, {not} or {of: {field}, test, value}.');
  const typeOf = ({ field }: { field: string }) => fields.find(({ key }) => key === field)?.type;
  const problems = checkCondition(filter, { typeOf }, setting);
  if (problems.length) throw new ProblemError('refused', problems[0]!.text, problemsAt(problems, '/filter'));
  return filter;
}

const DEEPEST = 20;

function isCondition(given: unknown, depth: number): given is RecordCondition {
  if (typeof given !== 'object' || given === null || depth > DEEPEST) return false;
  const names = Object.keys(given);
  const condition = given as Record<string, unknown>;
  if ('all' in condition || 'any' in condition) {
    const parts = condition.all ?? condition.any;
    return names.length === 1 && Array.isArray(parts) && parts.every((part) => isCondition(part, depth + 1));
  }
  if ('not' in condition) return names.length === 1 && isCondition(condition.not, depth + 1);
  const { of, test, caseSensitive } = condition;
  return (
    names.every((name) => ['of', 'test', 'value', 'caseSensitive'].includes(name)) &&
    typeof test === 'string' &&
    typeof (of as { field?: unknown } | null)?.field === 'string' &&
    ['undefined', 'boolean'].includes(typeof caseSensitive)
  );
}

/** What joins a row `r` with its values of a field, and the value. */
export function groupedBy({ builtIn, key, type }: FieldDefinition, values: Values): [from: string, value: string] {
  if (builtIn && type === 'several-of') return [`left join lateral unnest(r.${key}) one (value) on true`, 'one.value'];
  if (builtIn) return ['', `r.${key}::text`];
  const value = values.add(key, 'text');
  if (type === 'several-of')
    return [
      `left join lateral jsonb_array_elements_text(case when jsonb_typeof(r.custom -> ${value}) = 'array' then r.custom -> ${value} else '[]' end) one (value) on true`,
      'one.value',
    ];
  return ['', `r.custom ->> ${value}`];
}

function emailKey(text: string): string {
  const result = normalEmail(text);
  return result.ok ? result.email : text;
}

function phoneKey(text: string, country: string): string {
  const result = normalPhone(text.startsWith(' ') ? `+${text.trim()}` : text, country);
  return result.ok ? result.phone : text;
}
