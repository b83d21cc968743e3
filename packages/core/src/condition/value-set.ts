import { storableText } from '../text';

/**
 * Values that belong together under one name, such as the countries of a region. A line is a text, or for where somebody is
 * a country with or without postal codes: `NL`, `NL 1000-1999`, `GB EH`.
 */
export interface ValueSet {
  name: string;
  values: readonly string[];
}

export const VALUE_SET_LIMITS = { values: 10_000, length: 200 } as const;

/** Values as they are kept: each once, whatever its capitals, without blanks, none longer than is allowed. */
export function cleanValues(values: readonly string[]): string[] {
  const kept = new Map<string, string>();
  for (const value of values) {
    const plain = storableText(value).replace(/\s+/g, ' ').trim().slice(0, VALUE_SET_LIMITS.length);
    const folded = plain.toLowerCase();
    if (plain !== '' && !kept.has(folded)) kept.set(folded, plain);
  }
  return [...kept.values()];
}
