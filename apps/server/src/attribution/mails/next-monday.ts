/** At what hour of Monday reports are mailed, in UTC. */
const HOUR = 6;
const DAY = 86_400_000;

/** The next Monday morning after a moment. */
export function nextMonday(now: Date): Date {
  const today = Date.UTC(now.getUTCFullYear(), now.getUTCMonth(), now.getUTCDate(), HOUR);
  const monday = today + ((8 - now.getUTCDay()) % 7) * DAY;
  return new Date(monday > now.getTime() ? monday : monday + 7 * DAY);
}
