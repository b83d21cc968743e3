/** The formats of ECMA-376, 18.8.30 that show a date, a time, or both. */
const BUILT_IN_DATES: ReadonlySet<number> = new Set([
  ...[14, 15, 16, 17, 18, 19, 20, 21, 22, 45, 47],
  ...Array.from({ length: 10 }, (_, index) => 27 + index),
  ...Array.from({ length: 9 }, (_, index) => 50 + index),
]);
const DAY_MS = 86_400_000;
/** Day 0 of both ways to count (ECMA-376, 18.17.4.1); the first has a 29 February 1900 that never was. */
const DAY_0 = { 1900: Date.UTC(1899, 11, 30), 1904: Date.UTC(1904, 0, 1) } as const;

/** Whether a number in this format is shown as a date or time. */
export function isDateFormat(id: number, code: string | undefined): boolean {
  if (code === undefined) return BUILT_IN_DATES.has(id);
  let shown = '';
  for (let at = 0; at < code.length; at += 1) {
    const character = code[at]!;
    if (character === '\\' || character === '_' || character === '*') at += 1;
    else if (character === '"') at = endOf(code, '"', at);
    else if (character === '[') at = endOf(code, ']', at);
    else shown += character;
  }
  return /[ymdhs]/i.test(shown) && !/general/i.test(shown);
}

function endOf(code: string, mark: string, from: number): number {
  const end = code.indexOf(mark, from + 1);
  return end === -1 ? code.length : end;
}

/** A day number as ISO 8601: a date, a date with its time, or a time alone. */
export function dateText(serial: number, since: 1900 | 1904): string {
  const shifted = since === 1900 && serial >= 1 && serial < 60 ? serial + 1 : serial;
  const date = new Date(DAY_0[since] + Math.round(shifted * DAY_MS));
  if (Number.isNaN(date.getTime())) return String(serial);
  const iso = date.toISOString();
  if (serial < 1) return iso.slice(11, 19);
  return iso.endsWith('T00:00:00.000Z') ? iso.slice(0, 10) : iso;
}
