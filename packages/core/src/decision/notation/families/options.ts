import type { FamilyNotation } from '../family-notation';
import type { FieldOption } from '../../../field/field-definition';
import { quoted, showItems } from '../items';
import { afterWords } from '../prefix';
import { listOf } from './lists';
import { labelOf, optionTest, sameName } from './option-test';
import { startsLikeATest } from './text';

export const options: FamilyNotation = {
  examples: ['one of its choices', 'several, with commas', 'not this one', 'blank'],
  read(typed, column, { teams }) {
    const team = column.type === 'person' ? afterWords(typed, { 'in the team': 'in-team' }) : null;
    if (team) {
      const key = Object.keys(teams).find((one) => sameName(teams[one]!.name, team.rest) || one === team.rest);
      return key === undefined ? `There is no team “${team.rest}”.` : { test: 'in-team', value: key };
    }
    const { test, rest } = afterWords(typed, { not: 'is-none-of' }) ?? { test: 'is-any-of', rest: typed };
    return optionTest(test, rest, column);
  },
  show({ test, value }, { options: choices, type }, { teams }) {
    if (test === 'in-team' && type === 'person') return `in the team ${teams[String(value)]?.name ?? String(value)}`;
    if (test !== 'is-any-of' && test !== 'is-none-of') return null;
    const plain = showItems(listOf(value).map((key) => labelOf(key, choices)));
    if (test === 'is-none-of') return `not ${plain}`;
    return startsLikeATest(plain) ? quoted(labelOf(String([value].flat()[0]), choices)) + rest(value, choices) : plain;
  },
};

function rest(value: unknown, choices: readonly FieldOption[]): string {
  const others = listOf(value).slice(1);
  return others.length ? `, ${showItems(others.map((key) => labelOf(key, choices)))}` : '';
}
