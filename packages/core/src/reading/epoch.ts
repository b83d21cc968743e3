/** The years in which a count of seconds since 1970 is likely one; outside of them it may be any number. */
const [FROM, TO] = [Date.UTC(2008), Date.UTC(2037)];

/**
 * The moment that a count since 1970 means (POSIX time): seconds in ten digits, milliseconds in thirteen. `null` for any
 * other text.
 */
export function epochMoment(text: string): Date | null {
  if (!/^\d{10}(?:\d{3})?$/.test(text)) return null;
  const milliseconds = text.length === 10 ? Number(text) * 1_000 : Number(text);
  return milliseconds >= FROM && milliseconds < TO ? new Date(milliseconds) : null;
}
