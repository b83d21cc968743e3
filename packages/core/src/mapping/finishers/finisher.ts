import { z } from '../../schema-library';
import type { Problem } from '../../problem';

/** What a finisher may know besides the text: the workspace's defaults. */
export interface FinisherSetting {
  defaultCountry: string;
}

/** The finished text, with a problem when the text could not be brought into the form asked for. */
export interface Finished {
  text: string;
  problem?: Problem | undefined;
}

/** One step that brings a text into a wanted form. A registry entry: add a file and a line in `registry.ts`. */
export interface Finisher<Parameters extends z.ZodObject = z.ZodObject> {
  name: string;
  label: string;
  /** One sentence for the editor and the docs. */
  description: string;
  parameters: Parameters;
  /** An example that the tests run. */
  example: { before: string; after: string; with?: z.input<Parameters> };
  finish(text: string, parameters: z.output<Parameters>, setting: FinisherSetting): Finished;
}

export const NO_PARAMETERS = z.strictObject({});

/** Keeps the parameter types of an entry while it is written down. */
export function defineFinisher<Parameters extends z.ZodObject>(finisher: Finisher<Parameters>): Finisher {
  return finisher as unknown as Finisher;
}
