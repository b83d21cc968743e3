import { isJsonObject, type JsonObject, type JsonValue } from '../json';
import { questionOf } from './answer-list';
import { foldSegment, parseKey } from './key';

/**
 * Names for fields whose sender gives only ids, as far as a document tells them: the sender’s definition of its form, or
 * a submission that came with the questions. Whatever has an id and a question beside it counts, wherever it stands; an
 * id with two questions says nothing.
 *
 * @param keys The fields that want a name.
 * @returns The names by key.
 */
export function taughtNames(document: JsonValue, keys: readonly string[]): Record<string, string> {
  const questions = questionsById(document);
  return Object.fromEntries(
    keys.flatMap((key) => {
      const id = foldSegment(String(parseKey(key)?.at(-1) ?? key));
      const question = questions.get(id);
      return question ? [[key, question]] : [];
    }),
  );
}

/** The longest text that is a question, and not what somebody wrote. */
const LONGEST = 200;

/** The question of each id, without capitals and punctuation; `null` where there are several. */
function questionsById(document: JsonValue): Map<string, string | null> {
  const found = new Map<string, string | null>();
  const learn = (id: string, question: string) => {
    const folded = foldSegment(id);
    if (!folded || !question || question.length > LONGEST || foldSegment(question) === folded) return;
    const known = found.get(folded);
    if (known === undefined) found.set(folded, question);
    else if (known !== question) found.set(folded, null);
  };
  const left: JsonValue[] = [document];
  for (let value = left.pop(); value !== undefined; value = left.pop()) {
    if (Array.isArray(value)) left.push(...value);
    else if (isJsonObject(value)) learnFrom(value, learn, left);
  }
  return found;
}

function learnFrom(object: JsonObject, learn: (id: string, question: string) => void, left: JsonValue[]): void {
  const own = questionOf(object);
  learn(own.id, own.label);
  for (const [name, value] of Object.entries(object)) {
    if (value === null || typeof value !== 'object') continue;
    // `{"q1": {"title": "Your name"}}`: the property is the id.
    if (isJsonObject(value)) {
      const inner = questionOf(value);
      if (!inner.id) learn(name, inner.label);
      // `{"question": {"title": "Your name"}, "id": "q1"}`: the question is an object beside the id.
      else if (!own.label && own.id) learn(own.id, inner.label);
    }
    left.push(value);
  }
}
