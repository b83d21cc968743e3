/** Counted up, with a migration, whenever the core finds records by other keys or blocks than before; see `RecordIndexing`. */
export const INDEX_VERSION = 1;
