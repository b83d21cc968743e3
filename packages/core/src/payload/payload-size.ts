import type { JsonValue } from '../json';
import { LIMITS } from '../limits';

/** The most levels and fields a payload may have; more is refused on arrival. */
export const PAYLOAD_LIMITS = { depth: LIMITS.payloadDepth.most, fields: LIMITS.payloadFields.most } as const;

/** How large a payload is. */
export interface PayloadSize {
  depth: number;
  fields: number;
  /** The name of the first field whose name or value is longer than is taken. */
  tooLong: { name: string; part: 'name' | 'value' } | null;
}

/** Measures a payload without recursion, so that no depth can hurt: stops counting at the limits. */
export function payloadSize(payload: JsonValue): PayloadSize {
  let depth = 0;
  let fields = 0;
  let tooLong: PayloadSize['tooLong'] = null;
  let level: JsonValue[] = [payload];
  while (level.length && depth <= PAYLOAD_LIMITS.depth && fields <= PAYLOAD_LIMITS.fields) {
    const next: JsonValue[] = [];
    for (const value of level) {
      if (value === null || typeof value !== 'object') {
        fields += 1;
        continue;
      }
      for (const [name, child] of Object.entries(value)) {
        if (name.length > LIMITS.payloadKey.most) tooLong ??= { name, part: 'name' };
        if (typeof child === 'string' && child.length > LIMITS.payloadValue.most) tooLong ??= { name, part: 'value' };
        next.push(child);
      }
    }
    if (next.length) depth += 1;
    level = next;
  }
  return { depth, fields, tooLong };
}
