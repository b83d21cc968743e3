import { AddressRefused } from './allowed-address';
import type { Outgoing } from './outgoing';

/** What came of one try to send something. `again`: whether another may help; `after`: the seconds that the receiver asks to wait; `unanswered`: nothing was answered at all. */
export type Tried = { ok: true } | { ok: false; why: string; again: boolean; after?: number; unanswered?: boolean };

/** The longest that a receiver may ask to wait, in seconds. */
const LONGEST_PAUSE = 6 * 3_600;
const TOLD = 200;
/** The address is gone for good (RFC 9110). */
const GONE = 410;

/** Posts something once; it is received where the answer is of the 200s. Never throws. */
export async function posted(
  outgoing: Outgoing,
  { to, body, headers }: { to: string; body: string; headers: Record<string, string> },
  stopping: AbortSignal,
): Promise<Tried> {
  try {
    const { status, text, retryAfter, location } = await outgoing.post(to, body, headers, stopping);
    if (status >= 200 && status < 300) return { ok: true };
    const said = location
      ? ` It leads to ${location.slice(0, TOLD)}; nothing follows it there: put that address instead.`
      : saidIn(text);
    return {
      ok: false,
      why: `${new URL(to).host} answered ${status}.${said}`,
      again: status !== GONE,
      ...(retryAfter === null ? {} : { after: Math.min(retryAfter, LONGEST_PAUSE) }),
    };
  } catch (cause) {
    return { ok: false, why: (cause as Error).message, again: !(cause instanceof AddressRefused), unanswered: true };
  }
}

/** The beginning of an answer as one line. */
function saidIn(text: string): string {
  const line = text.replace(/[\s\p{Cc}]+/gu, ' ').trim();
  return line ? ` “${line.length > TOLD ? `${line.slice(0, TOLD)}…` : line}”` : '';
}
