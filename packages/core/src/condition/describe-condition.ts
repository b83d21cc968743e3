import { isMoney } from '../diff/record';
import type { FieldOption } from '../field/field-definition';
import { formatMoney } from '../reading/money';
import { listInWords } from '../text';
import type { Clause, ConditionOn } from './condition';
import { testNamed } from './registry';

/** The words for what a clause tests: its label, the options its values stand for, and the teams that it may name. */
export type NameFor<Of> = (of: Of) => {
  label: string;
  options?: readonly FieldOption[] | undefined;
  teams?: readonly { key: string; name: string }[] | undefined;
};

/** A condition as one sentence without a full stop: `Country is NL and (Value is at least GBP 500 or Tags is any of Press)`. */
export function describeCondition<Of>(condition: ConditionOn<Of>, nameFor: NameFor<Of>): string {
  if ('all' in condition) return joined(condition.all, 'and', nameFor) || 'anything';
  if ('any' in condition) return joined(condition.any, 'or', nameFor) || 'nothing';
  if ('not' in condition) return `not (${describeCondition(condition.not, nameFor)})`;
  return describeClause(condition, nameFor);
}

/** One clause as words. */
export function describeClause<Of>({ of, test, value, caseSensitive }: Clause<Of>, nameFor: NameFor<Of>): string {
  const { label, options = [], teams = [] } = nameFor(of);
  const entry = testNamed(test);
  const named = (one: unknown) =>
    isMoney(one)
      ? formatMoney(one)
      : entry?.wanted === 'team'
        ? (teams.find(({ key }) => key === one)?.name ?? String(one))
        : (options.find(({ key }) => key === one)?.label ?? String(one));
  const separator = entry?.wanted === 'numbers' ? 'and' : 'or';
  const wanted =
    value === undefined || entry?.wanted === 'none' ? '' : listInWords([value].flat().map(named), separator);
  const words =
    entry?.wanted === 'days' ? entry.label.replace('days', `${wanted} days`) : `${entry?.label ?? test} ${wanted}`;
  return `${label} ${words.trim()}${caseSensitive ? ' (capitals count)' : ''}`;
}

function joined<Of>(parts: readonly ConditionOn<Of>[], word: string, nameFor: NameFor<Of>): string {
  return parts
    .map((part) => {
      const words = describeCondition(part, nameFor);
      return ('all' in part || 'any' in part) && parts.length > 1 ? `(${words})` : words;
    })
    .join(` ${word} `);
}
