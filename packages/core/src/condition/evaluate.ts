import type { FieldType } from '../field/field-definition';
import type { FieldValue } from '../diff/record';
import { jsonPointer } from '../json';
import { error, type Problem } from '../problem';
import { meets, type Compared } from './comparison';
import { clausesOf, type Clause, type ConditionOn } from './condition';
import type { ConditionSetting } from './condition-test';
import { testNamed, testsFor } from './registry';

/** How what a clause tests is read: its value, and of which type it is. */
export interface ConditionReader<Of> {
  typeOf(of: Of, test: string): FieldType | undefined;
  valueOf(of: Of, test: string): FieldValue | null;
}

/** Whether a condition is met, and the clauses that decided it: those that were not met, or all that were. */
export interface Verdict<Of> {
  met: boolean;
  because: Clause<Of>[];
}

/**
 * Whether a condition is met. A clause that cannot be read is not met, nor is its opposite: nothing passes by a mistake.
 * An empty `all` is met, an empty `any` is not.
 */
export function evaluate<Of>(
  condition: ConditionOn<Of>,
  reader: ConditionReader<Of>,
  setting: ConditionSetting,
): Verdict<Of> {
  if (clausesOf(condition).some((clause) => typeof comparedFor(clause, reader, setting) === 'string'))
    return { met: false, because: clausesOf(condition) };
  return verdict(condition, reader, setting);
}

function verdict<Of>(condition: ConditionOn<Of>, reader: ConditionReader<Of>, setting: ConditionSetting): Verdict<Of> {
  if ('all' in condition || 'any' in condition) {
    const every = 'all' in condition;
    const parts = (every ? condition.all : condition.any).map((part) => verdict(part, reader, setting));
    const met = every ? parts.every((part) => part.met) : parts.some((part) => part.met);
    return { met, because: parts.filter((part) => part.met === met).flatMap(({ because }) => because) };
  }
  if ('not' in condition) {
    const { met, because } = verdict(condition.not, reader, setting);
    return { met: !met, because };
  }
  const compared = comparedFor(condition, reader, setting) as Compared;
  return { met: meets(compared, reader.valueOf(condition.of, condition.test)), because: [condition] };
}

/** What a clause compares with, or a sentence that says why it cannot be read. */
export function comparedFor<Of>(
  { of, test, value, caseSensitive = false }: Clause<Of>,
  { typeOf }: Pick<ConditionReader<Of>, 'typeOf'>,
  setting: ConditionSetting,
): Compared | string {
  const type = typeOf(of, test);
  const entry = testNamed(test);
  if (!type) return 'What is tested does not exist.';
  if (!entry) return `There is no test “${test}”.`;
  if (!entry.fits.includes(type)) return `The test “${entry.label}” does not fit this field.`;
  return entry.compare(value, { ...setting, type, caseSensitive });
}

/** Everything that is wrong with a condition, each with its place. */
export function checkCondition<Of>(
  condition: ConditionOn<Of>,
  reader: Pick<ConditionReader<Of>, 'typeOf'>,
  setting: ConditionSetting,
  way: readonly (string | number)[] = [],
): Problem[] {
  if ('all' in condition) return inGroup(condition.all, reader, setting, [...way, 'all']);
  if ('any' in condition) return inGroup(condition.any, reader, setting, [...way, 'any']);
  if ('not' in condition) return checkCondition(condition.not, reader, setting, [...way, 'not']);
  const compared = comparedFor(condition, reader, setting);
  return typeof compared === 'string' ? [error('condition-does-not-fit', compared, jsonPointer(way))] : [];
}

function inGroup<Of>(
  parts: readonly ConditionOn<Of>[],
  reader: Pick<ConditionReader<Of>, 'typeOf'>,
  setting: ConditionSetting,
  way: readonly (string | number)[],
): Problem[] {
  return parts.flatMap((part, index) => checkCondition(part, reader, setting, [...way, index]));
}

/** The test that a clause begins with in the builder, by the type of what it tests. */
export function firstTestFor(type: FieldType): string {
  return testsFor(type)[0]!.name;
}
