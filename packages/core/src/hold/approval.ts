import { z } from '../schema-library';
import type { OwnerRule } from '../assignment/choose-owner';
import type { Destination } from '../destination/destination';
import type { Condition, Hold } from '../definition/route-definition';
import { condition, ownerRuleShape } from '../definition/shapes';
import { ownerInWords } from '../effect/owner-in-words';

/** A person says yes before anything is written. */
export interface ApprovalHold extends Hold {
  for: 'approval';
  /** Who is asked. */
  by: OwnerRule;
  /** Otherwise nobody is asked. */
  when?: Condition;
}

/** What a person said who was asked. */
export interface GivenApproval {
  approved: boolean;
  by: string;
  /** Why, in their words; blank where they gave no reason. */
  note: string;
}

export const approvalShape = z.strictObject({
  for: z.literal('approval'),
  by: ownerRuleShape,
  when: condition.optional(),
}) as unknown as z.ZodType<ApprovalHold>;

export function isApproval(hold: Hold): hold is ApprovalHold {
  return hold.for === 'approval';
}

/** Who is asked, as a clause: `Hanne Lie says yes first`. */
export function approvalInWords({ by }: ApprovalHold, destination: Destination): string {
  return `${ownerInWords(by, 'contact', destination)} says yes first`;
}
