/** What commands need, by area; all are granted to everybody who is signed in, and to tokens as far as their scope goes. */
export const PERMISSIONS = [
  'submissions',
  'intakes',
  'forms',
  'sheets',
  'routes',
  'records',
  'decisions',
  'outbox',
  'channels',
  'mail',
  'identity',
  'set-up',
  'people',
  'account',
] as const;
export type Permission = (typeof PERMISSIONS)[number];

/** What somebody did on purpose. */
export interface AuditLine {
  id: string;
  at: string;
  actor: { kind: 'person' | 'token'; id: string; name: string };
  /** As `routes.publish`; the part before the point is the permission that it needs. */
  command: string;
  /** The id or key of what it was done to; null where there is none. */
  subject: string | null;
  /** What was done, in one line. */
  text: string;
}
