/**
 * The rest of a text after the first of the words or signs that it begins with, longest first; capitals do not count. A word
 * ends with a blank, a sign such as `>=` need not.
 */
export function afterWords(
  text: string,
  words: Readonly<Record<string, string>>,
): { test: string; rest: string } | null {
  const lower = text.toLowerCase();
  const found = Object.keys(words)
    .sort((one, other) => other.length - one.length)
    .find((start) => lower.startsWith(/[a-z]$/.test(start) ? `${start} ` : start));
  return found === undefined ? null : { test: words[found]!, rest: text.slice(found.length).trim() };
}

/** The text before the first of some words or signs that it ends with, as `20` of `20 or more`. */
export function beforeWords(
  text: string,
  words: Readonly<Record<string, string>>,
): { test: string; rest: string } | null {
  const lower = text.toLowerCase();
  const found = Object.keys(words).find((end) => lower.endsWith(/^[a-z]/.test(end) ? ` ${end}` : end));
  return found === undefined ? null : { test: words[found]!, rest: text.slice(0, -found.length).trim() };
}

/** The words that stand for a test, the first where there are several; `null` where there are none. */
export function wordsFor(test: string, words: Readonly<Record<string, string>>): string | null {
  return Object.keys(words).find((start) => words[start] === test) ?? null;
}

/** `from X to Y`, `between X and Y`, `X to Y`, `X – Y`: both ends, or `null`. */
export function bothEnds(text: string): [string, string] | null {
  if (/^up to /i.test(text)) return null;
  const between = /^between /i.test(text);
  const found = (between ? / and /i : / (?:to|[-–—]) /i).exec(text);
  if (!found) return null;
  const first = text.slice(0, found.index).replace(/^(?:from|between) /i, '');
  return [first.trim(), text.slice(found.index + found[0].length).trim()];
}

/** `1000-5000`: the ends of a range without blanks around its dash, which stands after a digit and before one. */
export function closeEnds(text: string): [string, string] | null {
  const found = /\d[-–—](?=\d)/.exec(text);
  return found && [text.slice(0, found.index + 1), text.slice(found.index + 2)];
}
