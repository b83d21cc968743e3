import type { JsonObject } from '../json';
import { dateOrderOf, type DateOrder } from '../reading/date-text';
import { answerText } from './answer-text';
import { shorten } from '../text';
import { payloadFields } from './fields';
import type { PayloadField } from './reading';
import { foldKey } from './key';
import { fieldKind, valueKind, type KindCounts, type ValueKind } from './value-kind';

/** What an intake has really received. */
export interface Profile {
  submissions: number;
  /** By key. */
  fields: Record<string, ProfileField>;
  /** How many fields beyond `PROFILE_LIMITS.fields` were seen and are not told apart. */
  beyond: number;
}

/** One field of an intake, as it arrived. Times are ISO 8601, UTC. */
export interface ProfileField {
  key: string;
  /** The sender’s words for the question, as they were last; `''` where it sends none. */
  label: string;
  /** Where it stood last, as a JSON Pointer (RFC 6901). */
  pointer: string;
  /** In how many submissions it stood, and in how many with an answer. */
  sent: number;
  filled: number;
  kinds: KindCounts;
  /** How often each short value came, up to `PROFILE_LIMITS.values` of them. */
  values: Record<string, number>;
  /** There were more values than are counted. */
  more: boolean;
  examples: string[];
  firstSeen: string;
  lastSeen: string;
  /** When it last had an answer. */
  lastFilled: string | null;
  /** Other ways in which the key was written. */
  also: string[];
  /** In which submission of the intake it first stood, and in which it last had an answer, counted from 1. */
  firstIn: number;
  lastFilledIn: number;
  /** What its latest answers look like, the last of them at the end. */
  recent: ValueKind[];
}

export const PROFILE_LIMITS = {
  fields: 2_000,
  values: 200,
  valueLength: 80,
  examples: 5,
  exampleLength: 200,
  recent: 20,
} as const;

export function emptyProfile(): Profile {
  return { submissions: 0, fields: {}, beyond: 0 };
}

/** Adds submissions to a profile, in the order in which they arrived. */
export class ProfileLearner {
  readonly #byFold = new Map<string, string>();
  #fields: number;

  constructor(readonly profile: Profile) {
    const keys = Object.keys(profile.fields);
    this.#fields = keys.length;
    for (const key of keys) this.#byFold.set(foldKey(key), key);
  }

  learn(payload: JsonObject, at: string): void {
    this.profile.submissions += 1;
    const fields = profiledFields(payload);
    const own = new Set(fields.map(({ key }) => key));
    for (const field of fields) {
      const known = this.#fieldFor(field, own, at);
      if (known) count(known, field, at, this.profile.submissions);
    }
  }

  #fieldFor({ key }: PayloadField, own: ReadonlySet<string>, at: string): ProfileField | undefined {
    const { fields } = this.profile;
    const same = Object.hasOwn(fields, key) ? key : this.#byFold.get(foldKey(key));
    // Two that stand in one submission are two fields, however alike they are written.
    if (same !== undefined && (same === key || !own.has(same))) {
      const known = fields[same]!;
      if (same !== key && !known.also.includes(key) && known.also.length < 10) known.also.push(key);
      return known;
    }
    if (this.#fields >= PROFILE_LIMITS.fields) {
      this.profile.beyond += 1;
      return undefined;
    }
    const made: ProfileField = {
      key,
      label: '',
      pointer: '',
      sent: 0,
      filled: 0,
      kinds: {},
      values: {},
      more: false,
      examples: [],
      firstSeen: at,
      lastSeen: at,
      lastFilled: null,
      also: [],
      firstIn: this.profile.submissions,
      lastFilledIn: 0,
      recent: [],
    };
    this.#fields += 1;
    Object.defineProperty(fields, key, { value: made, enumerable: true, configurable: true, writable: true });
    if (!this.#byFold.has(foldKey(key))) this.#byFold.set(foldKey(key), key);
    return made;
  }
}

/**
 * The fields of one payload as a profile tells them apart. Of a plain list the whole is a field and so is its first item;
 * the others are not, since lists have any length.
 */
function profiledFields(payload: JsonObject): PayloadField[] {
  const lists = new Map<string, PayloadField & { value: unknown[] }>();
  const fields: PayloadField[] = [];
  for (const field of payloadFields(payload)) {
    const [, list, place] = /^(.*)\[(\d+)\]$/.exec(field.key) ?? [];
    if (list === undefined || Array.isArray(field.value)) {
      fields.push(field);
      continue;
    }
    const whole = lists.get(list) ?? { key: list, pointer: field.pointer.replace(/\/\d+$/, ''), value: [] };
    whole.value.push(field.value);
    if (!lists.has(list)) {
      lists.set(list, whole);
      fields.push(whole as PayloadField);
    }
    if (place === '0') fields.push(field);
  }
  return fields;
}

function count(known: ProfileField, { label, pointer, value }: PayloadField, at: string, submission: number): void {
  known.sent += 1;
  known.pointer = pointer;
  if (label) known.label = label;
  if (at > known.lastSeen) known.lastSeen = at;
  if (at < known.firstSeen) known.firstSeen = at;
  const kind = valueKind(value);
  if (kind === null) return;
  const text = answerText(value).trim();
  if (text === '') return;
  known.filled += 1;
  known.kinds[kind] = (known.kinds[kind] ?? 0) + 1;
  known.recent.push(kind);
  if (known.recent.length > PROFILE_LIMITS.recent) known.recent.shift();
  known.lastFilledIn = submission;
  if (known.lastFilled === null || at > known.lastFilled) known.lastFilled = at;
  for (const one of kind === 'list' ? text.split('\n') : [text]) countValue(known, one);
  const example = shorten(text, PROFILE_LIMITS.exampleLength);
  if (known.examples.length < PROFILE_LIMITS.examples && !known.examples.includes(example))
    known.examples.push(example);
}

function countValue(known: ProfileField, value: string): void {
  if (value.length > PROFILE_LIMITS.valueLength) {
    known.more = true;
    return;
  }
  if (Object.hasOwn(known.values, value)) known.values[value]! += 1;
  else if (Object.keys(known.values).length < PROFILE_LIMITS.values)
    Object.defineProperty(known.values, value, { value: 1, enumerable: true, configurable: true, writable: true });
  else known.more = true;
}

/** What a field holds, by all of its values. */
export function profileKind({ kinds }: ProfileField): ValueKind {
  return fieldKind(kinds);
}

/** In which order a field’s dates are written, worked out from all that were seen; `null` where nothing tells. */
export function profileDateOrder({ values }: ProfileField): DateOrder | null {
  return dateOrderOf(Object.keys(values));
}

/** A field’s name for people: the sender’s words, or its key. */
export function profileLabel({ label, key }: ProfileField): string {
  return label || key;
}
