/** Figures of one source at one level: a record counts at as many depths of the tree as the level of a touch says. */
export type SourceSums<Figure extends string> = Record<Figure, number> & {
  part: number;
  /** Null: no touch led to it. */
  source: number | null;
  level: number;
};

/** The level of the last touch of a journey; others count at fewer depths of the tree. */
export const LAST_LEVEL = 5;

/** Figures by part, source and level. Those of one source lie next to each other, level by level. */
export class SumsBySource<Figure extends string> {
  readonly #parts = new Map<number, Map<number, Float64Array>>();
  /** The number of figures of a level. */
  readonly width: number;

  constructor(readonly figures: readonly Figure[]) {
    this.width = figures.length;
  }

  /**
   * Returns the figures of a source, to add to: those of a level begin at `level * width`.
   *
   * @param source 0: no touch led to it.
   */
  of(part: number, source: number): Float64Array {
    let sources = this.#parts.get(part);
    if (!sources) this.#parts.set(part, (sources = new Map()));
    let sums = sources.get(source);
    if (!sums) sources.set(source, (sums = new Float64Array((LAST_LEVEL + 1) * this.width)));
    return sums;
  }

  /** Returns the figures of each source and level at which there are any. */
  rows(): SourceSums<Figure>[] {
    const all = [...this.#parts].flatMap(([part, sources]) =>
      [...sources].flatMap(([source, sums]) =>
        Array.from({ length: LAST_LEVEL + 1 }, (_, level) => {
          const own = sums.subarray(level * this.width, (level + 1) * this.width);
          const figures = Object.fromEntries(this.figures.map((figure, at) => [figure, own[at]!]));
          return {
            ...(figures as Record<Figure, number>),
            part,
            source: source || null,
            level,
            hasAny: own.some(Boolean),
          };
        }),
      ),
    );
    return all.filter(({ hasAny }) => hasAny);
  }
}
