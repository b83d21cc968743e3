/** What became of what was acknowledged at one intake on one day (UTC). */
export interface BalanceLine {
  intake: string;
  name: string;
  day: string;
  /** How many the senders were told of, counted by whoever told them. */
  acknowledged: number;
  /** How many are kept. */
  kept: number;
  /** Of those that are kept each in one: by its worst run, or what it waits for. */
  written: number;
  held: number;
  skipped: number;
  failed: number;
  takenBack: number;
  unrouted: number;
  waiting: number;
  setAside: number;
  cancelled: number;
  /** Those of which nothing is known: routed, and no run tells of it. */
  off: string[];
}

/** Proof that nothing is lost. */
export interface Balance {
  lines: BalanceLine[];
  /** How many were acknowledged and are not kept, or kept and nothing is known of: 0 when all is well. */
  off: number;
}
