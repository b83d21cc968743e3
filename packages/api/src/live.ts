import type { RecordKind } from '@haycart/core';
import type { RunOutcome } from './submissions';

/** Today's live figures for the band across the top. */
export interface BandFigures {
  intakesLive: number;
  submissionsToday: number;
  routesLive: number;
  routesDraft: number;
  recordsToday: number;
  dealsMovedToday: number;
  waiting: number;
  /** How many decisions wait for a person. */
  toDecide: number;
}

export interface HomeShape {
  arrived: number;
  written: number;
  held: number;
  skipped: number;
  failed: number;
  takenBack: number;
  unrouted: number;
  waiting: number;
  flows: { from: string; to: string; outcome: RunOutcome; count: number }[];
  /** Seconds from arrival to written. */
  median: number | null;
  p95: number | null;
  quiet: { key: string; name: string; lastAt: string; usualPerDay: number }[];
  failures: { run: string; submission: string; route: string; reason: string; count: number; at: string }[];
  changed: { route: string; id: string; version: number; by: string; note: string | null; at: string }[];
}

export interface SearchHit {
  kind: RecordKind | 'intake' | 'route' | 'submission';
  id: string;
  name: string;
  /** What tells it from others of that name; of a submission, when it came. */
  detail: string;
}

/** What server-sent events tell: which kinds of thing changed. Nothing of the things themselves. */
export const EVENT_TOPICS = [
  'submissions',
  'runs',
  'records',
  'routes',
  'intakes',
  'form-domains',
  'pipelines',
  'fields',
  'views',
  'people',
  'labels',
  'decisions',
  'identity',
  'outbox',
] as const;

export type EventTopic = (typeof EVENT_TOPICS)[number];
