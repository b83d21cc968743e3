import type { JsonValue } from '../json';
import { answerText } from '../payload/answer-text';
import { error, type Problem } from '../problem';
import type { Part, Value } from './value';
import type { Finished, FinisherContext } from './finishers/finisher';
import { finisherNamed } from './finishers/registry';

/** What a part stands for: looked up in the submission, its visit or an earlier write. `undefined` is nothing. */
export type PartReader = (part: Part) => JsonValue | undefined;

/** How a value came about: each part with its text, then each finisher with the text before and after. */
export interface ValueTrace {
  parts: { part: Part; text: string }[];
  steps: { use: string; before: string; after: string }[];
}

export interface WorkedOutValue {
  /** `''` is blank. */
  text: string;
  trace: ValueTrace;
  problems: Problem[];
  hold?: Finished['hold'];
  newOptions: string[];
}

/** Works out a value: reads its parts, joins them, and lets the finishers run over the result. */
export function workOutValue(value: Value, read: PartReader, context: FinisherContext): WorkedOutValue {
  const parts = value.parts.map((part) => ({ part, text: answerText(read(part)) }));
  const problems: Problem[] = [];
  const steps: ValueTrace['steps'] = [];
  const newOptions: string[] = [];
  let hold: Finished['hold'];
  let text = joinParts(
    parts.map((part) => part.text),
    value.joinWith ?? ' ',
  );
  for (const use of value.finishers ?? []) {
    const finisher = finisherNamed(use.use);
    const parameters = finisher?.parameters.safeParse(use.with ?? {});
    if (!finisher || !parameters?.success) {
      problems.push(error('unknown-finisher', `The finisher “${use.use}” does not exist or its settings do not fit.`));
      continue;
    }
    const finished = finisher.finish(text, parameters.data, context);
    steps.push({ use: use.use, before: text, after: finished.text });
    if (finished.problem) problems.push(finished.problem);
    if (finished.newOptions) newOptions.push(...finished.newOptions);
    hold ??= finished.hold;
    text = finished.text;
  }
  return { text, trace: { parts, steps }, problems, newOptions, ...(hold ? { hold } : {}) };
}

/** Joins texts; those that are blank are left out together with their separator. */
export function joinParts(texts: readonly string[], separator: string): string {
  return texts.filter((text) => text.trim() !== '').join(separator);
}
