/** People who share work. */
export interface Team {
  name: string;
  /** The keys of its people. */
  people: readonly string[];
}
