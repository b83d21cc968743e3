import type { FieldOption, FieldType } from '../../field/field-definition';
import type { FieldValue } from '../../diff/record';
import type { ValueKind } from '../../payload/value-kind';
import type { DecisionInput, InputAs } from '../decision-table';

/** One way to read what a column tests. A registry entry: add it in `registry.ts`. */
export interface InputKind {
  as: InputAs;
  /** As the chooser names it: “a number”. */
  label: string;
  /** How the tests of conditions take the value. */
  type: FieldType;
  /** What an answer looks like that is read so when nothing else is said. */
  holds: readonly ValueKind[];
  /** Where only these can be. */
  options?: readonly FieldOption[];
  /** @param texts What came, without blanks, at least one. @param postcode The postal code, for a region. */
  read(texts: readonly string[], input: DecisionInput, postcode: string): FieldValue | null;
}
