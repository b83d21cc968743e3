import { parse } from 'csv-parse/browser/esm/sync';
import { stringify } from 'csv-stringify/browser/esm/sync';
import { cleanValues, VALUE_SET_LIMITS, type ValueSet } from './value-set';

/** Far more than value sets hold. */
const LONGEST_FILE = 20_000_000;

/** Value sets as CSV (RFC 4180): a line for each value with the name of its set; `readValueSetsCsv` reads the same from it. */
export function valueSetsCsv(sets: readonly ValueSet[]): string {
  // A set without values has a line of its own, so that it is not lost.
  const lines = sets.flatMap(({ name, values }) => (values.length ? values : ['']).map((value) => [name, value]));
  return stringify([['Set', 'Value'], ...lines], { record_delimiter: '\r\n' });
}

/** The value sets of a file of two columns, the name of the set and a value; a sentence where it is none. */
export function readValueSetsCsv(text: string): ValueSet[] | string {
  if (text.length > LONGEST_FILE) return 'The file is larger than value sets can be.';
  const head = text.slice(0, text.search(/[\r\n]|$/));
  const delimiter = [',', ';', '\t'].sort((one, other) => head.split(other).length - head.split(one).length)[0]!;
  let lines: string[][];
  try {
    lines = parse(text, { bom: true, relax_column_count: true, skip_empty_lines: true, delimiter }) as string[][];
  } catch (problem) {
    return `The file cannot be read as CSV: ${problem instanceof Error ? problem.message : String(problem)}`;
  }
  if (/^(set|name)$/i.test(lines[0]?.[0]?.trim() ?? '')) lines = lines.slice(1);
  const sets = new Map<string, { name: string; values: string[] }>();
  for (const [name = '', ...values] of lines) {
    const plain = name.replace(/\s+/g, ' ').trim();
    if (plain === '') continue;
    const folded = plain.toLowerCase();
    const set = sets.get(folded) ?? { name: plain, values: [] };
    set.values.push(...values);
    sets.set(folded, set);
  }
  if (!sets.size) return 'The file has no line with the name of a set and a value, such as: North,Leeds';
  const read = [...sets.values()].map(({ name, values }) => ({ name, values: cleanValues(values) }));
  const large = read.find(({ values }) => values.length > VALUE_SET_LIMITS.values);
  if (large) return `“${large.name}” has more than ${VALUE_SET_LIMITS.values.toLocaleString('en-GB')} values.`;
  return read.length > 200 ? 'A file brings at most 200 sets.' : read;
}
