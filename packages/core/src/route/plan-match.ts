import type { IdentityKey } from '../identity/keys';
import type { MatchRule, Write } from './definition';
import type { KnownRecord, KnownRecords } from './known-records';
import type { MatchTrace } from './plan';
import type { FilledValue } from './plan-fields';

/** The existing record that a write means, if its match rules recognise one. */
export function recognise(
  write: Write,
  filled: readonly FilledValue[],
  known: KnownRecords,
): { record: KnownRecord | undefined; match: MatchTrace } {
  let lastKey: string | null = null;
  for (const rule of write.match ?? []) {
    const key = matchKey(write, rule, filled);
    if (!key) continue;
    lastKey = key.value;
    const found = known.withKey(key);
    if (!found.length) continue;
    const record = write.whenSeveral === 'latest' ? found[found.length - 1] : found[0];
    return { record, match: { by: rule.by, key: key.value, found: found.length } };
  }
  return { record: undefined, match: { by: null, key: lastKey, found: 0 } };
}

function matchKey(write: Write, rule: MatchRule, filled: readonly FilledValue[]): IdentityKey | null {
  if (rule.by !== 'email' && rule.by !== 'domain') return null;
  const value = filled.find(({ fill }) => fill.field === rule.by)?.value;
  return typeof value === 'string' ? { record: write.record, kind: rule.by, value } : null;
}
