import type { Value } from '../value/value';

/** The text of a value that is nothing but fixed texts, or `null`. */
export function fixedText(value: Value): string | null {
  return value.parts.every((part) => 'text' in part)
    ? value.parts.map((part) => (part as { text: string }).text).join(value.joinWith ?? '')
    : null;
}
