import { parse } from 'csv-parse/browser/esm/sync';
import type { FieldType } from './field-definition';

/** A field that somebody listed, with the type that its label suggests. */
export interface ListedField {
  label: string;
  type: FieldType;
}

/** What words in a label suggest, the first that fits; else text. */
const SUGGESTIONS: [RegExp, FieldType][] = [
  [/\be-?mail\b/i, 'email'],
  [/\b(phone|telephone|tel|mobile|fax)\b/i, 'phone'],
  [/\b(url|website|web ?site|link|homepage)\b/i, 'web'],
  [/\b(time|timestamp|date and time)\b/i, 'date-time'],
  [/\b(date|deadline|birthday|wanted by|due|since|until|on)$|\bdate\b/i, 'date'],
  [/\b(price|budget|amount|cost|fee|salary|revenue|turnover|worth)\b/i, 'money'],
  [/\b(number of|how many|count|quantity|qty)\b|^(no\.?|#) of\b/i, 'whole-number'],
  [/\b(area|height|width|length|weight|size|rate|percent|score)\b|[m²³%]\)?$/i, 'decimal'],
  [/^(is|has|may|wants|agreed|consents?|opt(ed)?[ -]in)\b|\?$|\byes\b.*\bno\b/i, 'yes-no'],
  [/\b(message|comments?|notes?|remarks?|description|details)\b/i, 'long-text'],
];

/** The type that a label suggests. */
export function suggestedType(label: string): FieldType {
  return SUGGESTIONS.find(([pattern]) => pattern.test(label))?.[1] ?? 'text';
}

/**
 * Reads a pasted list of fields: one a line, or the header row of a sheet, separated by tabs, semicolons or commas, with
 * or without quotes (RFC 4180). What stands twice is taken once.
 */
export function fieldsFromText(text: string): ListedField[] {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  const labels = lines.length === 1 ? headerCells(lines[0]!) : lines;
  const seen = new Set<string>();
  return labels.flatMap((cell) => {
    const label = cell.trim().replace(/\s+/g, ' ');
    if (label === '' || seen.has(label.toLowerCase())) return [];
    seen.add(label.toLowerCase());
    return [{ label, type: suggestedType(label) }];
  });
}

/**
 * The header row of a CSV file as one line: the first that is not blank, up to a line end outside quotes (RFC 4180). A
 * byte order mark is left out; line ends inside quotes become spaces.
 */
export function headerRow(csv: string): string {
  const text = csv.replace(/^\uFEFF?\s*/, '');
  let quoted = false;
  for (let at = 0; at < text.length; at++) {
    if (text[at] === '"') quoted = !quoted;
    else if (!quoted && (text[at] === '\n' || text[at] === '\r')) return oneLine(text.slice(0, at));
  }
  // A quote that is never closed would take the whole file for its header.
  return oneLine(quoted ? text.split(/[\r\n]/, 1)[0]! : text);
}

function oneLine(text: string): string {
  return text.replace(/[\r\n]+/g, ' ');
}

function headerCells(line: string): string[] {
  const delimiter = ['\t', ';', ','].find((mark) => line.includes(mark)) ?? ',';
  try {
    const [cells = []] = parse(line, { delimiter, relax_quotes: true }) as string[][];
    return cells;
  } catch {
    // A quote that is never closed, as while one types: then quotes mean nothing.
    return line.replaceAll('"', '').split(delimiter);
  }
}
