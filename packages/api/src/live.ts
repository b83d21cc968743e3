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
  /** How many different sources something came by today. */
  sourcesToday: number;
  waiting: number;
  /** How many decisions wait for a person. */
  toDecide: number;
  /** How many tasks of whoever asks are due today or overdue. */
  tasksDue: number;
}

/** What became of what arrived at one intake. */
export interface IntakeDay {
  key: string;
  name: string;
  received: number;
  written: number;
  held: number;
  skipped: number;
  failed: number;
}

/** The last 24 hours, and what people compare them with. Days are of UTC, the latest last. */
export interface HomeShape {
  arrived: number;
  written: number;
  held: number;
  skipped: number;
  failed: number;
  takenBack: number;
  unrouted: number;
  waiting: number;
  /** The same 24 hours a week before. */
  weekAgo: { arrived: number; failed: number };
  /** Of all runs that ended in the last 28 days, the share that wrote, 0 to 1; null for none. */
  usuallyWritten: number | null;
  /** The last 14 days. */
  days: { arrived: number; written: number; failed: number; inPipeline: number }[];
  /** What new deals are worth, in minor units of the workspace’s currency; those in others that no rate converts are left out. */
  inPipeline: { currency: string; now: number; weekAgo: number };
  intakes: IntakeDay[];
  /** The most frequent first. */
  sources: { source: string; count: number }[];
  /** Of what was written in the last seven days. */
  weekSources: { source: string; count: number }[];
  /** Where each intake’s went. */
  flows: { from: string; to: string; outcome: RunOutcome; count: number }[];
  /** Seconds from arrival to written. */
  median: number | null;
  p95: number | null;
  quiet: { key: string; name: string; lastAt: string; usualPerDay: number }[];
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
  'channels',
  'tasks',
  'sources',
] as const;

export type EventTopic = (typeof EVENT_TOPICS)[number];
