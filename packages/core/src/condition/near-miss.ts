import type { FieldValue } from '../diff/record';
import type { Clause, ConditionOn } from './condition';
import { clausesOf } from './condition';
import type { ConditionSetting } from './condition-test';
import { evaluate, type ConditionReader } from './evaluate';
import { testNamed } from './registry';

/** A clause that alone stands in the way, and would not if the writing of the value did not count. */
export interface NearMiss<Of> {
  clause: Clause<Of>;
  /** `capitals`: they count in this clause. `writing`: spaces, punctuation or accents are different. */
  differs: 'capitals' | 'writing';
}

/**
 * Why a condition is all but met: which one clause would have to be read more kindly. `null` where it is met, or where
 * kinder reading would not help.
 */
export function nearMiss<Of extends object>(
  condition: ConditionOn<Of>,
  reader: ConditionReader<Of>,
  setting: ConditionSetting,
): NearMiss<Of> | null {
  if (evaluate(condition, reader, setting).met) return null;
  for (const clause of clausesOf(condition)) {
    if (testNamed(clause.test)?.wanted !== 'texts') continue;
    for (const differs of ['capitals', 'writing'] as const) {
      if (differs === 'capitals' && !clause.caseSensitive) continue;
      const kinder = differs === 'capitals' ? { ...clause, caseSensitive: false } : folded(clause);
      const replaced = replaceClause(condition, clause, kinder);
      const read = differs === 'capitals' ? reader : foldingReader(reader, kinder.of);
      if (evaluate(replaced, read, setting).met) return { clause, differs };
    }
  }
  return null;
}

/** The clause with what is wanted in folded writing; what it tests is an object of its own, so that a reader can tell it. */
function folded<Of extends object>({ of, value, ...rest }: Clause<Of>): Clause<Of> {
  return {
    ...rest,
    of: { ...of },
    caseSensitive: false,
    value: [value].flat().map((one) => foldWriting(String(one ?? ''))),
  };
}

function foldingReader<Of>(reader: ConditionReader<Of>, marked: Of): ConditionReader<Of> {
  return {
    ...reader,
    valueOf: (of, test) => (of === marked ? foldValue(reader.valueOf(of, test)) : reader.valueOf(of, test)),
  };
}

function foldValue(value: FieldValue | null): FieldValue | null {
  if (Array.isArray(value)) return value.map(foldWriting);
  return typeof value === 'string' ? foldWriting(value) : value;
}

function foldWriting(text: string): string {
  return text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{Nd}]+/gu, '');
}

function replaceClause<Of>(condition: ConditionOn<Of>, target: Clause<Of>, by: Clause<Of>): ConditionOn<Of> {
  if (condition === target) return by;
  if ('all' in condition) return { all: condition.all.map((part) => replaceClause(part, target, by)) };
  if ('any' in condition) return { any: condition.any.map((part) => replaceClause(part, target, by)) };
  if ('not' in condition) return { not: replaceClause(condition.not, target, by) };
  return condition;
}
