import type { FinisherUse, Part } from '../value/value';

/** The most that one route may hold of each. */
export const TABLE_LIMITS = { tables: 20, rows: 1_000, inputs: 30, outputs: 30, cellLength: 10_000 } as const;

/** Rows of tests and what follows where all tests of a row are met; the first row that fits decides. */
export interface DecisionTable {
  name: string;
  /** `one`: that two rows fit is a mistake, and the run fails rather than choose. `first` when not said. */
  fits?: 'first' | 'one' | undefined;
  inputs: DecisionInput[];
  outputs: DecisionOutput[];
  rows: DecisionRow[];
  /** What is decided where no row fits; nothing when not said. */
  otherwise?: Record<string, unknown> | undefined;
}

/** One column of tests. */
export interface DecisionInput {
  of: Part;
  label: string;
  /** As what it is read; when not said, by its field where it is one, and as text otherwise. See `input-kinds`. */
  as?: InputAs | undefined;
  /** Run over the text before it is read. */
  finishers?: FinisherUse[] | undefined;
  /** For a region: where the postal code comes from. */
  postcode?: Part | undefined;
  /** For a moment: the IANA name of the time zone in which it is read; UTC when not said. */
  timeZone?: string | undefined;
}

export const INPUT_AS = ['text', 'number', 'date', 'yes-no', 'several', 'region', 'weekday', 'time-of-day'] as const;
export type InputAs = (typeof INPUT_AS)[number];

export const OUTPUT_TYPES = [
  'text',
  'pipeline',
  'stage',
  'owner',
  'person',
  'team',
  'tag',
  'list',
  'number',
  'yes-no',
  'when-matched',
  'again',
] as const;
export type OutputType = (typeof OUTPUT_TYPES)[number];
/** Those that name something of the workspace by its key. */
export type NamingType = 'pipeline' | 'stage' | 'person' | 'team' | 'tag' | 'list';

/** Whether what outputs of a type say is the key of something of the workspace. */
export function isNamed(type: OutputType): type is NamingType {
  return ['pipeline', 'stage', 'person', 'team', 'tag', 'list'].includes(type);
}

export interface DecisionOutput {
  name: string;
  type: OutputType;
}

export interface DecisionRow {
  /** One for each input; `null`: anything. */
  when: (CellTest | null)[];
  /** By the name of the output. An output that is left out is blank. */
  then: Record<string, unknown>;
  note?: string | undefined;
}

export interface CellTest {
  test: string;
  value?: unknown;
}
