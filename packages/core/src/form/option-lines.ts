import { newKey } from '../field/new-key';
import type { AnswerOption } from './definition';

/** Marks that people put before the lines of a list. */
const LIST_MARK = /^(?:[-*•–·]|\d{1,3}[.)])\s+/;

/** The words of a list that somebody typed or pasted, a line each: without blank lines, list marks and repetitions. */
export function listLines(text: string): string[] {
  const lines = text.split(/\r\n|[\n\r\u2028\u2029]/).map((line) => line.trim().replace(LIST_MARK, ''));
  return [...new Set(lines)].filter((line) => line !== '');
}

/**
 * The options that a list of lines makes of those before. An option whose words are still there keeps its value, wherever
 * it stands now; so does one whose line has other words now. A new one gets its value from its words.
 */
export function optionsFromLines(given: readonly string[], before: readonly AnswerOption[]): AnswerOption[] {
  const lines = [...new Set(given)];
  const values = new Map<string, string>();
  const left = new Set(before.map(({ value }) => value));
  const keep = (label: string, option: AnswerOption | undefined) => {
    if (option && left.delete(option.value)) values.set(label, option.value);
  };
  for (const label of lines)
    keep(
      label,
      before.find((option) => option.label === label && left.has(option.value)),
    );
  lines.forEach((label, index) => {
    if (!values.has(label) && !lines.includes(before[index]?.label ?? '')) keep(label, before[index]);
  });
  // What an option was called is not given to another: answers that were sent still name it.
  const taken = new Set(before.map(({ value }) => value));
  return lines.map((label) => {
    const value = values.get(label) ?? newKey(label, taken);
    taken.add(value);
    return { value, label };
  });
}

/** One more option, with a number for its words until somebody gives it others. */
export function nextOption(options: readonly AnswerOption[]): AnswerOption {
  let number = options.length + 1;
  while (options.some(({ label }) => label === `Option ${number}`)) number += 1;
  const label = `Option ${number}`;
  return {
    label,
    value: newKey(
      label,
      options.map(({ value }) => value),
    ),
  };
}
