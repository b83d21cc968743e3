import { isJsonObject, type JsonObject, type JsonValue } from '../json';
import { readDelimited } from '../sheet/read-delimited';
import { folded, IDS, isScalar } from './answer-words';
import { parseKey } from './key';
import { DefinedQuestions } from './questions';

/**
 * Names for fields whose sender gives only ids, as far as a document tells them: the sender’s definition of its form, or
 * a submission that came with the questions; see `DefinedQuestions`.
 *
 * @param keys The fields that want a name.
 * @returns The names by key.
 */
export function taughtNames(document: JsonValue, keys: readonly string[]): Record<string, string> {
  const questions = new DefinedQuestions(document);
  return Object.fromEntries(
    keys.flatMap((key) => {
      const question = questions.of(String(parseKey(key)?.at(-1) ?? key));
      return question ? [[key, question.label]] : [];
    }),
  );
}

/**
 * The same from a text as somebody pastes it: JSON, or a table whose first two columns are the id and the question, as
 * delimited values.
 *
 * @returns `null` while it is neither.
 */
export function taughtByText(text: string, keys: readonly string[]): Record<string, string> | null {
  if (/^\s*[[{]/.test(text)) {
    try {
      return taughtNames(asLabels(JSON.parse(text) as JsonValue), keys);
    } catch {
      return null;
    }
  }
  const table = readDelimited(text);
  if (!table.ok || table.reading.columns.length < 2) return null;
  const [id, question] = table.reading.columns as [string, string];
  // Where no line names the columns, the first question was taken for one that does.
  const labels: JsonObject = IDS.has(folded(id)) ? {} : { [id]: question };
  for (const row of table.rows())
    if ('values' in row) labels[String(row.values[id] ?? '')] = row.values[question] ?? '';
  return taughtNames({ labels }, keys);
}

/** `{"q1": "Your name"}` alone is a map of labels. */
function asLabels(document: JsonValue): JsonValue {
  return isJsonObject(document) && Object.values(document).every(isScalar) ? { labels: document } : document;
}
