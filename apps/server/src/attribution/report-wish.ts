import type { JourneyBasis, SourcePart } from '@haycart/api';
import type { Narrowing } from './narrowing/narrowing';
import type { Split } from './narrowing/split';

/** What a report is asked for. */
export interface ReportWish {
  /** The key of a model of the core. */
  model: string;
  /** Days before a deal was begun in which touches count; null: however long ago. */
  window: number | null;
  /** For decay, in days. */
  halfLife: number;
  /** From, and until before. */
  from: Date;
  to: Date;
  basis: JourneyBasis;
  /** What rows go by, from the outside in; the first so many of all parts. */
  by: readonly SourcePart[];
  /** Which records it is about. */
  narrowing: Narrowing;
  /** What the first rows go by; null: the first of `by`. */
  split: Split | null;
}
