import type { FormMonth, IntakeLine } from '@haycart/api';
import { nearlySame } from '@haycart/core';

/** An intake with what visitors did at it. */
export interface Line extends IntakeLine {
  figures: FormMonth | undefined;
  /** Another intake with nearly the same name. */
  like: string | undefined;
}

/** Of those who looked in the last 30 days, how many sent; null where nobody looked or nothing is counted. */
export function completionOf({ figures }: Pick<Line, 'figures'>): number | null {
  return figures?.views ? Math.min(1, figures.sends / figures.views) : null;
}

const SORTS = {
  name: ({ name }: Line) => name.toLowerCase(),
  kind: ({ kind }: Line) => kind,
  state: ({ state }: Line) => state,
  views: ({ figures }: Line) => figures?.views ?? -1,
  starts: ({ figures }: Line) => figures?.starts ?? -1,
  sends: ({ figures }: Line) => figures?.sends ?? -1,
  completion: (line: Line) => completionOf(line) ?? -1,
  submissions: ({ submissions }: Line) => submissions,
  last: ({ lastAt }: Line) => lastAt ?? '',
} as const;
export type IntakeSort = keyof typeof SORTS;

/** The lines that are shown: found by name, archived ones on wish, and sorted. */
export function shownLines(
  intakes: readonly IntakeLine[],
  months: readonly FormMonth[],
  wish: { find: string; archived: boolean; sort: { field: IntakeSort; down: boolean } | null },
): Line[] {
  const wanted = wish.find.trim().toLowerCase();
  const lines = intakes
    .filter((one) => wish.archived || !one.archived)
    .filter(({ name, key }) => `${name} ${key}`.toLowerCase().includes(wanted))
    .map((one): Line => ({
      ...one,
      figures: months.find(({ key }) => key === one.key),
      like: intakes.find((other) => other.key !== one.key && nearlySame(other.name, one.name))?.name,
    }));
  if (!wish.sort) return lines;
  const { field, down } = wish.sort;
  const value = SORTS[field];
  const order = (a: Line, b: Line) => (value(a) < value(b) ? -1 : value(a) > value(b) ? 1 : 0);
  return lines.sort((a, b) => (down ? order(b, a) : order(a, b)));
}
