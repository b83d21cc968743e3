/**
 * Whether a text has the shape of a pattern: `A` stands for a letter, `9` for a digit, `X` for either, anything else for
 * itself, capitals or not. Read in one pass, so that no pattern can be slow.
 */
export function fitsPattern(text: string, pattern: string): boolean {
  const given = [...text];
  const wanted = [...pattern];
  return given.length === wanted.length && wanted.every((mark, index) => fitsMark(given[index]!, mark));
}

function fitsMark(character: string, mark: string): boolean {
  if (mark === '9') return /\p{Nd}/u.test(character);
  if (mark === 'A') return /\p{L}/u.test(character);
  if (mark === 'X') return /[\p{L}\p{Nd}]/u.test(character);
  return character.toLowerCase() === mark.toLowerCase();
}
