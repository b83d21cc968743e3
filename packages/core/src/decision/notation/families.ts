import { dayAfter, wantedNumber } from '../../condition/wanted';
import { isMoney } from '../../diff/record';
import { optionFor } from '../../field/field-value';
import type { FieldOption } from '../../field/field-definition';
import { readDate } from '../../reading/date-text';
import { formatMoney } from '../../reading/money';
import { listInWords } from '../../text';
import { areWeekdays, type Column, type Family } from '../column';
import type { CellTest } from '../decision-table';
import { minutesOf } from '../input-kinds/registry';
import { regionSpan } from '../region';
import type { FamilyNotation } from './family-notation';
import { quoted, readItems, showItems } from './items';
import { afterWords, bothEnds, wordsFor } from './prefix';

/** One value as itself, several as a list. */
const oneOrAll = (items: readonly string[]) => (items.length === 1 ? items[0]! : [...items]);
const listOf = (value: unknown) => [value].flat().map(String);

const TEXT_WORDS = {
  not: 'is-not',
  'starts with': 'starts-with',
  'ends with': 'ends-with',
  contains: 'contains',
  'not containing': 'contains-not',
};

const text: FamilyNotation = {
  examples: ['Leeds', 'Leeds, York', 'not Leeds', 'starts with Le', 'contains glass', 'in North', 'blank'],
  read(typed) {
    const { test, rest } = afterWords(typed, TEXT_WORDS) ?? { test: 'is', rest: typed };
    const items = readItems(rest);
    return items.length ? { test, value: oneOrAll(items) } : 'Type what to compare with.';
  },
  show({ test, value }) {
    const items = listOf(value);
    if (test !== 'is') {
      const words = wordsFor(test, TEXT_WORDS);
      return words && `${words} ${showItems(items)}`;
    }
    // What would be read as a test of its own is put in quotation marks.
    const plain = showItems(items);
    return startsLikeATest(plain) ? items.map(quoted).join(', ') : plain;
  },
};

/** Whether a text would be read as something else than itself. */
export function startsLikeATest(plain: string): boolean {
  return /^(any|anything|-|blank|not|in|starts|ends|contains|from|until|before)( |$)/i.test(plain);
}

const NUMBER_WORDS = {
  'at least': 'at-least',
  'at most': 'at-most',
  over: 'above',
  under: 'below',
  'more than': 'above',
  'less than': 'below',
};

const number: FamilyNotation = {
  examples: ['4', 'at least 4', 'at most 9', 'over 4', 'under 9', '4 to 9', 'blank'],
  read(typed, { type }, { defaultCurrency }) {
    const one = (part: string) => {
      const read = wantedNumber(part, { type, defaultCurrency });
      if (typeof read === 'string') return read;
      return read.currency === undefined ? read.number : { amount: read.number, currency: read.currency };
    };
    const ends = bothEnds(typed);
    if (ends) {
      const [least, most] = ends.map(one);
      if (typeof least === 'string' || typeof most === 'string')
        return `${typeof least === 'string' ? least : String(most)} A range is typed as 4 to 9.`;
      if (amountOf(least) > amountOf(most)) return 'The range ends before it begins.';
      return { test: 'between', value: [least, most] };
    }
    const { test, rest } = afterWords(typed, NUMBER_WORDS) ?? { test: 'is-number', rest: typed };
    const value = one(rest);
    return typeof value === 'string' ? `${value} Or a test such as: at least 4; 4 to 9.` : { test, value };
  },
  show({ test, value }) {
    const [first, last] = [value].flat().map((one) => (isMoney(one) ? formatMoney(one) : String(one)));
    if (test === 'between') return `${first} to ${last}`;
    if (test === 'is-number') return first ?? null;
    const words = wordsFor(test, NUMBER_WORDS);
    return words && `${words} ${first}`;
  },
};

function amountOf(value: unknown): number {
  return isMoney(value) ? value.amount : Number(value);
}

const day: FamilyNotation = {
  examples: ['2027-03-14', 'from 2027-03-14', 'before 2027-03-14', '2027-03-01 to 2027-03-31', 'in the last 7 days'],
  read(typed) {
    const days = /^(?:in the )?(last|next) (\d{1,5}) days?$/i.exec(typed);
    if (days) return { test: `${days[1]!.toLowerCase()}-days`, value: Number(days[2]) };
    const ends = bothEnds(typed);
    if (ends) {
      const [first, last] = ends.map(dateTyped);
      if (!first || !last) return 'Type two days, such as 2027-03-01 to 2027-03-31.';
      return first > last ? 'The period ends before it begins.' : { test: 'in-period', value: [first, last] };
    }
    const found = afterWords(typed, { from: 'from', since: 'from', before: 'before', until: 'until' });
    const date = dateTyped(found?.rest ?? typed);
    if (!date) return 'Type a day, such as 2027-03-14, or from, before or until a day.';
    if (found?.test === 'until') return { test: 'before', value: dayAfter(date, 1) };
    return { test: found?.test ?? 'on', value: date };
  },
  show({ test, value }) {
    if (test === 'last-days' || test === 'next-days') return `in the ${test.slice(0, 4)} ${String(value)} days`;
    if (test === 'in-period') return listOf(value).join(' to ');
    if (test === 'on') return String(value);
    return test === 'from' || test === 'before' ? `${test} ${String(value)}` : null;
  },
};

function dateTyped(typed: string): string | null {
  const read = readDate(typed, 'day-first');
  return read.ok ? read.date : null;
}

const yesNo: FamilyNotation = {
  examples: ['yes', 'no', 'blank'],
  read(typed) {
    const word = typed.toLowerCase();
    return word === 'yes' || word === 'no' ? { test: word } : 'Type yes or no.';
  },
  show: ({ test }) => (test === 'yes' || test === 'no' ? test : null),
};

const options: FamilyNotation = {
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

function optionTest(test: string, typed: string, { options: choices, input }: Column): CellTest | string {
  const keys: string[] = [];
  for (const item of readItems(typed)) {
    const found = choices.length ? optionKeys(item, choices) : [item];
    if (!found) {
      const known = choices.filter(({ retired }) => !retired).map(({ label }) => label);
      return `${input.label} has no choice “${item}”. It has ${listInWords(known.slice(0, 12))}${known.length > 12 ? ' and others' : ''}.`;
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
function labelOf(key: string, choices: readonly FieldOption[]): string {
  const choice = choices.find((one) => one.key === key);
  if (!choice) return key;
  return optionFor(choices, choice.label)?.key === key || choice.retired ? choice.label : key;
}

function sameName(one: string, other: string): boolean {
  return one.trim().toLowerCase() === other.trim().toLowerCase();
}

const SEVERAL_WORDS = { 'all of': 'holds-all-of', 'none of': 'is-none-of', 'any of': 'is-any-of', not: 'is-none-of' };

const several: FamilyNotation = {
  examples: ['any of A, B', 'all of A, B', 'none of A, B', 'blank'],
  read(typed, column) {
    const { test, rest: items } = afterWords(typed, SEVERAL_WORDS) ?? { test: 'is-any-of', rest: typed };
    return optionTest(test, items, column);
  },
  show({ test, value }, { options: choices }) {
    const words = wordsFor(test, SEVERAL_WORDS);
    return words && `${words} ${showItems(listOf(value).map((key) => labelOf(key, choices)))}`;
  },
};

const region: FamilyNotation = {
  examples: ['NL', 'NL, BE', 'NL 1000-1999', 'GB EH', 'not NL', 'in North', 'blank'],
  read(typed) {
    const { test, rest: items } = afterWords(typed, { not: 'is-not' }) ?? { test: 'is', rest: typed };
    const regions = readItems(items);
    const wrong = regions.map(regionSpan).find((span) => typeof span === 'string');
    if (typeof wrong === 'string') return wrong;
    return regions.length ? { test, value: oneOrAll(regions) } : 'Type a country such as NL.';
  },
  show({ test, value }) {
    if (test !== 'is' && test !== 'is-not') return null;
    return `${test === 'is-not' ? 'not ' : ''}${showItems(listOf(value))}`;
  },
};

const TIME_WORDS = { from: 'at-least', before: 'below', until: 'at-most' };

const timeOfDay: FamilyNotation = {
  examples: ['09:00 to 17:00', 'from 17:00', 'before 09:00'],
  read(typed) {
    const ends = bothEnds(typed);
    if (ends) {
      const [first, last] = ends.map(timeTyped);
      if (first === undefined || last === undefined || first === null || last === null) return TIME_HINT;
      return first > last ? 'The time ends before it begins.' : { test: 'between', value: [first, last] };
    }
    const found = afterWords(typed, TIME_WORDS);
    const minutes = timeTyped(found?.rest ?? '');
    return found && minutes !== null ? { test: found.test, value: minutes } : TIME_HINT;
  },
  show({ test, value }) {
    const [first, last] = [value].flat().map((minutes) => timeText(Number(minutes)));
    if (test === 'between') return `${first} to ${last}`;
    const words = wordsFor(test, TIME_WORDS);
    return words && `${words} ${first}`;
  },
};

const TIME_HINT = 'Type times such as 09:00 to 17:00, from 17:00, or before 09:00.';

function timeTyped(typed: string): number | null {
  return /^([01]?\d|2[0-3]):[0-5]\d$/.test(typed) ? minutesOf(typed.padStart(5, '0')) : null;
}

/** Minutes since midnight as the clock shows them: `09:30`. */
export function timeText(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}

export const NOTATIONS: Readonly<Record<Family, FamilyNotation>> = {
  text,
  number,
  day,
  'yes-no': yesNo,
  options,
  several,
  region,
  'time-of-day': timeOfDay,
};
