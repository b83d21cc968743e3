import { approvalInWords, isApproval } from '../../hold/approval';
import type { RouteDefinition } from '../../definition/route-definition';
import type { Submission } from '../../payload/submission';
import type { PartReader } from '../../value/work-out-value';
import { conditionMet } from '../editing/route-conditions';
import type { Reason } from './plan';
import type { Setting } from './write-context';

/** Why a run waits for a person, or ends since one said no; `null` where nobody is asked any more. */
export function approvalNeeded(
  route: RouteDefinition,
  submission: Submission,
  read: PartReader,
  { destination, approvals = {} }: Setting,
): Reason | null {
  for (const [index, hold] of (route.holds ?? []).entries()) {
    if (!isApproval(hold)) continue;
    if (hold.when && !conditionMet(hold.when, read, route, submission, destination).met) continue;
    const given = approvals[index];
    if (!given) {
      const asked = approvalInWords(hold, destination).replace(/ first$/, '');
      return { code: 'approval', text: `Nothing is written until ${asked}.`, hold: index };
    }
    if (!given.approved) return { code: 'denied', text: `${given.by} said no${given.note ? `: ${given.note}` : ''}.` };
  }
  return null;
}
