import { jsonPointer, type JsonObject, type JsonValue } from '../json';

/** A payload whose names were taken apart, and from where each part came. */
export interface Expanded {
  payload: JsonObject;
  /** The name as it was sent, by the JSON Pointer of where its value stands now. */
  sentAs: ReadonlyMap<string, string>;
}

/** More steps are no name of a field. */
const MOST_STEPS = 12;

/**
 * Names with brackets as the objects that they describe: `fields[a][value]` is `{"fields": {"a": {"value": …}}}`, and so
 * is `likes[]` a list. `null` where no name has brackets. A name that does not fit what others describe stays as it is.
 */
export function expandBrackets(payload: JsonObject): Expanded | null {
  const names = Object.keys(payload);
  if (!names.some((name) => stepsOf(name) !== null)) return null;
  const root = emptyObject();
  const sentAs = new Map<string, string>();
  for (const name of names) {
    const steps = stepsOf(name);
    const value = payload[name]!;
    // `a` and `a[b]` stay two names.
    if (!steps || Object.hasOwn(payload, steps[0]!) || !placed(root, steps, value)) root[name] = value;
    else sentAs.set(jsonPointer(steps), name);
  }
  return { payload: root, sentAs };
}

/** The steps of a name with brackets; `null` where it is none. */
function stepsOf(name: string): string[] | null {
  const open = name.indexOf('[');
  if (open < 1 || !name.endsWith(']')) return null;
  const inner = name.slice(open + 1, -1).split('][');
  // `likes[]` means that there may be several.
  if (inner.at(-1) === '') inner.pop();
  if (inner.length > MOST_STEPS || inner.some((step) => step === '' || /[[\]]/.test(step))) return null;
  return [name.slice(0, open), ...inner];
}

/** Puts a value where its steps lead, and tells whether it could. */
function placed(root: JsonObject, steps: readonly string[], value: JsonValue): boolean {
  let at = root;
  for (const step of steps.slice(0, -1)) {
    const next = (at[step] ??= emptyObject());
    if (typeof next !== 'object' || next === null || Array.isArray(next)) return false;
    at = next;
  }
  const last = steps.at(-1)!;
  if (at[last] !== undefined) return false;
  at[last] = value;
  return true;
}

/** Without a prototype, so that no name means anything. */
function emptyObject(): JsonObject {
  return Object.create(null) as JsonObject;
}
