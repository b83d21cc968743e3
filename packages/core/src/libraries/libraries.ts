import type { Liquid } from 'liquidjs';
import type { RE2JS } from 're2js';
import type { Library } from './library';

/** The libraries that are too large for a page to load unless it needs them. `#libraries` is one of two files that bring them. */
export interface Libraries {
  /** Writes letters of other scripts in Latin ones (any-ascii). */
  letters: Library<(text: string) => string>;
  /** Patterns that are read in steady time (RE2). */
  patterns: Library<typeof RE2JS>;
  /** Liquid templates. */
  templates: Library<typeof Liquid>;
  /** The domains of free mail services, and of those whose mail is thrown away. */
  mailServices: Library<{ free: readonly string[]; throwAway: readonly string[] }>;
}
