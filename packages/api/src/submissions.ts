import type {
  AccountStep,
  HoldKind,
  JsonValue,
  LeftAlone,
  Origin,
  Plan,
  ReasonCode,
  RecordKind,
  Suspicion,
  Source,
  Visit,
} from '@haycart/core';

export type RunOutcome = 'written' | 'held' | 'skipped' | 'failed' | 'taken-back';

/** Shown in this order everywhere. */
export const RUN_OUTCOMES: readonly RunOutcome[] = ['written', 'held', 'skipped', 'failed', 'taken-back'];

export interface RunLine {
  id: string;
  route: { id: string; name: string };
  outcome: RunOutcome;
  summary: string;
}

/**
 * `set-aside`: suspicious, so that it waits for a person; `cancelled`: its file was taken back before its turn; `unrouted`: no
 * route took it.
 */
export type SubmissionState = 'waiting' | 'routed' | 'unrouted' | 'set-aside' | 'cancelled';

export interface SubmissionShape extends Source {
  id: string;
  intake: { key: string; name: string };
  receivedAt: string;
  state: SubmissionState;
  /** Why it was set aside, if it was. */
  suspicion: Suspicion | null;
  /** Null when the body cannot be read; `unreadable` says why. */
  payload: JsonValue | null;
  unreadable: string | null;
  visit: Visit;
  /** How it came in, where it was not posted. */
  origin: Origin;
  /** Who sent it, as far as the payload tells. */
  who: string;
  email: string;
  runs: RunLine[];
}

/** A submission with its body as it came, for when it cannot be read. */
export interface SubmissionDetail extends SubmissionShape {
  raw: string;
  tries: number;
  /** What came with it, which its payload names by id. */
  files: { id: string; name: string; type: string; size: number }[];
}

export interface RunShape extends RunLine {
  submission: string;
  version: number;
  reason: { code: ReasonCode; text: string; hold: HoldKind | null } | null;
  plan: Plan | null;
  startedAt: string;
  finishedAt: string;
  receivedAt: string;
  account: AccountStep[];
  /** By what act it was taken back, which can be taken back itself; null where it was not, or with its whole file. */
  takenBack: { edit: string; by: string; at: string } | null;
  /** The attempt that is told; the latest that routed, when no other is asked for. */
  attempt: string;
  /** The latest first, a hundred at most. */
  attempts: AttemptLine[];
}

/** `arrival`: its turn came; `again`: it ran again; `fill-in`: blanks were filled in after it. */
export type AttemptReason = 'arrival' | 'again' | 'fill-in';

/** One try of a run, or one time that blanks were filled in after it, as it ended or was taken back. */
export interface AttemptLine {
  id: string;
  why: AttemptReason;
  version: number;
  outcome: RunOutcome;
  summary: string;
  finishedAt: string;
  /** Who filled in; null for a try. */
  by: string | null;
}

/** What taking back runs does. */
export interface TakenBack {
  /** The act, by which it can be taken back itself; null when nothing had to change. */
  edit: string | null;
  runs: number;
  /** Records that go, by kind. */
  removed: Partial<Record<RecordKind, number>>;
  /** Records that stay, with how many of their values go back. */
  changed: number;
  values: number;
  /** How much stays as it is, since somebody or something else touched it. */
  left: number;
}

export interface TakeBackRehearsal extends Omit<TakenBack, 'edit'> {
  /** How much was sent to the outside already, which stays there, and how much waits, which is not sent. */
  sent: number;
  notSent: number;
  /** Tasks, notes, documents and consents that the runs made and nobody changed since. */
  tasks: number;
  notes: number;
  documents: number;
  consents: number;
  /** Some of what stays as it is; `field` is null for a whole record. */
  examples: {
    record: { kind: RecordKind; id: string; name: string };
    field: string | null;
    now: string | null;
    why: LeftAlone['why'];
  }[];
}
