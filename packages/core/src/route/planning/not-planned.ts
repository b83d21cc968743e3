import { emptyDiff } from '../../diff/records-diff';
import { REASON_CODES, type ReasonCode } from '../../codes';
import type { Problem } from '../../problem';
import type { Plan } from './plan';

/** The reason of what waits for a paused route. */
export const PAUSED = 'route-paused';

/** What comes of a submission while its route is paused. */
export function heldByPause(): Plan {
  const text = 'The route was paused when this arrived. It goes on when the route is resumed.';
  return notPlanned(PAUSED, text);
}

/** What comes of a submission that cannot be read. */
export function unreadable({ text }: Pick<Problem, 'text'>): Plan {
  return notPlanned('unreadable', text);
}

/** What comes of a submission that could not be written however often it was tried. @param cause A sentence. */
export function couldNotWrite(cause: string): Plan {
  const text = `This could not be written after several tries: ${cause} Run it again when the cause is gone.`;
  return notPlanned('could-not-write', text);
}

function notPlanned(code: ReasonCode, text: string): Plan {
  return {
    outcome: REASON_CODES[code].outcome,
    reason: { code, text },
    writes: [],
    diff: emptyDiff(),
    touches: [],
    problems: [],
  };
}
