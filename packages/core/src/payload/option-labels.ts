import { isJsonObject, type JsonObject, type JsonValue } from '../json';
import { folded, IDS, isScalar, LABELS, OPTIONS, scalarText } from './answer-words';

/** The options of a question, by id. */
export type OptionLabels = ReadonlyMap<string, string>;

const NONE: OptionLabels = new Map();

/** The options that stand beside a question: `[{"id": "o1", "text": "Moss"}]`, or `{"o1": "Moss"}`. */
export function optionsOf(question: JsonObject): OptionLabels {
  for (const [property, value] of Object.entries(question)) {
    if (!OPTIONS.has(folded(property)) || value === null || typeof value !== 'object') continue;
    const labels = new Map<string, string>();
    if (Array.isArray(value))
      for (const option of value) {
        const [id, label] = isJsonObject(option) ? optionOf(option) : [];
        if (id && label && id !== label) labels.set(id, label);
      }
    else if (Object.values(value).every(isScalar))
      for (const [id, label] of Object.entries(value)) labels.set(id, scalarText(label as string));
    if (labels.size) return labels;
  }
  return NONE;
}

function optionOf(option: JsonObject): [id?: string, label?: string] {
  let [id, label, value]: (string | undefined)[] = [];
  for (const [property, inner] of Object.entries(option)) {
    if (!isScalar(inner)) continue;
    const word = folded(property);
    if (IDS.has(word)) id ??= scalarText(inner);
    else if (LABELS.has(word) || word === 'text') label ??= scalarText(inner);
    else if (word === 'value') value ??= scalarText(inner);
  }
  return [id ?? value, label ?? value];
}

/** An answer with the labels of the options that it names by id; anything else stays as it is. */
export function withOptionLabels(answer: JsonValue, options: OptionLabels = NONE): JsonValue {
  if (!options.size) return answer;
  if (Array.isArray(answer)) return answer.map((one) => withOptionLabels(one, options));
  return isScalar(answer) ? (options.get(scalarText(answer)) ?? answer) : answer;
}
