import type { ProblemCode } from './codes';

/** Something that is wrong, told so that a person can act on it. Never thrown: problems are values. */
export interface Problem {
  /** Stable and for programs, such as `unknown-stage`. */
  code: ProblemCode;
  /** One sentence: what is wrong, with which thing, and what to do. */
  text: string;
  /** Where, as a JSON Pointer (RFC 6901) into what was checked. */
  at?: string;
  /** An error stands in the way; a warning does not. */
  severity: 'error' | 'warning';
}

export function error(code: ProblemCode, text: string, at?: string): Problem {
  return at === undefined ? { code, text, severity: 'error' } : { code, text, at, severity: 'error' };
}

export function warning(code: ProblemCode, text: string, at?: string): Problem {
  return at === undefined ? { code, text, severity: 'warning' } : { code, text, at, severity: 'warning' };
}
