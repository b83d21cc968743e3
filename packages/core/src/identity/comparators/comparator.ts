/** One way to say how alike two values are. Adding one is one file and one line in the registry. */
export interface Comparator {
  name: string;
  label: string;
  /** What it is good for, and the paper that it follows. */
  description: string;
  /** From 0, nothing alike, to 1, the same. Symmetric. */
  alike(one: string, other: string): number;
  /** Pairs with what they come to, to three digits; the tests run them. */
  examples: readonly (readonly [one: string, other: string, alike: number])[];
}
