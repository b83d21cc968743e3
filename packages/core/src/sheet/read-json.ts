import { isJsonObject, type JsonObject, type JsonValue } from '../json';
import type { SheetRow } from './sheet';

/**
 * Reads JSON: one object a line (JSON Lines), a list of objects, or an object that holds such a list. A line or item that
 * is no object is refused by itself. The row is the line of JSON Lines, and the place in a list.
 */
export function* readJson(text: string): Generator<SheetRow> {
  const whole = firstLineIsWhole(text) ? undefined : parsed(text);
  if (whole === undefined) yield* readLines(text);
  else
    for (const [index, value] of listIn(whole).entries())
      yield rowOf(index + 1, value, JSON.stringify(value).slice(0, 1_000));
}

function* readLines(text: string): Generator<SheetRow> {
  for (const [index, line] of text.split(/\r\n?|\n/).entries()) {
    if (line.trim() === '') continue;
    const [row, told] = [index + 1, line.slice(0, 1_000)];
    const value = parsed(line);
    yield value === undefined ? { row, text: told, refused: 'It is no JSON.' } : rowOf(row, value, told);
  }
}

function rowOf(row: number, value: JsonValue, text: string): SheetRow {
  return isJsonObject(value)
    ? { row, values: value }
    : { row, text, refused: 'It is no object with names and values.' };
}

/** Whether the first line is an object by itself, and more follow: then each line is one. */
function firstLineIsWhole(text: string): boolean {
  const begin = text.trimStart();
  const end = begin.search(/[\r\n]/);
  return begin[0] === '{' && end !== -1 && isJsonObject(parsed(begin.slice(0, end)));
}

/** The list that a document is or holds: the longest of its properties’, or what the document is by itself. */
function listIn(document: JsonValue): JsonValue[] {
  if (Array.isArray(document)) return document;
  const lists = isJsonObject(document) ? listsOf(document) : [];
  return lists.toSorted((a, b) => b.length - a.length)[0] ?? [document];
}

function listsOf(document: JsonObject): JsonValue[][] {
  return Object.values(document).filter(
    (value): value is JsonValue[] => Array.isArray(value) && value.length > 0 && value.every(isJsonObject),
  );
}

function parsed(text: string): JsonValue | undefined {
  try {
    return JSON.parse(text) as JsonValue;
  } catch {
    return undefined;
  }
}
