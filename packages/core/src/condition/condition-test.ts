import type { Team } from '../people/team';
import type { FieldType } from '../field/field-definition';
import type { Compared } from './comparison';

/** What a test may know besides the value. */
export interface ConditionSetting {
  /** ISO 8601: what “the last 7 days” count from. */
  now: string;
  /** The currency of an amount that names none. */
  defaultCurrency: string;
  /** The key of the person who looks, for “is me”; absent where nobody does. */
  me?: string | undefined;
  /** The teams by their keys. */
  teams: Readonly<Record<string, Pick<Team, 'people'>>>;
}

/** What the editor asks for beside the test. */
export type WantedKind = 'none' | 'texts' | 'number' | 'numbers' | 'date' | 'days' | 'options' | 'team';

/** One way to test a value. A registry entry: add a file and a line in `registry.ts`. */
export interface ConditionTest {
  name: string;
  /** As it stands between the name of the field and what is wanted: `Country` *is* `NL`. */
  label: string;
  /** The types of field that it fits. */
  fits: readonly FieldType[];
  wanted: WantedKind;
  /** An example that the tests run: a value that meets it, and one that does not. */
  example: { type: FieldType; wanted?: unknown; meets: ExampleValue; fails: ExampleValue };
  /** What to compare with, or a sentence that says why what is wanted makes no sense. */
  compare(wanted: unknown, setting: ConditionSetting & { caseSensitive: boolean; type: FieldType }): Compared | string;
}

type ExampleValue = string | number | boolean | string[] | { amount: number; currency: string } | null;

export const TEXT_TYPES: readonly FieldType[] = ['text', 'long-text', 'email', 'phone', 'web'];
export const NUMBER_TYPES: readonly FieldType[] = ['whole-number', 'decimal', 'money'];
export const TIME_TYPES: readonly FieldType[] = ['date', 'date-time'];
export const OPTION_TYPES: readonly FieldType[] = ['one-of', 'several-of', 'person'];
