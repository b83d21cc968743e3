/** How far two records agree in something; `missing` where one of them says nothing, which proves nothing. */
export const LEVELS = ['exact', 'near', 'far'] as const;
export type Level = (typeof LEVELS)[number] | 'missing';

/** In what way they agree, for the words beside a share. */
export type How =
  | 'same'
  | 'nickname'
  | 'initial'
  | 'typing'
  | 'sound'
  | 'part'
  | 'swapped'
  | 'vowelless'
  | 'other-domain'
  | 'shared-mailbox'
  | 'goes-with-company'
  | 'fits-name'
  | 'alike'
  | 'different'
  | 'not-told';

export interface Agreement {
  level: Level;
  how: How;
  /** What both have, where they agree exactly: the more records have it, the less it proves. */
  value?: string;
}

export const NOT_TOLD: Agreement = { level: 'missing', how: 'not-told' };
export const DIFFERENT: Agreement = { level: 'far', how: 'different' };

/** Agreement in each compared field, as one short text: pairs of the same pattern are counted together. */
export type Pattern = string;

const LETTERS: Record<Level, string> = { exact: 'e', near: 'n', far: 'f', missing: '-' };
const LEVEL_OF: Readonly<Record<string, Level>> = { e: 'exact', n: 'near', f: 'far', '-': 'missing' };

export function patternOf(levels: readonly Level[]): Pattern {
  return levels.map((level) => LETTERS[level]).join('');
}

export function levelsOf(pattern: Pattern): Level[] {
  return [...pattern].map((letter) => LEVEL_OF[letter]!);
}
