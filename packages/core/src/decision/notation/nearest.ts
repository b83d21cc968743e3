import { editDistance } from '../../identity/comparators/damerau-levenshtein';

/** Longer texts are no misspelt name. */
const LONGEST = 100;

/** The sentence `Did you mean “…”?` with the name that a text is most likely a misspelling of; `''` where none is near. */
export function didYouMean(text: string, names: readonly string[]): string {
  const typed = text.trim().toLowerCase();
  if (typed.length > LONGEST) return '';
  let [nearest, least] = ['', 1 + Math.min(2, Math.floor(typed.length / 4))];
  for (const name of names) {
    const distance = editDistance(typed, name.toLowerCase(), least - 1);
    if (distance < least) [nearest, least] = [name, distance];
  }
  return nearest && ` Did you mean “${nearest}”?`;
}
