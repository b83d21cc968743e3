import { epochMoment } from './epoch';

/** Which of two numbers is the day, where a date is written `03/04/2027`. */
export type DateOrder = 'day-first' | 'month-first';

export type ReadDate =
  | { ok: true; date: string }
  /** `order-unknown`: it could be either of the two dates. */
  | { ok: false; code: 'not-a-date' | 'order-unknown'; either?: [string, string] };

const LANGUAGES = ['en', 'nl', 'de', 'fr', 'es', 'it', 'pt', 'da', 'sv', 'nb', 'fi', 'pl'];
/** Two digits of a year from here on belong to the last century. */
const PIVOT = 70;
/** Numbers in pairs, as phone numbers are written in many countries. */
const IN_PAIRS = /^\d{1,4}(?: \d{2,3}){3}/;
const NOT_A_DATE = { ok: false, code: 'not-a-date' } as const;

let months: ReadonlyMap<string, number> | undefined;

/**
 * A date as people write it, as ISO 8601 (`2027-04-03`): with numbers in any order that can be told, with the month's
 * name in a dozen languages, at the beginning of a time, or as seconds or milliseconds since 1970 (UTC). Where both numbers could be the day, `order` decides.
 *
 * @example readDate('3. April 2027') // { ok: true, date: '2027-04-03' }
 */
export function readDate(text: string, order?: DateOrder): ReadDate {
  const given = text.slice(0, 100).normalize('NFKC').trim().replace(/\s+/g, ' ').toLowerCase();
  const compact = /^(\d{4})(\d{2})(\d{2})$/.exec(given);
  if (compact) return dateOf(Number(compact[1]), Number(compact[2]), Number(compact[3]));
  const moment = epochMoment(given);
  if (moment) return { ok: true, date: moment.toISOString().slice(0, 10) };
  const words = given.replace(/(\d)(st|nd|rd|th|er|º|ª)(?![\p{L}])/gu, '$1').match(/\d+|[\p{L}]+/gu) ?? [];
  const named = words.findIndex((word) => monthNamed(word) !== undefined);
  return named === -1 ? numericDate(given, order) : withMonthName(words, named);
}

/** Reads `14 march 2027`, `march 14, 2027`, `sunday 14 march 2027 at 9:30`. */
function withMonthName(words: readonly string[], named: number): ReadDate {
  const month = monthNamed(words[named]!)!;
  const numbers = words.map((word) => (/^\d+$/.test(word) ? Number(word) : null));
  const before = lastNumber(numbers.slice(0, named));
  const after = numbers.slice(named + 1).filter((number) => number !== null);
  if (before !== null && before > 31) return dateOf(before, month, after[0] ?? 0);
  if (before !== null) return after.length ? dateOf(fullYear(after[0]!), month, before) : NOT_A_DATE;
  return after.length > 1 ? dateOf(fullYear(after[1]!), month, after[0]!) : NOT_A_DATE;
}

function lastNumber(numbers: readonly (number | null)[]): number | null {
  return numbers.findLast((number) => number !== null) ?? null;
}

function numericDate(given: string, order: DateOrder | undefined): ReadDate {
  const found = /^(?:\p{L}+\.?,? )?(\d{1,4}) ?[-/. ] ?(\d{1,2}) ?[-/. ] ?(\d{1,4})(?:$|[t ,].*)/u.exec(given);
  if (!found || IN_PAIRS.test(given)) return NOT_A_DATE;
  const [first, second, third] = found.slice(1).map(Number) as [number, number, number];
  if (found[1]!.length === 4) return dateOf(first, second, third);
  if (found[1]!.length === 3 || found[3]!.length === 3 || found[3]!.length === 1) return NOT_A_DATE;
  const year = fullYear(third);
  const [dayFirst, monthFirst] = [dateOf(year, second, first), dateOf(year, first, second)];
  if (!dayFirst.ok || !monthFirst.ok) return dayFirst.ok ? dayFirst : monthFirst;
  if (order === undefined && dayFirst.date !== monthFirst.date)
    return { ok: false, code: 'order-unknown', either: [dayFirst.date, monthFirst.date] };
  return order === 'month-first' ? monthFirst : dayFirst;
}

function fullYear(year: number): number {
  if (year > 99) return year;
  return year + (year >= PIVOT ? 1900 : 2000);
}

function dateOf(year: number, month: number, day: number): ReadDate {
  const date = `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
  const time = Date.parse(`${date}T00:00:00Z`);
  return year >= 1000 && year <= 9999 && !Number.isNaN(time) && new Date(time).toISOString().startsWith(date)
    ? { ok: true, date }
    : NOT_A_DATE;
}

function monthNamed(word: string): number | undefined {
  months ??= monthNames();
  return months.get(folded(word));
}

function monthNames(): Map<string, number> {
  const names = new Map<string, number>([['sept', 9]]);
  for (const language of LANGUAGES)
    for (const style of ['long', 'short'] as const)
      for (const spelled of [{ month: style }, { month: style, day: 'numeric' }] as const) {
        const format = new Intl.DateTimeFormat(language, { ...spelled, timeZone: 'UTC' });
        for (let month = 0; month < 12; month += 1) {
          const name = format.formatToParts(Date.UTC(2027, month, 1)).find(({ type }) => type === 'month')?.value ?? '';
          const word = folded(name);
          if (word.length > 2 && /^\p{L}+$/u.test(word) && !names.has(word)) names.set(word, month + 1);
        }
      }
  return names;
}

function folded(word: string): string {
  return word
    .normalize('NFKD')
    .replace(/[^\p{L}\p{Nd}]/gu, '')
    .toLowerCase();
}

/**
 * The order in which a column of dates is written, worked out from those where only one number can be the day. `null`
 * where nothing tells or the column has both.
 */
export function dateOrderOf(texts: readonly string[]): DateOrder | null {
  const orders = new Set<DateOrder>();
  for (const text of texts) {
    const [dayFirst, monthFirst] = [readDate(text, 'day-first'), readDate(text, 'month-first')];
    if (!/^\s*\d{1,2}\s*[-/. ]/.test(text) || !dayFirst.ok || !monthFirst.ok || dayFirst.date !== monthFirst.date)
      continue;
    const [first, second] = text.match(/\d+/g)!.map(Number) as [number, number];
    if (first > 12) orders.add('day-first');
    if (second > 12) orders.add('month-first');
  }
  return orders.size === 1 ? [...orders][0]! : null;
}
