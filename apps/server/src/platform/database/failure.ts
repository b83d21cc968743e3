/** What a failed statement means for those who wait. */
export type DatabaseFailure = 'unreachable' | 'full' | 'conflict' | 'refused' | 'other';

/** SQLSTATE classes and codes (PostgreSQL 15, appendix A), by what they mean. */
const MEANINGS: [RegExp, DatabaseFailure][] = [
  [/^(08|57P0|53300|25006)/, 'unreachable'],
  [/^(53100|53200|53400|58030)/, 'full'],
  [/^(40|55P03)/, 'conflict'],
  [/^(22|23)/, 'refused'],
];

const SOCKET_CODES = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOENT',
  'ETIMEDOUT',
  'EHOSTUNREACH',
  'ENOTFOUND',
]);

/** Tells why the database did not do something, from what it threw. */
export function databaseFailure(thrown: unknown): DatabaseFailure {
  const cause = thrown instanceof Error && thrown.cause instanceof Error ? thrown.cause : thrown;
  const { code = '', message = '' } = cause as { code?: string; message?: string };
  if (
    SOCKET_CODES.has(code) ||
    /connection terminated|timeout exceeded when trying to connect|not queryable|query read timeout/i.test(message)
  )
    return 'unreachable';
  return MEANINGS.find(([pattern]) => pattern.test(code))?.[1] ?? 'other';
}

/** Whether the same statement may well succeed later. */
export function mayPass(thrown: unknown): boolean {
  return ['unreachable', 'full', 'conflict'].includes(databaseFailure(thrown));
}
