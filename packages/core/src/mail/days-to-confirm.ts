/** The longest that a confirmation can be waited for, in days. */
export const MOST_DAYS_TO_CONFIRM = 90;
const USUAL_DAYS = 7;
const DAYS = /^P(\d{1,3})D$/;

/** For how many days something can be confirmed, of an ISO 8601 duration in whole days; `null` where that cannot be read. */
export function daysToConfirm(within: string | undefined): number | null {
  if (within === undefined) return USUAL_DAYS;
  const days = DAYS.exec(within)?.[1];
  return days === undefined ? null : Number(days);
}

/** The same, and what is usual where it cannot be read. */
export function daysOrUsual(within: string | undefined): number {
  return daysToConfirm(within) ?? USUAL_DAYS;
}

/** A sentence; `null` where nothing is wrong. */
export function whatIsWrongWithDays(within: string | undefined): string | null {
  const days = daysToConfirm(within);
  if (days !== null && days >= 1 && days <= MOST_DAYS_TO_CONFIRM) return null;
  return `Say for how many days it can be confirmed: 1 to ${MOST_DAYS_TO_CONFIRM}, such as P7D.`;
}
