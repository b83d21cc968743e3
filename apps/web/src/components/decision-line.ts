import type { DecisionKind, DecisionLine } from '@haycart/api';

/** What a decision is called in the list. */
export const DECISION_TITLES: Record<DecisionKind, string> = {
  renamed: 'A field was renamed',
  failed: 'Failed',
  undelivered: 'Not delivered',
  held: 'Held',
  'look-alike': 'Possible duplicate',
  'which-record': 'Which record?',
  paused: 'Route paused',
  'new-answer': 'New answer',
  stopped: 'A field stopped coming',
  changed: 'A field changed',
  appeared: 'A new field',
  'set-aside': 'Set aside as spam?',
};

/** The line under its title: what tells it from others of its kind. */
export function aboutDecision({ kind, subject, detail }: DecisionLine): string {
  if (kind === 'set-aside' || kind === 'paused' || kind === 'which-record') return subject;
  if (kind === 'look-alike') return `${subject}, ${detail}`;
  return kind === 'failed' || kind === 'held' || kind === 'undelivered'
    ? `${subject}: ${detail}`
    : `${detail}, ${subject}`;
}

/** Whether something is broken by it, rather than waiting. */
export function isFailure({ kind }: DecisionLine): boolean {
  return kind === 'failed' || kind === 'undelivered' || kind === 'renamed';
}
