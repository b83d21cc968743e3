import type { ChannelRules, JoinedNames } from '@haycart/core';

/** How a workspace tells channels apart. */
export interface ChannelRulesShape extends ChannelRules {
  /** Whether they are the usual ones, since nobody made others. */
  usual: boolean;
  /** Sources of the last year that look like spellings of one name, and are not joined. */
  alike: JoinedNames[];
}

/** What rules would change about touches of the past. */
export interface SourceMoves {
  /** How many touches were looked at. */
  looked: number;
  /** How many would come from another source. */
  touches: number;
  /** From where to where; those of the most touches first. */
  moves: { from: NamedPlace; to: NamedPlace; touches: number }[];
  /** How many kinds of moves are not told. */
  more: number;
}

interface NamedPlace {
  channel: string;
  source: string;
}

/** A change of where touches of the past came from. */
export interface SourceChange {
  id: string;
  at: string;
  by: string;
  kind: 'rules' | 'correction';
  text: string;
  takenBack: { at: string; by: string } | null;
  /** How many touches it moved just now. */
  touches?: number;
}
