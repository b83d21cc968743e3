import { jsonPointer, type JsonObject, type JsonValue } from '../json';
import { listedAnswers, nameFrom, uniqueNames } from './answer-list';
import { mappedAnswers } from './answer-map';
import { tableBeside, tableOf, type AnswerTable } from './answer-table';
import { isScalarOrNull } from './answer-words';
import { expandBrackets } from './bracket-names';
import { jsonInText } from './json-text';
import { extendKey } from './key';
import { withOptionLabels } from './option-labels';
import { PAYLOAD_LIMITS } from './payload-size';
import { DefinedQuestions, type DefinedQuestion } from './questions';

/**
 * One value found in a payload. Objects and lists are walked into, so a value is a scalar, or a list of them where it
 * answers one question of a list of answers.
 */
export interface PayloadField {
  /** How a route names it; see `fieldKey`. */
  key: string;
  /** The question in the sender's words, where it came with the answer. */
  label?: string;
  /** Where it stands, as a JSON Pointer (RFC 6901); for what is JSON in a text, where the text stands. */
  pointer: string;
  value: string | number | boolean | null | (string | number | boolean | null)[];
}

/** Names that carry something about the visit or the posting, not an answer. */
export const RESERVED_NAMES: ReadonlySet<string> = new Set([
  '_visit',
  '_once',
  '_not_asked',
  '_opened',
  '_leave_blank',
]);

/** A payload read: its fields, and the document in which their keys lead to them. */
export interface PayloadReading {
  /** The payload itself, or what its names with brackets describe. */
  document: JsonObject;
  fields: PayloadField[];
  byKey: ReadonlyMap<string, PayloadField>;
}

const read = new WeakMap<JsonObject, PayloadReading>();

/** Reads a payload, once. */
export function readingOf(payload: JsonObject): PayloadReading {
  const known = read.get(payload);
  if (known) return known;
  const expanded = expandBrackets(payload);
  const document = expanded?.payload ?? payload;
  const walk = new Walk(document, expanded?.sentAs ?? null);
  const fields = walk.read();
  const reading = { document, fields, byKey: new Map(fields.map((field) => [field.key, field])) };
  read.set(payload, reading);
  return reading;
}

type Way = readonly (string | number)[];

/** A walk through one document. */
class Walk {
  readonly #questions: DefinedQuestions;
  readonly #fields: PayloadField[] = [];
  /** Which fields stand in what defines questions, and which of these definitions were answered. */
  readonly #held = new Map<object, [from: number, to: number]>();
  readonly #answered = new Set<object>();
  /** Where the text stands whose JSON is being read. */
  #text: Way | null = null;

  constructor(
    private readonly document: JsonObject,
    private readonly sentAs: ReadonlyMap<string, string> | null,
  ) {
    // What is flat defines nothing.
    this.#questions = new DefinedQuestions(isFlat(document) ? null : document);
  }

  read(): PayloadField[] {
    this.#walk(this.document, '', []);
    const left = new Set<PayloadField>();
    for (const [holder, [from, to]] of this.#held)
      if (this.#answered.has(holder)) for (const field of this.#fields.slice(from, to)) left.add(field);
    return left.size ? this.#fields.filter((field) => !left.has(field)) : this.#fields;
  }

  #walk(value: JsonValue, key: string, way: Way, label?: string): void {
    if (typeof value === 'string') this.#string(value, key, way, label);
    else if (value === null || typeof value !== 'object') this.#emit(value, key, way, label);
    else {
      const from = this.#fields.length;
      if (Array.isArray(value)) this.#list(value, key, way, label);
      else this.#object(value, key, way, label);
      this.#held.set(value, [from, this.#fields.length]);
    }
  }

  #list(list: JsonValue[], key: string, way: Way, label: string | undefined): void {
    const answers = listedAnswers(list);
    if (answers) {
      for (const { name, id, value, way: inner, label: own, more } of answers) {
        const asked = this.#asked(id, list);
        const words = own && own !== id ? own : (asked?.label ?? own);
        this.#walk(withOptionLabels(value, asked?.options), extendKey(key, name), [...way, ...inner], words);
        this.#more(more, extendKey(key, name), [...way, inner[0]!], value);
      }
      return;
    }
    const table = tableOf(list);
    if (table) this.#table(table, key, way);
    else if (label !== undefined && list.every(isScalarOrNull)) this.#emit(list, key, way, label);
    else list.forEach((item, index) => this.#walk(item, extendKey(key, index), [...way, index]));
  }

  #object(object: JsonObject, key: string, way: Way, label: string | undefined): void {
    const flat = isFlat(object);
    const beside = flat ? null : tableBeside(object);
    const answers = flat ? null : mappedAnswers(object);
    for (const name of Object.keys(object)) {
      if (way.length === 0 && RESERVED_NAMES.has(name)) continue;
      if (beside?.header === name) continue;
      const [inner, at] = [extendKey(key, name), [...way, name]];
      if (beside?.row === name) {
        this.#table(beside.table, inner, way);
        continue;
      }
      const answer = answers?.get(name);
      const asked = this.#asked(name, object) ?? (answer?.id ? this.#asked(answer.id, object) : undefined);
      const words = answer?.label || asked?.label || partLabel(label, name);
      const options = asked?.options;
      if (answer) {
        if (answer.value !== undefined)
          this.#walk(withOptionLabels(answer.value, options), inner, [...at, ...answer.way], words);
        this.#more(answer.more, inner, at, answer.value ?? null);
      } else this.#walk(withOptionLabels(object[name]!, options), inner, at, words);
    }
  }

  /** What stands beside an answer, unless it says the same once more. */
  #more(more: readonly [string, JsonValue][], key: string, way: Way, value: JsonValue): void {
    for (const [property, other] of more)
      if (other !== value) this.#walk(other, extendKey(key, property), [...way, property]);
  }

  #table({ questions, values, ways }: AnswerTable, key: string, way: Way): void {
    const names = uniqueNames(questions.map(nameFrom));
    values.forEach((value, index) =>
      this.#walk(value, extendKey(key, names[index]!), [...way, ...ways[index]!], questions[index]!.trim()),
    );
  }

  /** What the document says that an id asks, unless that is said in the very object. */
  #asked(id: string, within: object): DefinedQuestion | undefined {
    const asked = this.#questions.size ? this.#questions.of(id) : undefined;
    if (!asked || asked.holder === within) return undefined;
    if (asked.holder) this.#answered.add(asked.holder);
    return asked;
  }

  #string(text: string, key: string, way: Way, label: string | undefined): void {
    const inner = this.#text || this.#fields.length > PAYLOAD_LIMITS.fields ? null : jsonInText(text);
    if (!inner) {
      this.#emit(text, key, way, label);
      return;
    }
    this.#text = way;
    this.#walk(inner, key, way);
    this.#text = null;
  }

  #emit(value: PayloadField['value'], key: string, way: Way, label: string | undefined): void {
    this.#fields.push({ key, ...(label ? { label } : {}), pointer: this.#pointer(this.#text ?? way), value });
  }

  #pointer(way: Way): string {
    if (this.sentAs)
      for (let length = way.length; length > 1; length -= 1) {
        const name = this.sentAs.get(jsonPointer(way.slice(0, length)));
        if (name !== undefined) return jsonPointer([name, ...way.slice(length)]);
      }
    return jsonPointer(way);
  }
}

/** Whether there is nothing to walk into but what is left out. */
function isFlat(object: JsonObject): boolean {
  for (const name in object)
    if (typeof object[name] === 'object' && object[name] && !RESERVED_NAMES.has(name)) return false;
  return true;
}

/** A part of an answer asks what the answer asks: `Name: first`. */
function partLabel(label: string | undefined, name: string): string | undefined {
  return label ? `${label}: ${name}` : undefined;
}
