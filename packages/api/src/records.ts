import type { AnswerClock } from './assignments';
import type { OutboxState } from './outbox';
import type {
  ConsentChannel,
  ConsentState,
  FieldValues,
  ListView,
  Plan,
  RecordKind,
  RecordsDiff,
  ValueTrace,
  FieldValue,
  TaskPriority,
  Source,
} from '@haycart/core';

export interface RecordShape {
  id: string;
  kind: RecordKind;
  number: number;
  name: string;
  values: FieldValues;
  links: Record<string, RecordLinkShape[]>;
  owner: string | null;
  tags: string[];
  createdAt: string;
  updatedAt: string;
  /** Until when it is to be answered; absent where nothing is promised, and in lists once it is answered. */
  answer?: AnswerClock;
}

export interface RecordLinkShape {
  id: string;
  kind: RecordKind;
  number: number;
  name: string;
}

export interface HistoryEntry {
  id: string;
  at: string;
  cause: {
    kind: 'run' | 'person' | 'import' | 'merge' | 'take-back';
    id: string;
    label: string;
    submission?: string;
    /** What the submission came through, and the page that it was sent from. */
    intake?: string;
    page?: string;
    /** An act of a person that can be taken back, and whether it was. */
    edit?: { text: string; takenBack: boolean };
  };
  diff: RecordsDiff;
  values: {
    field: string;
    label: string;
    before: FieldValue | null;
    after: FieldValue | null;
    trace: ValueTrace | null;
  }[];
}

export interface NoteShape {
  id: string;
  /** One line; blank where it has none. */
  title: string;
  text: string;
  by: string;
  at: string;
  changedAt: string | null;
}

export interface TaskShape {
  id: string;
  text: string;
  /** More about it than its one line says. */
  body: string | null;
  priority: TaskPriority;
  /** The key of the person who is to do it. */
  owner: string | null;
  /** The day (ISO 8601), or the moment where it is due at one. */
  due: string | null;
  by: string;
  at: string;
  doneAt: string | null;
  doneBy: string | null;
}

export const TASK_STATES = ['open', 'overdue', 'done'] as const;
/** `overdue` are those of the open ones whose time has passed. */
export type TaskState = (typeof TASK_STATES)[number];

/** How many tasks a person has. */
export interface TaskCounts {
  open: number;
  overdue: number;
  /** Due today, by UTC, and not overdue. */
  today: number;
}

/** A task in a list of them, with its record. */
export interface TaskLine extends TaskShape {
  kind: RecordKind;
  record: string;
  name: string;
}

/** Something that a route sent about a record. */
export interface SentShape {
  id: string;
  /** How: `mail`, `chat`, `text`. */
  kind: string;
  to: string;
  state: OutboxState;
  /** When it was put out. */
  at: string;
  /** The subject of a mail; the beginning of any other. */
  says: string;
  /** Why it was not sent, or not yet: what its receiver answered. */
  why: string | null;
  by: string;
}

export interface FileShape {
  id: string;
  name: string;
  type: string;
  size: number;
  /** Who kept it; of one that was sent, the address of who sent it. */
  by: string;
  at: string;
  /** The submission that it came with; null for one that a person kept. */
  submission: string | null;
}

export interface ConsentShape {
  id: string;
  channel: ConsentChannel;
  state: ConsentState;
  /** The exact words agreed to. */
  words: string;
  place: string;
  by: string;
  at: string;
}

/** Everything that a record's page shows. */
export interface RecordSheet {
  record: RecordShape;
  history: HistoryEntry[];
  touches: TouchShape[];
  notes: NoteShape[];
  tasks: TaskShape[];
  files: FileShape[];
  consents: ConsentShape[];
  /** What was sent to the outside about it, the latest first. */
  sent: SentShape[];
}

export interface TouchShape extends Source {
  /** The id of the visit, which may have touched other records too. */
  visit: string;
  at: string;
  page: string | null;
  /** How they heard of us, as they said themselves. */
  said: string | null;
  /** Where a person corrected it: what the rules make of what was seen. */
  seen: Source | null;
}

/** What qualifying a lead would do, with the names of records that are there already. */
export type QualifyRehearsal = Plan & { names: Record<string, string> };

/** One act of a person on records: what it was, and by what it can be taken back. */
export interface DoneEdit {
  /** Null: nothing changed, so there is nothing to take back. */
  edit: string | null;
  records: number;
  text: string;
}

/** An act of a person on records, in a list of them. */
export interface EditLine {
  id: string;
  at: string;
  by: string;
  text: string;
  takenBackAt: string | null;
}

/** A record that somebody deleted. */
export interface DeletedRecord {
  id: string;
  kind: RecordKind;
  number: number;
  name: string;
  /** An e-mail or a domain, by which it is told from others of that name. */
  detail: string;
  by: string;
  at: string;
}

/** A way to look at a list of records that somebody kept. */
export interface SavedView {
  id: string;
  record: RecordKind;
  name: string;
  view: ListView;
  /** Everybody's, or one's own. */
  shared: boolean;
}

/** How many records hold a value of a field; `null`: none. */
export interface GroupCount {
  value: string | null;
  count: number;
}
