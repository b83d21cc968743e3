import { isJsonObject, type JsonObject, type JsonValue } from '../json';
import { questionOf, readItem } from './answer-item';
import { folded, isScalar, LABEL_MAPS, OPTIONS, scalarText } from './answer-words';
import { foldSegment } from './key';
import { optionsOf, type OptionLabels } from './option-labels';

/** A question as a document defines it, apart from what was answered. */
export interface DefinedQuestion {
  label: string;
  options: OptionLabels;
  /** The list or object that defines it; `null` where it stands with its answer. */
  holder: JsonValue[] | JsonObject | null;
}

/** The longest text that is a question, and not what somebody wrote. */
const LONGEST = 200;

/**
 * What a document says that ids ask: whatever has an id and a question beside it, wherever it stands. An id with two
 * questions says nothing.
 */
export class DefinedQuestions {
  readonly #byId = new Map<string, DefinedQuestion | null>();

  constructor(document: JsonValue) {
    const left: { value: JsonValue; name: string; list: JsonValue[] | null }[] = [
      { value: document, name: '', list: null },
    ];
    for (let one = left.pop(); one !== undefined; one = left.pop()) {
      const { value, name, list } = one;
      if (Array.isArray(value)) {
        for (const item of value)
          if (item !== null && typeof item === 'object') left.push({ value: item, name: '', list: value });
      } else if (isJsonObject(value)) {
        this.#learnFrom(value, list);
        this.#learnByProperty(value, name);
        for (const property in value) {
          const inner = value[property]!;
          if (inner !== null && typeof inner === 'object') left.push({ value: inner, name: property, list: null });
        }
      }
    }
  }

  get size(): number {
    return this.#byId.size;
  }

  /** The question of an id, however it is written. */
  of(id: string): DefinedQuestion | undefined {
    return this.#byId.get(foldSegment(id)) ?? undefined;
  }

  #learnFrom(object: JsonObject, list: JsonValue[] | null): void {
    const own = questionOf(object);
    if (own.id && own.label) this.#learn(own.id, own.label, object, list && answersNothing(object) ? list : null);
    // `{"question": {"title": "Your name"}, "id": "q1"}`: the question is an object beside the id.
    if (own.id && !own.label)
      for (const value of Object.values(object)) {
        const inner = isJsonObject(value) ? questionOf(value) : null;
        if (inner?.label) this.#learn(own.id, inner.label, value as JsonObject, null);
      }
  }

  #learnByProperty(object: JsonObject, name: string): void {
    const values = Object.values(object);
    if (!values.length) return;
    // `{"labels": {"q1": "Your name"}}`
    if (LABEL_MAPS.has(folded(name)) && values.every(isScalar))
      for (const id in object) this.#learn(id, scalarText(object[id] as string), {}, object);
    // `{"q1": {"title": "Your name"}}`: the property is the id, where there are nothing but such. A name is no question:
    // `{"company": {"name": "Weir Ltd"}}`.
    if (!values.every(isJsonObject)) return;
    const asking: [id: string, label: string, about: JsonObject][] = [];
    for (const id in object) {
      const { name: _, ...about } = object[id] as JsonObject;
      const inner = questionOf(about);
      if (!inner.label || inner.id) return;
      asking.push([id, inner.label, about]);
    }
    const holder = asking.every(([, , about]) => answersNothing(about)) ? object : null;
    for (const [id, label, about] of asking) this.#learn(id, label, about, holder);
  }

  #learn(id: string, label: string, about: JsonObject, holder: DefinedQuestion['holder']): void {
    const plain = foldSegment(id);
    if (!plain || !label || label.length > LONGEST || foldSegment(label) === plain) return;
    const known = this.#byId.get(plain);
    if (known === undefined) this.#byId.set(plain, { label, options: optionsOf(about), holder });
    else if (known && known.label !== label) this.#byId.set(plain, null);
    else if (known && !known.holder && holder) known.holder = holder;
  }
}

/** Whether an object only asks: what it lists are its options. */
function answersNothing(object: JsonObject): boolean {
  const rest = Object.fromEntries(
    Object.entries(object).filter(([property, value]) => !OPTIONS.has(folded(property)) || isScalar(value)),
  );
  const item = readItem(rest);
  return item === null ? !('value' in object || 'answer' in object) : item.value === undefined;
}
