import type { FieldType } from '../field/field-definition';
import type { ConditionTest } from './condition-test';
import { above } from './tests/above';
import { atLeast } from './tests/at-least';
import { atMost } from './tests/at-most';
import { beforeDate } from './tests/before-date';
import { below } from './tests/below';
import { between } from './tests/between';
import { blank } from './tests/blank';
import { contains } from './tests/contains';
import { containsNot } from './tests/contains-not';
import { endsWith } from './tests/ends-with';
import { filled } from './tests/filled';
import { fromDate } from './tests/from-date';
import { holdsAllOf } from './tests/holds-all-of';
import { inTeam } from './tests/in-team';
import { is } from './tests/is';
import { isAnyOf } from './tests/is-any-of';
import { isMe } from './tests/is-me';
import { isNoneOf } from './tests/is-none-of';
import { isNot } from './tests/is-not';
import { isNumber } from './tests/is-number';
import { lastDays } from './tests/last-days';
import { nextDays } from './tests/next-days';
import { no } from './tests/no';
import { onDate } from './tests/on-date';
import { startsWith } from './tests/starts-with';
import { yes } from './tests/yes';

/** Every test of a condition, in the order in which the builder offers them. */
export const CONDITION_TESTS: readonly ConditionTest[] = [
  is,
  isNot,
  contains,
  containsNot,
  startsWith,
  endsWith,
  isAnyOf,
  isNoneOf,
  holdsAllOf,
  isMe,
  inTeam,
  isNumber,
  atLeast,
  atMost,
  above,
  below,
  between,
  onDate,
  beforeDate,
  fromDate,
  lastDays,
  nextDays,
  yes,
  no,
  blank,
  filled,
];

const byName = new Map(CONDITION_TESTS.map((test) => [test.name, test]));

export function testNamed(name: string): ConditionTest | undefined {
  return byName.get(name);
}

/** The tests that fit a type of field. */
export function testsFor(type: FieldType): ConditionTest[] {
  return CONDITION_TESTS.filter(({ fits }) => fits.includes(type));
}
