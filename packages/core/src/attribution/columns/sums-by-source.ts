/** Figures of one source at one level: a record counts at as many depths of the tree as the level of a touch says. */
export type SourceSums<Figure extends string> = Record<Figure, number> & {
  part: number;
  /** Null: no touch led to it. */
  source: number | null;
  level: number;
};

/** Figures by part, source and level, each of them 0 before anything is added. */
export class SumsBySource<Figure extends string> {
  readonly #parts = new Map<number, Map<number, SourceSums<Figure>[]>>();
  readonly #none: Record<Figure, number>;

  constructor(figures: readonly Figure[]) {
    this.#none = Object.fromEntries(figures.map((figure) => [figure, 0])) as Record<Figure, number>;
  }

  /** @param source 0: no touch led to it. */
  of(part: number, source: number, level: number): SourceSums<Figure> {
    let sources = this.#parts.get(part);
    if (!sources) this.#parts.set(part, (sources = new Map()));
    let levels = sources.get(source);
    if (!levels) sources.set(source, (levels = []));
    return (levels[level] ??= { ...this.#none, part, source: source || null, level } as SourceSums<Figure>);
  }

  rows(): SourceSums<Figure>[] {
    return [...this.#parts.values()].flatMap((sources) =>
      [...sources.values()].flatMap((levels) => levels.filter(Boolean)),
    );
  }
}
