import type { z } from '../schema-library';

/** Something that is asked when an intake of a kind is made, and kept in its settings. */
export interface IntakeQuestion<Settings> {
  key: keyof Settings & string;
  label: string;
  placeholder?: string;
}

/** One way in which submissions come in. All that others know of a kind stands here; they name none. */
export interface IntakeKind<Settings extends Record<string, unknown> = Record<string, unknown>> {
  kind: string;
  /** What people call one, in small letters. */
  label: string;
  /** What one is for, as a sentence or two; shown where one is made. */
  about: string;
  /** Whether one is made by its name and its settings. Otherwise the pages of its kind make it. */
  isMadeByName: boolean;
  settings: z.ZodType<Settings>;
  /** Settings that the tests read and keep. */
  example: Settings;
  /** What is asked beside the name, in order. */
  asks: readonly IntakeQuestion<Settings>[];
  /** Where it is reached from outside, as a path; null where it is not. */
  address: (intake: { key: string; slug: string | null }) => string | null;
  /** Whether anybody may post to its key. */
  takesPosts: boolean;
  /** What it does while it is open, for its state. */
  whileOpen: string;
  /** Whether people close it and open it again. */
  closes: boolean;
  /** What it brings: people whose records are kept, or enquiries that somebody works on. */
  brings: 'people' | 'enquiries';
  /** Whether a field that no route reads is told. A form’s editor offers its questions itself. */
  tellsNewFields: boolean;
}
