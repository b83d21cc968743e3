/** A named set of values for the cells of decision tables. */
export interface ValueSetShape {
  key: string;
  name: string;
  values: string[];
  /** The names of the routes whose tables name it. */
  usedBy: string[];
}
