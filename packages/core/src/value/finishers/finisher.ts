import { z } from '../../schema-library';
import type { JsonObject, JsonValue } from '../../json';
import type { ReasonCode } from '../../codes';
import type { Problem } from '../../problem';

/** What a finisher may know besides the text: the workspace's defaults. */
export interface FinisherSetting {
  defaultCountry: string;
  defaultCurrency: string;
}

/** The setting, and the submission that the value is worked out for. */
export interface FinisherContext extends FinisherSetting {
  /** The text of another answer, by its key; `''` where there is none. */
  answer(key: string): string;
  payload: JsonObject;
}

/** The finished text, with a problem when the text could not be brought into the form asked for. */
export interface Finished {
  text: string;
  problem?: Problem | undefined;
  /** Why the run waits for a person, where only one can say what is meant. */
  hold?: { code: ReasonCode; text: string; value?: string } | undefined;
  /** Texts that are to be options of the field that is fed. */
  newOptions?: string[] | undefined;
}

/** One step that brings a text into a wanted form. A registry entry: add a file and a line in `registry.ts`. */
export interface Finisher<Parameters extends z.ZodObject = z.ZodObject> {
  name: string;
  label: string;
  /** One sentence for the editor and the docs. */
  description: string;
  /** Each parameter says by `meta({ title })` what it is called; `answer: true` marks the key of another answer. */
  parameters: Parameters;
  /** An example that the tests run and the editor shows. */
  example: { before: string; after: string; with?: z.input<Parameters>; answers?: Record<string, JsonValue> };
  finish(text: string, parameters: z.output<Parameters>, context: FinisherContext): Finished;
}

export const NO_PARAMETERS = z.strictObject({});

/** Keeps the parameter types of an entry while it is written down. */
export function defineFinisher<Parameters extends z.ZodObject>(finisher: Finisher<Parameters>): Finisher {
  return finisher as unknown as Finisher;
}

/** What many finishers do with a list, one item a line: each item by itself; blanks are left out. */
export function eachLine(text: string, finish: (line: string) => Finished): Finished {
  if (!text.includes('\n')) return finish(text);
  const finished = text
    .split('\n')
    .filter((line) => line.trim() !== '')
    .map(finish);
  return {
    text: finished
      .map((one) => one.text)
      .filter(Boolean)
      .join('\n'),
    problem: finished.find(({ problem }) => problem)?.problem,
  };
}
