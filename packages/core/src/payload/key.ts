/**
 * The key of a field inside a payload, from the way that leads to it: `email`, nested `person.email`, in a list
 * `phones[0]`. A name that holds a dot, bracket or quote, or is empty, is written as a JSON string in brackets, so that
 * `{"a.b": 1}` (`["a.b"]`) and `{"a": {"b": 1}}` (`a.b`) never share a key.
 */
export function fieldKey(segments: readonly (string | number)[]): string {
  let key = '';
  for (const segment of segments) key = extendKey(key, segment);
  return key;
}

/** A name without what people and systems change without meaning to: capitals, spaces, punctuation. */
export function foldSegment(name: string): string {
  return name
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{M}\p{Nd}]+/gu, '');
}

/** The key one step further in. */
export function extendKey(key: string, segment: string | number): string {
  if (typeof segment === 'number') return `${key}[${segment}]`;
  if (segment === '' || /[.[\]"]/.test(segment)) return `${key}[${JSON.stringify(segment)}]`;
  return key === '' ? segment : `${key}.${segment}`;
}

/**
 * The way that a key describes, or `null` when it is no key.
 *
 * @example parseKey('person.phones[0]') // ['person', 'phones', 0]
 */
export function parseKey(key: string): (string | number)[] | null {
  const segments: (string | number)[] = [];
  const step = /(?:^|\.)([^.[\]"]+)|\[(\d+)\]|\[("(?:[^"\\]|\\.)*")\]/gy;
  while (step.lastIndex < key.length) {
    const found = step.exec(key);
    if (!found) return null;
    const [, name, index, quoted] = found;
    if (name !== undefined) segments.push(name);
    else if (index !== undefined) segments.push(Number(index));
    else {
      try {
        segments.push(JSON.parse(quoted!) as string);
      } catch {
        return null;
      }
    }
  }
  return segments.length ? segments : null;
}

/** A key without what is written differently by accident, its segments kept apart. */
export function foldKey(key: string): string {
  return (parseKey(key) ?? [key])
    .map((segment) => (typeof segment === 'number' ? `[${segment}]` : foldSegment(segment) || segment))
    .join('.');
}
