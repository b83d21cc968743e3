/** A piece of a text, and whether it is another in the text beside it. */
export interface TextPiece {
  text: string;
  differs: boolean;
}

/** Texts that have less than this share in common are other texts, and marking letters would not help. */
const ALIKE = 0.4;

/**
 * Where two texts differ: everything between their common beginning and their common end, whatever the capitals.
 *
 * @example textDifference('Ruiter', 'Ruyter')[0] // Ru, [i], ter
 */
export function textDifference(one: string, other: string): [TextPiece[], TextPiece[]] {
  const [a, b] = [[...one], [...other]];
  const same = (x: string, y: string) => x.toLowerCase() === y.toLowerCase();
  const shorter = Math.min(a.length, b.length);
  let start = 0;
  while (start < shorter && same(a[start]!, b[start]!)) start += 1;
  let end = 0;
  while (end < shorter - start && same(a[a.length - 1 - end]!, b[b.length - 1 - end]!)) end += 1;
  const common = (start + end) / Math.max(1, Math.max(a.length, b.length));
  if (common < ALIKE && !same(one, other)) return [whole(one), whole(other)];
  return [pieces(a, start, end), pieces(b, start, end)];
}

function whole(text: string): TextPiece[] {
  return text ? [{ text, differs: false }] : [];
}

function pieces(letters: readonly string[], start: number, end: number): TextPiece[] {
  const cut = (from: number, to: number, differs: boolean): TextPiece[] =>
    from < to ? [{ text: letters.slice(from, to).join(''), differs }] : [];
  const last = letters.length - end;
  return [...cut(0, start, false), ...cut(start, last, true), ...cut(last, letters.length, false)];
}
