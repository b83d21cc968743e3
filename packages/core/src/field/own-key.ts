import { newKey } from './new-key';

/**
 * How the keys of built-in fields begin that come with a later version. No field that a workspace makes has such a key, so
 * a new built-in field never meets one.
 */
export const RESERVED_KEYS = 'hc_';

/** The key of a new field of a workspace's own, from its label. @param taken The keys of its record, those out of use too. */
export function ownFieldKey(label: string, taken: Iterable<string>): string {
  const keys = [...taken];
  const key = newKey(label, keys, '_');
  return key.startsWith(RESERVED_KEYS) ? newKey(`own_${label}`, keys, '_') : key;
}
