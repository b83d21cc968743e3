import type { IntakeKind } from './intake-kind';
import { endpoint } from './kinds/endpoint';
import { form } from './kinds/form';
import { sheet } from './kinds/sheet';

/** Every kind of intake, in the order in which they are offered. */
export const INTAKE_KINDS: readonly IntakeKind[] = [sheet, endpoint, form];

const BY_NAME = new Map(INTAKE_KINDS.map((one) => [one.kind, one]));

/** @throws Error for a name that no kind has: intakes are only made of kinds that there are. */
export function intakeKind(name: string): IntakeKind {
  const found = BY_NAME.get(name);
  if (!found) throw new Error(`There is no kind of intake “${name}”.`);
  return found;
}
