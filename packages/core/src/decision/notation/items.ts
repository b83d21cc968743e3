/** What people write where anything will do. */
const ANYTHING = new Set(['', 'any', 'anything', 'all', 'everything', '*', '-', '–', '—', 'n/a']);

/** Whether a cell says that anything will do. */
export function meansAnything(text: string): boolean {
  return ANYTHING.has(text.trim().toLowerCase());
}

/** `A, "B, C"; D` as its items. A quotation mark inside quotation marks is written twice, as in CSV. Reads each character once. */
export function readItems(text: string): string[] {
  const items: string[] = [];
  let at = 0;
  while (at <= text.length) {
    const [item, end] = readItem(text, at);
    items.push(item);
    at = end + 1;
  }
  return items.filter((item) => item !== '');
}

function readItem(text: string, start: number): [string, number] {
  let at = start;
  while (text[at] === ' ') at += 1;
  if (text[at] !== '"') {
    const end = separatorFrom(text, at);
    return [text.slice(at, end).trim(), end];
  }
  let item = '';
  at += 1;
  for (; at < text.length; at += 1) {
    if (text[at] !== '"') item += text[at]!;
    else if (text[at + 1] === '"') {
      item += '"';
      at += 1;
    } else break;
  }
  return [item, separatorFrom(text, at + 1)];
}

/** Where the next comma or semicolon stands; the end where there is none. */
function separatorFrom(text: string, start: number): number {
  let at = start;
  while (at < text.length && text[at] !== ',' && text[at] !== ';') at += 1;
  return at;
}

export function quoted(item: string): string {
  return `"${item.replaceAll('"', '""')}"`;
}

/** Items in a row; those that would be read as something else are put in quotation marks. */
export function showItems(items: readonly string[]): string {
  return items.map((item) => (isPlain(item) ? item : quoted(item))).join(', ');
}

function isPlain(item: string): boolean {
  return item !== '' && item === item.trim() && !/[",;\n]/.test(item);
}
