/**
 * Values that belong together under one name, such as the countries of a region. A line is a text, or for where somebody is
 * a country with or without postal codes: `NL`, `NL 1000-1999`, `GB EH`.
 */
export interface ValueSet {
  name: string;
  values: readonly string[];
}
