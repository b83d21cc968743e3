import { isJsonObject, type JsonValue } from '../json';
import type { SheetRow } from './sheet';

/** Reads JSON Lines: one object a line; a line that is none is refused by itself. */
export function* readJsonLines(text: string): Generator<SheetRow> {
  const lines = text.split(/\r\n?|\n/);
  for (const [index, line] of lines.entries()) {
    if (line.trim() === '') continue;
    const row = index + 1;
    const refuse = (refused: string): SheetRow => ({ row, text: line.slice(0, 1_000), refused });
    let value: JsonValue;
    try {
      value = JSON.parse(line) as JsonValue;
    } catch {
      yield refuse('It is no JSON.');
      continue;
    }
    yield isJsonObject(value) ? { row, values: value } : refuse('It is no object with names and values.');
  }
}
