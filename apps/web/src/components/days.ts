/** The first and the last day, as a date field has them; `''` is no bound. */
export interface Days {
  from: string;
  to: string;
}

const DAY = 86_400_000;

/** The Mondays (UTC) that the latest weeks begin with, the present one last: `2027-04-05`. */
export function latestMondays(now: Date, weeks: number): string[] {
  const sinceMonday = (now.getUTCDay() + 6) % 7;
  const monday = Date.UTC(now.getUTCFullYear(), now.getUTCMonth(), now.getUTCDate() - sinceMonday);
  return Array.from({ length: weeks }, (_, index) =>
    new Date(monday - (weeks - 1 - index) * 7 * DAY).toISOString().slice(0, 10),
  );
}

/** From the beginning of the first day to the end of the last, where one is. */
export function periodOf({ from, to }: Days): { since?: string; before?: string } {
  const end = to ? new Date(`${to}T00:00`) : null;
  end?.setDate(end.getDate() + 1);
  return {
    ...(from ? { since: new Date(`${from}T00:00`).toISOString() } : {}),
    ...(end ? { before: end.toISOString() } : {}),
  };
}
