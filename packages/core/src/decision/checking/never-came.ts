import type { FinisherContext } from '../../value/finishers/finisher';
import { readyTable } from '../decide';
import { meetsCell } from '../cell';
import { columnValue, type TableAround } from '../column';
import type { DecisionTable } from '../decision-table';

/** A cell that no value met which came so far. */
export interface NeverCame {
  row: number;
  column: number;
  /** What came instead, most often first. */
  came: readonly string[];
}

/**
 * The cells of answers that nothing met which came so far: a choice that a form does not offer any more, a name that
 * nobody writes like that. Nothing is said of cells that ask for a blank, and of answers of which not all is known.
 *
 * @param came All values that came of an answer, by its key; `null` where there are more than are known.
 */
export function neverCame(
  table: DecisionTable,
  around: TableAround,
  came: (answer: string) => readonly string[] | null,
): NeverCame[] {
  const ready = readyTable(table, around);
  const { defaultCountry, defaultCurrency } = around.destination;
  const finishing: FinisherContext = { defaultCountry, defaultCurrency, payload: {}, answer: () => '' };
  const known = ready.columns.map((column) => {
    const { of, postcode } = column.input;
    // A region goes by two answers, and of lists it is known what was in them, not what came together.
    const isPlain = 'answer' in of && postcode === undefined && column.family !== 'several';
    const texts = isPlain ? came(of.answer) : null;
    if (!texts?.length) return null;
    const values = texts.map((text) => columnValue(column, (part) => (part === of ? text : undefined), finishing));
    return { texts, values };
  });
  return ready.rows.flatMap((cells, row) =>
    cells.flatMap(({ column, compared }) => {
      const seen = known[column];
      const test = table.rows[row]!.when[column]!.test;
      // What goes by the time of arrival may be met tomorrow, and what could not be read is told elsewhere.
      if (!seen || !compared || typeof compared === 'string' || test === 'blank') return [];
      return seen.values.some((value) => meetsCell(compared, value)) ? [] : [{ row, column, came: seen.texts }];
    }),
  );
}
