/** A text as one line: what stands in a title or a subject. */
export function oneLine(text: string): string {
  return text.replaceAll(/[\s\p{Cc}]+/gu, ' ').trim();
}
