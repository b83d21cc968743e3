import type { JsonObject } from '../json';
import type { Origin } from '../source/origin';
import type { Visit } from '../source/visit';

/** One thing that arrived, read: what was sent and what surrounded it. */
export interface Submission {
  id: string;
  /** The key of its intake. */
  intake: string;
  /** ISO 8601, UTC. The time of everything that the submission does: where values compete, the later arrival wins. */
  receivedAt: string;
  payload: JsonObject;
  visit: Visit;
  /** Absent: it was posted. */
  origin?: Origin;
}
