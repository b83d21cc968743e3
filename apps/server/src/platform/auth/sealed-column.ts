/** A column of an area's own tables that holds sealed secrets. */
export interface SealedColumn {
  table: string;
  column: string;
  /** The column that tells rows of a workspace apart. */
  key: string;
  /** A row's secret is bound to this word and its key; see `SecretBox`. */
  of: string;
}
