/** What a token may do: read, bring submissions and files in, or all but what needs a person. */
export type TokenScope = 'read' | 'send' | 'all';

/** A token of a script, without its secret. Times are ISO 8601. */
export interface TokenLine {
  id: string;
  name: string;
  scope: TokenScope;
  /** Who made it, and whose end is its own. */
  by: string;
  madeAt: string;
  usedAt: string | null;
  /** Null: made before tokens ended. */
  expiresAt: string | null;
}

export interface NewTokenShape {
  id: string;
  /** Shown this once. */
  secret: string;
}

/** A link by which somebody sets their password, once. */
export interface PersonLinkShape {
  /** `/welcome/…` */
  address: string;
  /** How long it lasts. */
  hours: number;
}

/** One browser in which somebody is signed in. Times are ISO 8601. */
export interface SessionLine {
  id: string;
  /** As the browser called itself. */
  browser: string;
  begunAt: string;
  usedAt: string;
  /** Whether it is the one that asks. */
  current: boolean;
}
