import type { Cells } from '@haycart/core';
import { dateText, isDateFormat } from './number-format';
import { xmlEvents, type XmlEvent } from './xml-events';
import { damaged, UnreadableFile, ZipParts } from './zip-parts';

/** The most columns of a sheet (ECMA-376 allows no more in practice). */
const MOST_COLUMNS = 16_384;

interface Book {
  parts: ZipParts;
  sheets: { name: string; part: string }[];
  strings: readonly string[];
  /** Whether the numbers of a style are dates, by its place. */
  dates: readonly boolean[];
  since: 1900 | 1904;
}

/** An XLSX workbook (ECMA-376): the names of its worksheets, and the rows of each as they are read. */
export interface Workbook {
  worksheets: string[];
  /** What a formula came to counts, not the formula. @throws UnreadableFile */
  rows(worksheet: string): AsyncGenerator<Cells>;
}

/** @throws UnreadableFile */
export async function openWorkbook(bytes: Buffer): Promise<Workbook> {
  const book = await openBook(bytes);
  return {
    worksheets: book.sheets.map(({ name }) => name),
    rows: (worksheet) => rowsOf(book, book.sheets.find(({ name }) => name === worksheet)?.part ?? ''),
  };
}

async function openBook(bytes: Buffer): Promise<Book> {
  const parts = await ZipParts.open(bytes);
  const targets = new Map<string, string>();
  await eachTag(parts, 'xl/_rels/workbook.xml.rels', 'Relationship', ({ Id, Target }) =>
    targets.set(Id!, Target!.startsWith('/') ? Target!.slice(1) : `xl/${Target}`),
  );
  const sheets: Book['sheets'] = [];
  let since: Book['since'] = 1900;
  await eachTag(parts, 'xl/workbook.xml', 'sheet', (attributes) => {
    const id = Object.entries(attributes).find(([name]) => name.endsWith(':id'))?.[1] ?? '';
    const target = targets.get(id);
    if (target && parts.has(target))
      sheets.push({ name: attributes.name ?? `Sheet ${sheets.length + 1}`, part: target });
  });
  await eachTag(parts, 'xl/workbook.xml', 'workbookPr', ({ date1904 }) => {
    if (date1904 === '1' || date1904 === 'true') since = 1904;
  });
  return { parts, sheets, strings: await sharedStrings(parts), dates: await dateStyles(parts), since };
}

async function* eventsOf(parts: ZipParts, name: string): AsyncGenerator<XmlEvent> {
  try {
    for await (const events of xmlEvents(parts.text(name))) yield* events;
  } catch (cause) {
    throw cause instanceof UnreadableFile ? cause : damaged();
  }
}

async function eachTag(
  parts: ZipParts,
  part: string,
  tag: string,
  found: (attributes: Record<string, string | undefined>) => void,
): Promise<void> {
  for await (const event of eventsOf(parts, part)) if ('open' in event && event.open === tag) found(event.attributes);
}

async function sharedStrings(parts: ZipParts): Promise<string[]> {
  const strings: string[] = [];
  if (!parts.has('xl/sharedStrings.xml')) return strings;
  let text = '';
  const reads = textReader((piece) => (text += piece));
  for await (const event of eventsOf(parts, 'xl/sharedStrings.xml')) {
    if ('open' in event && event.open === 'si') text = '';
    else if ('close' in event && event.close === 'si') strings.push(text);
    else reads(event);
  }
  return strings;
}

/** Takes what stands in `t`, but for how it is pronounced (`rPh`). */
function textReader(take: (piece: string) => void): (event: XmlEvent) => void {
  let inText = false;
  let spoken = false;
  return (event) => {
    if ('open' in event) {
      if (event.open === 't') inText = true;
      else if (event.open === 'rPh') spoken = true;
    } else if ('close' in event) {
      if (event.close === 't') inText = false;
      else if (event.close === 'rPh') spoken = false;
    } else if (inText && !spoken) take(event.text);
  };
}

async function dateStyles(parts: ZipParts): Promise<boolean[]> {
  const dates: boolean[] = [];
  if (!parts.has('xl/styles.xml')) return dates;
  const codes = new Map<number, string>();
  let inCells = false;
  for await (const event of eventsOf(parts, 'xl/styles.xml')) {
    if ('open' in event) {
      const { open, attributes } = event;
      if (open === 'numFmt') codes.set(Number(attributes.numFmtId), attributes.formatCode ?? '');
      else if (open === 'cellXfs') inCells = true;
      else if (open === 'xf' && inCells) {
        const id = Number(attributes.numFmtId ?? 0);
        dates.push(isDateFormat(id, codes.get(id)));
      }
    } else if ('close' in event && event.close === 'cellXfs') inCells = false;
  }
  return dates;
}

interface Cell {
  column: number;
  type: string;
  style: number;
  value: string;
}

async function* rowsOf(book: Book, sheet: string): AsyncGenerator<Cells> {
  let row = 0;
  let cells: string[] = [];
  let cell: Cell | null = null;
  let inValue = false;
  const inline = textReader((piece) => {
    if (cell?.type === 'inlineStr') cell.value += piece;
  });
  for await (const event of eventsOf(book.parts, sheet)) {
    if ('open' in event) {
      const { open, attributes } = event;
      if (open === 'row') {
        row = Number(attributes.r ?? row + 1);
        cells = [];
      } else if (open === 'c')
        cell = {
          column: attributes.r ? columnOf(attributes.r) : cells.length,
          type: attributes.t ?? 'n',
          style: Number(attributes.s ?? 0),
          value: '',
        };
      else if (open === 'v') inValue = true;
    } else if ('close' in event) {
      if (event.close === 'v') inValue = false;
      else if (event.close === 'c' && cell) {
        const text = cellText(book, cell);
        if (text !== '' && cell.column < MOST_COLUMNS) {
          while (cells.length < cell.column) cells.push('');
          cells[cell.column] = text;
        }
        cell = null;
      } else if (event.close === 'row' && cells.length) yield { row, cells };
    } else if (inValue && cell) cell.value += event.text;
    if (cell) inline(event);
  }
}

/** The place of a cell's column by its reference: `C7` is 2. */
function columnOf(reference: string): number {
  let column = 0;
  for (const letter of reference.slice(0, 4)) {
    if (letter < 'A' || letter > 'Z') break;
    column = column * 26 + letter.charCodeAt(0) - 64;
  }
  return column - 1;
}

function cellText({ strings, dates, since }: Book, { type, style, value }: Cell): string {
  switch (type) {
    case 's':
      return strings[Number(value)] ?? '';
    case 'e':
      // A formula that came to nothing, such as #N/A, is no value.
      return '';
    case 'b':
      return value === '1' ? 'true' : 'false';
    case 'n': {
      const number = Number(value);
      if (value.trim() === '' || !Number.isFinite(number)) return value.trim();
      return dates[style] ? dateText(number, since) : String(number);
    }
    case 'd':
      return value.endsWith('T00:00:00') ? value.slice(0, 10) : value;
    default:
      return value;
  }
}
