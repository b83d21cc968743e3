import { foldCase, meets, type Compared } from '../condition/comparison';
import type { ConditionSetting } from '../condition/condition-test';
import { testNamed } from '../condition/registry';
import type { ValueSet } from '../condition/value-set';
import { dayAfter, wantedDate, wantedTexts } from '../condition/wanted';
import type { Team } from '../people/team';
import type { FieldValue } from '../diff/record';
import { TIME_TYPES } from '../condition/condition-test';
import type { Column } from './column';
import type { CellTest } from './decision-table';
import { readCell, UNREAD } from './notation/cell-text';
import { isInSpans, orderedSpans, regionSpan, type Span } from './region';

/** What cells may name besides values. */
export interface CellSetting extends ConditionSetting {
  teams: Readonly<Record<string, Team>>;
  valueSets: Readonly<Record<string, ValueSet>>;
}

/**
 * What a cell comes down to. Spans are of texts such as regions, in order; texts are those of a value set, folded, with
 * `values` as they were written.
 */
export type CellCompared =
  | Compared
  | { spans: readonly Span[]; not: boolean }
  | { texts: ReadonlySet<string>; values: readonly string[]; not: boolean };

/** Tests that cells have beside those of conditions. */
const SET_TESTS: Readonly<Record<string, { not: boolean }>> = { 'in-set': { not: false }, 'not-in-set': { not: true } };

/** What a cell compares with, or a sentence that says why it cannot be read. */
export function comparedCell(cell: CellTest, column: Column, setting: CellSetting): CellCompared | string {
  if (cell.test === UNREAD) return whyUnread(String(cell.value), column, setting);
  const inSet = SET_TESTS[cell.test];
  if (inSet) return comparedSet(cell, column, setting, inSet.not);
  if (column.family === 'region') return comparedRegions(cell);
  if (cell.test === 'in-period') return comparedPeriod(cell, column);
  const test = testNamed(cell.test);
  if (!test) return `There is no test “${cell.test}”.`;
  if (!test.fits.includes(column.type)) return `The test “${test.label}” does not fit ${column.input.label}.`;
  const compared = test.compare(cell.value, { ...setting, type: column.type, caseSensitive: false });
  return typeof compared === 'string' ? compared : (goneOption(cell, column) ?? compared);
}

/** Whether a value meets what a cell compares with. Nothing is in no span, and so meets every opposite. */
export function meetsCell(compared: CellCompared, value: FieldValue | null): boolean {
  if ('comparison' in compared) return meets(compared, value);
  if ('texts' in compared) return textsOf(value).some((text) => compared.texts.has(foldCase(text))) !== compared.not;
  const inside = typeof value === 'string' && isInSpans(value, compared.spans);
  return inside !== compared.not;
}

function textsOf(value: FieldValue | null): string[] {
  return typeof value === 'string' ? [value] : Array.isArray(value) ? value : [];
}

/** Whether what a test compares with depends on the time of arrival. */
export function goesByTime({ test }: CellTest): boolean {
  return test === 'last-days' || test === 'next-days';
}

/** Why what was typed means nothing, or that it would be understood now. */
function whyUnread(typed: string, column: Column, { valueSets, teams, defaultCurrency }: CellSetting): string {
  const read = readCell(typed, column, { valueSets, teams, defaultCurrency });
  return read.ok ? `“${typed}” was not understood when it was typed. Type it again.` : read.text;
}

function comparedSet(
  { value }: CellTest,
  column: Column,
  { valueSets }: CellSetting,
  not: boolean,
): CellCompared | string {
  const set = typeof value === 'string' && Object.hasOwn(valueSets, value) ? valueSets[value] : undefined;
  if (!set) return `There is no value set “${String(value)}”. Choose another, or make it in Set up.`;
  const { texts, spans } = preparedSet(set);
  if (column.family === 'region') return typeof spans === 'string' ? spans : { spans, not };
  if (column.family !== 'text') return `A value set does not fit ${column.input.label}.`;
  return { texts, values: set.values, not };
}

const prepared = new WeakMap<ValueSet, { texts: ReadonlySet<string>; spans: readonly Span[] | string }>();

/** A set made ready to be searched; remembered, since many cells and submissions ask for the same. */
function preparedSet(set: ValueSet): { texts: ReadonlySet<string>; spans: readonly Span[] | string } {
  const before = prepared.get(set);
  if (before) return before;
  const made = { texts: new Set(set.values.map(foldCase)), spans: spansOf(set.values) };
  prepared.set(set, made);
  return made;
}

function comparedRegions({ test, value }: CellTest): CellCompared | string {
  if (test === 'blank' || test === 'filled') return { comparison: { of: 'blank' }, not: test === 'filled' };
  if (test !== 'is' && test !== 'is-not') return 'A region is tested by what it is, or by a value set.';
  const wanted = wantedTexts(value);
  return typeof wanted === 'string' ? wanted : comparedSpans(wanted, test === 'is-not');
}

function comparedSpans(regions: readonly string[], not: boolean): CellCompared | string {
  const spans = spansOf(regions);
  return typeof spans === 'string' ? spans : { spans, not };
}

function spansOf(regions: readonly string[]): Span[] | string {
  const spans: Span[] = [];
  for (const region of regions) {
    const span = regionSpan(region);
    if (typeof span === 'string') return span;
    spans.push(span);
  }
  return orderedSpans(spans);
}

/** Both days belong to it. */
function comparedPeriod({ value }: CellTest, { type, input }: Column): CellCompared | string {
  if (!TIME_TYPES.includes(type)) return `A period of days does not fit ${input.label}.`;
  const [first, last] = (Array.isArray(value) ? value : []).map(wantedDate);
  if (first === undefined || last === undefined || typeof first === 'string' || typeof last === 'string')
    return 'Type two days, such as 2027-03-01 to 2027-03-31.';
  if (first.date > last.date) return 'The period ends before it begins.';
  return { comparison: { of: 'time', from: first.date, before: dayAfter(last.date, 1) }, not: false };
}

/** A choice that the field no longer has. */
function goneOption({ test, value }: CellTest, { family, options, input }: Column): string | undefined {
  if (family !== 'options' || testNamed(test)?.wanted !== 'options') return undefined;
  const gone = [value].flat().find((key) => !options.some((option) => option.key === key));
  return gone === undefined ? undefined : `${input.label} has no choice “${String(gone)}”.`;
}
