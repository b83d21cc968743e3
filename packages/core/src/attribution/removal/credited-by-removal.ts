import { apportion } from '../apportion';
import { CREDITED } from '../credit-tree';
import type { RemovalShare } from './removal-effect';

/** A row of a report: what it goes by from the outside in, and what it is credited with in minor units. */
type CreditedRow = Record<(typeof CREDITED)[number], number>;

/**
 * Credits the channels of a report by their removal effects. Credit of records without touches stays as it is. Within a
 * channel, sources and campaigns keep their proportions. The total stays the same.
 *
 * @param rows All rows, those of channels and those inside them.
 * @param pathOf What a row goes by; the channel first.
 */
export function creditedByRemoval<Row extends CreditedRow>(
  rows: readonly Row[],
  pathOf: (row: Row) => readonly string[],
  shares: readonly RemovalShare[],
): Row[] {
  const of = new Map(shares.map(({ state, share }) => [state, share]));
  const paths = new Map(rows.map((row) => [row, pathOf(row)]));
  const credited = new Map<Row, CreditedRow>();
  const below = (above: readonly string[]) =>
    rows.filter((row) => {
      const path = paths.get(row)!;
      return path.length === above.length + 1 && above.every((part, depth) => path[depth] === part);
    });
  const share = (above: readonly string[], whole: CreditedRow | null) => {
    const known = below(above).filter((row) => above.length > 0 || of.has(paths.get(row)![0]!));
    const parts = CREDITED.map((figure) => {
      const total = whole ? whole[figure] : known.reduce((sum, row) => sum + row[figure], 0);
      return apportion(
        total,
        known.map((row) => (above.length ? row[figure] : of.get(paths.get(row)![0]!)!)),
      );
    });
    known.forEach((row, index) => {
      const own = Object.fromEntries(CREDITED.map((figure, at) => [figure, parts[at]![index]!])) as CreditedRow;
      credited.set(row, own);
      share(paths.get(row)!, own);
    });
  };
  share([], null);
  return rows.map((row) => ({ ...row, ...credited.get(row) }));
}
