/** The rest of a text after the first of the words that it begins with, longest first; capitals do not count. */
export function afterWords(
  text: string,
  words: Readonly<Record<string, string>>,
): { test: string; rest: string } | null {
  const lower = text.toLowerCase();
  const found = Object.keys(words)
    .sort((one, other) => other.length - one.length)
    .find((start) => lower.startsWith(`${start} `));
  return found === undefined ? null : { test: words[found]!, rest: text.slice(found.length).trim() };
}

/** The words that stand for a test, where there are such. */
export function wordsFor(test: string, words: Readonly<Record<string, string>>): string | null {
  return Object.keys(words).find((start) => words[start] === test) ?? null;
}

/** `from X to Y`, `X to Y`: both ends, or `null`. */
export function bothEnds(text: string): [string, string] | null {
  const at = text.search(/ (to|–) /i);
  if (at === -1) return null;
  const ends: [string, string] = [
    text.slice(0, at).trim(),
    text
      .slice(at + 3)
      .replace(/^ *o? /i, '')
      .trim(),
  ];
  return ends;
}
