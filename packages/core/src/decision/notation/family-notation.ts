import type { ValueSet } from '../../condition/value-set';
import type { Team } from '../../people/team';
import type { Column } from '../column';
import type { CellTest } from '../decision-table';

/** What cells may call by name. */
export interface CellNames {
  valueSets: Readonly<Record<string, Pick<ValueSet, 'name'>>>;
  teams: Readonly<Record<string, Pick<Team, 'name'>>>;
  defaultCurrency: string;
}

/** How the cells of one family of columns are written. */
export interface FamilyNotation {
  /** What may stand in a cell, for the hint beside it. */
  examples: readonly string[];
  /** The test that a text means, `null` for none of this family. A sentence says why it means nothing. */
  read(text: string, column: Column, names: CellNames): CellTest | string;
  /** The test as it is typed; `null` for a test that does not belong here. */
  show(cell: CellTest, column: Column, names: CellNames): string | null;
}
