/** Names of `{visit}` parts beyond what is recorded: the source worked out from the visit, and the time. */
export const VISIT_PART_NAMES_DERIVED = ['source', 'medium', 'campaign', 'channel', 'said', 'receivedAt'] as const;

/** Parts joined together, then finished step by step. Empty parts are left out together with their separator. */
export interface Value {
  parts: Part[];
  joinWith?: string;
  finishers?: FinisherUse[];
}

export interface FinisherUse {
  use: string;
  with?: Record<string, unknown>;
}

export type Part =
  /** `or`: other keys, in their order, where that one is blank, as after a sender renamed a field. */
  | { answer: string; or?: string[] }
  | { visit: string }
  | { text: string }
  | { decision: string; output: string }
  | { write: string; field: string };
