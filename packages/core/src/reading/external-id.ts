import { warning, type Problem } from '../problem';
import { shorten } from '../text';

const LONGEST = 200;

/**
 * The id that a record has in another system, in its normal form: the system’s name in lower case, a colon, and the id as
 * that system writes it, since only that system knows whether capitals tell.
 *
 * @example normalExternalId(' Shop: 10442 ') // { ok: true, id: 'shop:10442' }
 */
export function normalExternalId(text: string): { ok: true; id: string } | { ok: false; problem?: Problem } {
  const trimmed = text.normalize('NFC').trim();
  if (!trimmed) return { ok: false };
  const colon = trimmed.indexOf(':');
  const system = trimmed.slice(0, Math.max(0, colon)).trim().toLowerCase();
  const own = trimmed.slice(colon + 1).trim();
  if (colon < 1 || !/^[a-z0-9][a-z0-9._-]*$/.test(system) || !own || trimmed.length > LONGEST)
    return {
      ok: false,
      problem: warning(
        'not-an-external-id',
        `“${shorten(trimmed, 60)}” names no system. Write it as system:id, such as shop:10442.`,
      ),
    };
  return { ok: true, id: `${system}:${own}` };
}
