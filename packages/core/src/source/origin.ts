/**
 * How a submission came in where nobody posted it: blank for what was posted. Known by the server alone, from an entry link
 * or a file, and never read from a post.
 */
export interface Origin {
  /** The key of the colleague who entered it. */
  enteredBy?: string;
  /** The name of the sheet that it was a row of. */
  sheet?: string;
}

export const ORIGIN_NAMES = ['enteredBy', 'sheet'] as const satisfies (keyof Origin)[];

/** Of what was posted. */
export const POSTED: Origin = {};
