/** Whether any line of a text is longer than `most` characters. Very long cells are slow to parse. */
export function hasLineOver(text: string, most: number): boolean {
  for (let from = 0; from < text.length;) {
    const end = text.indexOf('\n', from);
    if ((end === -1 ? text.length : end) - from > most) return true;
    if (end === -1) return false;
    from = end + 1;
  }
  return false;
}
