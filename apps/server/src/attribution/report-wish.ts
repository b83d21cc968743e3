import type { JourneyBasis, SourcePart } from '@haycart/api';
import type { Narrowing } from './narrowing/narrowing';
import type { Split } from './narrowing/split';
import type { StepsWish } from './share-sql';

/** What a report is asked for. */
export interface ReportWish extends StepsWish {
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
