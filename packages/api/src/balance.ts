/** What became of the submissions acknowledged at one intake on one day (UTC). */
export interface BalanceLine {
  intake: string;
  name: string;
  day: string;
  /** Counted when senders were answered. */
  acknowledged: number;
  /** Stored submissions. The counts below add up to it, together with `off`. */
  kept: number;
  /** Each submission is in one of these: by its worst run, or by its state if it was not routed. */
  written: number;
  held: number;
  skipped: number;
  failed: number;
  takenBack: number;
  unrouted: number;
  waiting: number;
  setAside: number;
  cancelled: number;
  /** Ids of submissions that were routed and have no run. */
  off: string[];
}

/** Proof that nothing is lost. */
export interface Balance {
  lines: BalanceLine[];
  /** Submissions that were acknowledged and are not stored, or have no run. 0 when all is well. */
  off: number;
}
