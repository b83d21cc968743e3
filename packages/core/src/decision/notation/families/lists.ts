/** One value as itself, several as a list. */
export const oneOrAll = (items: readonly string[]) => (items.length === 1 ? items[0]! : [...items]);

/** A value or a list of them, as texts. */
export const listOf = (value: unknown) => [value].flat().map(String);
