import type { RecordState } from './record';

/** A record as it is known while planning: its state, and when each field was last written (ISO 8601). */
export interface KnownRecord extends RecordState {
  id: string;
  createdAt: string;
  /** For each field the time of the submission or change that its value came with. */
  writtenAt: Record<string, string>;
  /** The fields whose value a person typed. */
  typed?: readonly string[];
}
