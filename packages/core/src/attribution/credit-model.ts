/** What a model may be told beside the touches. */
export interface CreditSettings {
  /** Decay: after so many days before the last touch, a touch counts half. */
  halfLife: number;
}

/** One way to share out what a deal is worth among the touches that led to it. A registry entry: add it in `registry.ts`. */
export interface CreditModel {
  key: string;
  /** As the chooser names it. */
  label: string;
  /** Who gets what, in a sentence. */
  describe(settings: CreditSettings): string;
  /**
   * The share of each touch, in their order; together 1.
   *
   * @param times When each was, in milliseconds, the earliest first; at least one.
   */
  shares(times: readonly number[], settings: CreditSettings): number[];
}
