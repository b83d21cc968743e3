import type { z } from '../schema-library';
import type { Hold } from '../definition/route-definition';
import type { HoldRule } from './hold';
import { approval } from './kinds/approval';
import { confirmation } from './kinds/confirmation';

/** Every kind of hold, in the order in which the editor offers them. */
export const HOLD_RULES: readonly HoldRule[] = [approval, confirmation];

const byName = new Map(HOLD_RULES.map((rule) => [rule.for, rule]));

/** The kind of a hold; `undefined` where there is no such kind. */
export function holdRuleOf(hold: Hold): HoldRule | undefined {
  return byName.get(hold.for);
}

/** The shapes of all settings. */
export function holdShapes(): z.ZodType<Hold>[] {
  return HOLD_RULES.map(({ shape }) => shape);
}
