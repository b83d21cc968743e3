import {
  comparedFor,
  foldCase,
  type Compared,
  type Comparison,
  type NumberComparison,
  type ConditionOn,
  type ConditionSetting,
  type FieldDefinition,
  type FieldPart,
} from '@haycart/core';
import type { Values } from '../../platform/database/values';
import { COLUMNS_OF } from '../field-columns';

/**
 * A condition as SQL on the row `r`, asking exactly what the core's `evaluate` asks: every clause goes through the same
 * comparison. The condition must have passed `checkCondition`.
 */
export function conditionSql(
  condition: ConditionOn<FieldPart>,
  fields: readonly FieldDefinition[],
  setting: ConditionSetting,
  values: Values,
  negated = false,
): string {
  const part = (inner: ConditionOn<FieldPart>) => conditionSql(inner, fields, setting, values, negated);
  if ('all' in condition) return condition.all.length ? `(${condition.all.map(part).join(' and ')})` : 'true';
  if ('any' in condition) return condition.any.length ? `(${condition.any.map(part).join(' or ')})` : 'false';
  if ('not' in condition) return `not ${conditionSql(condition.not, fields, setting, values, true)}`;
  const field = fields.find(({ key }) => key === condition.of.field);
  const compared = comparedFor(condition, { typeOf: () => field?.type }, setting);
  return field && typeof compared !== 'string' ? comparedSql(compared, field, values, negated) : 'false';
}

/** Unknown counts as not met: of itself where nothing turns it round, so that an index can answer; else by saying so. */
function comparedSql({ comparison, not }: Compared, field: FieldDefinition, values: Values, negated: boolean): string {
  const sql = comparison.of === 'blank' ? blankSql(field, values) : comparisonSql(comparison, field, values);
  if (not) return `not coalesce(${sql}, false)`;
  return negated ? `coalesce(${sql}, false)` : `(${sql})`;
}

/** Whether a list is its own kind of column. */
function isArray({ builtIn, type }: FieldDefinition): boolean {
  return builtIn && type === 'several-of';
}

function isTime({ builtIn, type }: FieldDefinition): boolean {
  return builtIn && type === 'date-time';
}

/** The value as text, wherever it is kept. */
function textOf(field: FieldDefinition, values: Values): string {
  return field.builtIn ? `r.${field.key}` : `(r.custom ->> ${values.add(field.key, 'text')})`;
}

function blankSql(field: FieldDefinition, values: Values): string {
  if (field.builtIn) return COLUMNS_OF[field.type].blank(field.key);
  return `coalesce(${textOf(field, values)}, '') in ('', '[]')`;
}

function comparisonSql(
  comparison: Exclude<Comparison, { of: 'blank' }>,
  field: FieldDefinition,
  values: Values,
): string {
  switch (comparison.of) {
    case 'text':
      return textSql(comparison, field, values);
    case 'number':
      return numberSql(comparison, field, values);
    case 'time':
      return timeSql(comparison, field, values);
    case 'yes-no':
      return field.builtIn
        ? `r.${field.key} = ${values.add(comparison.wanted)}`
        : holds(field, comparison.wanted, values);
    case 'options':
      return optionsSql(comparison, field, values);
  }
}

function textSql(
  { how, wanted, caseSensitive }: Extract<Comparison, { of: 'text' }>,
  field: FieldDefinition,
  values: Values,
): string {
  const plain = textOf(field, values);
  const text = caseSensitive ? plain : `lower(${plain})`;
  const patterns = wanted.map((one) => {
    const literal = (caseSensitive ? one : foldCase(one)).replace(/[\\%_]/g, '\\$&');
    return { equals: literal, contains: `%${literal}%`, starts: `${literal}%`, ends: `%${literal}` }[how];
  });
  const clauses = patterns.map((pattern) =>
    how === 'equals'
      ? `${text} = ${values.add(pattern.replace(/\\([\\%_])/g, '$1'), 'text')}`
      : `${text} like ${values.add(pattern, 'text')}`,
  );
  return `(${clauses.join(' or ')})`;
}

function numberSql(
  { least, most, over, under, currency }: NumberComparison,
  field: FieldDefinition,
  values: Values,
): string {
  const { number, same } = numberOf(field, currency, values);
  return [
    ...(same ? [same] : []),
    ...(least === undefined ? [] : [`${number} >= ${values.add(least, 'numeric')}`]),
    ...(most === undefined ? [] : [`${number} <= ${values.add(most, 'numeric')}`]),
    ...(over === undefined ? [] : [`${number} > ${values.add(over, 'numeric')}`]),
    ...(under === undefined ? [] : [`${number} < ${values.add(under, 'numeric')}`]),
  ].join(' and ');
}

function numberOf(
  field: FieldDefinition,
  currency: string | undefined,
  values: Values,
): { number: string; same: string | null } {
  if (field.builtIn && field.type === 'money')
    return {
      number: `r.${field.key}_amount`,
      same: currency === undefined ? null : `r.${field.key}_currency = ${values.add(currency, 'text')}`,
    };
  if (field.builtIn) return { number: `r.${field.key}`, same: null };
  const value = `r.custom -> ${values.add(field.key, 'text')}`;
  const [amount, same] =
    field.type === 'money'
      ? [
          `${value} -> 'amount'`,
          currency === undefined ? null : `${value} ->> 'currency' = ${values.add(currency, 'text')}`,
        ]
      : [value, null];
  return { number: `case when jsonb_typeof(${amount}) = 'number' then (${amount})::numeric end`, same };
}

function timeSql(
  { from, before }: Extract<Comparison, { of: 'time' }>,
  field: FieldDefinition,
  values: Values,
): string {
  const column = isTime(field) ? `r.${field.key}` : `${textOf(field, values)} collate "C"`;
  const bound = (at: string) => (isTime(field) ? values.add(`${at}T00:00:00Z`, 'timestamptz') : values.add(at, 'text'));
  const clauses = [
    ...(from === undefined ? [] : [`${column} >= ${bound(from)}`]),
    ...(before === undefined ? [] : [`${column} < ${bound(before)}`]),
  ];
  return clauses.join(' and ') || 'true';
}

function optionsSql(
  { how, wanted }: Extract<Comparison, { of: 'options' }>,
  field: FieldDefinition,
  values: Values,
): string {
  if (!wanted.length) return how === 'any' ? 'false' : 'true';
  if (isArray(field)) return `r.${field.key} ${how === 'any' ? '&&' : '@>'} ${values.add(wanted, 'text[]')}`;
  if (field.builtIn && how === 'any') return `r.${field.key} = any(${values.add(wanted, 'text[]')})`;
  const clauses = wanted.map((key) =>
    field.builtIn
      ? `r.${field.key} = ${values.add(key, 'text')}`
      : holds(field, field.type === 'several-of' ? [key] : key, values),
  );
  return `(${clauses.join(how === 'any' ? ' or ' : ' and ')})`;
}

/** Containment: what the index on `custom` finds. */
function holds(field: FieldDefinition, value: unknown, values: Values): string {
  return `r.custom @> ${values.add(JSON.stringify({ [field.key]: value }), 'jsonb')}`;
}
