import { isJsonObject, type JsonObject, type JsonValue } from '../json';
import { folded, HEADERS, isScalarOrNull, ROWS } from './answer-words';

/** A row of answers whose questions stand in another. */
export interface AnswerTable {
  questions: string[];
  values: JsonValue[];
  /** From the object or list to each value. */
  ways: (string | number)[][];
}

/** The answers of an object that lists questions in one property and answers in another, and which these are. */
export function tableBeside(object: JsonObject): { header: string; row: string; table: AnswerTable } | null {
  const lists = Object.entries(object).filter((entry): entry is [string, JsonValue[]] => Array.isArray(entry[1]));
  for (const [header, questions] of lists) {
    if (!HEADERS.has(folded(header)) || !areQuestions(questions)) continue;
    for (const [row, value] of lists) {
      if (row === header || !ROWS.has(folded(row))) continue;
      const only = value.length === 1 && Array.isArray(value[0]) ? value[0] : null;
      const cells = only ?? value;
      if (cells.length !== questions.length || !cells.every(isScalarOrNull)) continue;
      const ways = cells.map((_, index) => (only ? [row, 0, index] : [row, index]));
      return { header, row, table: { questions, values: cells, ways } };
    }
  }
  return null;
}

/** The answers of a list of two rows, questions first, or of pairs of question and answer; `null` for any other list. */
export function tableOf(list: readonly JsonValue[]): AnswerTable | null {
  const [first, second] = list;
  if (list.length < 2 || !Array.isArray(first) || !Array.isArray(second)) return null;
  const isHeader = list.length === 2 && first.length === second.length && areQuestions(first);
  // Two rows of two cells are pairs, unless the second row alone holds what is nobody’s question.
  if (isHeader && second.every(isScalarOrNull) && (first.length > 2 || second.some((cell) => isValue(cell))))
    return { questions: first, values: second, ways: second.map((_, index) => [1, index]) };
  const pairs: [string, JsonValue][] = [];
  for (const pair of list) {
    if (!Array.isArray(pair) || pair.length !== 2 || typeof pair[0] !== 'string' || isJsonObject(pair[1])) return null;
    pairs.push([pair[0], pair[1]!]);
  }
  if (!areQuestions(pairs.map(([question]) => question))) return null;
  return {
    questions: pairs.map(([question]) => question),
    values: pairs.map(([, value]) => value),
    ways: pairs.map((_, index) => [index, 1]),
  };
}

/** Whether each is another text, and none is a value. */
function areQuestions(list: readonly JsonValue[]): list is string[] {
  const texts = list.filter((one): one is string => typeof one === 'string' && one.trim() !== '' && !isValue(one));
  return (
    list.length >= 2 && texts.length === list.length && new Set(texts.map(folded)).size >= Math.min(2, list.length)
  );
}

function isValue(cell: JsonValue): boolean {
  return typeof cell !== 'string' || /@|^[\d\s.,:/+()-]+$|^https?:/.test(cell);
}
