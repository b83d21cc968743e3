import { optionFor } from '../../../field/field-value';
import type { FieldOption } from '../../../field/field-definition';
import { listInWords } from '../../../text';
import { areWeekdays, type Column } from '../../column';
import type { CellTest } from '../../decision-table';
import { readItems } from '../items';
import { didYouMean } from '../nearest';
import { bothEnds } from '../prefix';

/** A test of the choices that a text lists; a sentence where it lists something else. */
export function optionTest(test: string, typed: string, { options: choices, input }: Column): CellTest | string {
  const keys: string[] = [];
  for (const item of readItems(typed)) {
    const found = choices.length ? optionKeys(item, choices) : [item];
    if (!found) {
      const known = choices.filter(({ retired }) => !retired).map(({ label }) => label);
      return `${input.label} has no choice “${item}”. It has ${listInWords(known.slice(0, 12))}${known.length > 12 ? ' and others' : ''}.${didYouMean(item, known)}`;
    }
    keys.push(...found);
  }
  return keys.length ? { test, value: keys } : 'Type at least one choice.';
}

/** The choices that an item means: one, or a range of days of the week. */
function optionKeys(item: string, choices: readonly FieldOption[]): string[] | null {
  const one = optionFor(choices, item) ?? choices.find(({ key, label }) => sameName(label, item) || key === item);
  if (one) return [one.key];
  const ends = areWeekdays(choices) ? bothEnds(item) : null;
  const [first, last] = (ends ?? []).map((end) => choices.findIndex(({ key, label }) => isDayName(end, key, label)));
  if (first === undefined || last === undefined || first < 0 || last < first) return null;
  return choices.slice(first, last + 1).map(({ key }) => key);
}

function isDayName(text: string, key: string, label: string): boolean {
  return sameName(text, key) || sameName(text, label);
}

/** The label, or the key where another choice is called the same. */
export function labelOf(key: string, choices: readonly FieldOption[]): string {
  const choice = choices.find((one) => one.key === key);
  if (!choice) return key;
  return optionFor(choices, choice.label)?.key === key || choice.retired ? choice.label : key;
}

/** Whether two names are the same but for capitals. */
export function sameName(one: string, other: string): boolean {
  return one.trim().toLowerCase() === other.trim().toLowerCase();
}
