/** A large library that not every page needs: at hand on the server, fetched by a browser when it is first asked for. */
export class Library<What> {
  #what: What | undefined;
  #loading: Promise<void> | undefined;

  /** @param fetch What brings it, or the library itself where it is at hand. */
  constructor(
    readonly name: string,
    private readonly fetch: (() => Promise<What>) | { atHand: What },
  ) {
    if ('atHand' in fetch) this.#what = fetch.atHand;
  }

  /** @throws LibraryMissing until it was loaded. */
  get now(): What {
    if (this.#what === undefined) throw new LibraryMissing(this);
    return this.#what;
  }

  /** Loads it once. One that could not be brought is brought by the next call. */
  load(): Promise<void> {
    if (this.#what !== undefined || 'atHand' in this.fetch) return Promise.resolve();
    this.#loading ??= this.fetch().then(
      (what) => {
        this.#what = what;
      },
      (cause: unknown) => {
        this.#loading = undefined;
        throw cause;
      },
    );
    return this.#loading;
  }
}

/** Work needs a library that was not loaded yet. */
export class LibraryMissing extends Error {
  override name = 'LibraryMissing';

  constructor(readonly library: Pick<Library<unknown>, 'name' | 'load'>) {
    super(`The library “${library.name}” is not loaded yet.`);
  }
}

/**
 * Does work that may need libraries, loading each that it asks for and beginning again. The work must leave nothing behind
 * where it breaks off.
 */
export async function withLibraries<Result>(work: () => Result): Promise<Result> {
  for (;;) {
    try {
      return work();
    } catch (cause) {
      if (!(cause instanceof LibraryMissing)) throw cause;
      await cause.library.load();
    }
  }
}
