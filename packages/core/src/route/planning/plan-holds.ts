import { settledOwner, type DecidedOwner, type NamedOwner } from '../../assignment/choose-owner';
import type { EffectRecord } from '../../effect/effect';
import type { HoldStep } from '../../hold/hold';
import { holdRuleOf } from '../../hold/registry';
import { LINK_TO_COME } from '../../mail/mail-links';
import type { RouteDefinition } from '../../definition/route-definition';
import type { Submission } from '../../payload/submission';
import type { PartReader } from '../../value/work-out-value';
import { conditionMet } from '../editing/route-conditions';
import type { Setting } from './write-context';

/** What holds are planned upon, once all else is. */
interface HoldsSetting {
  route: RouteDefinition;
  submission: Submission;
  records: readonly EffectRecord[];
  read: PartReader;
  ownerOf: (decided: DecidedOwner) => NamedOwner | null;
  setting: Setting;
  would: () => string[];
}

/** What came of the holds of a route: what was answered, and where one of them is left, the first of these. */
interface PlannedHolds {
  answered: string[];
  held: (HoldStep & { hold: number }) | null;
}

/** Why a run waits before anything is written, or ends, by the first hold that is not answered with yes. */
export function planHolds({ route, submission, records, read, ownerOf, setting, would }: HoldsSetting): PlannedHolds {
  const passed: string[] = [];
  const { destination, answered = {}, link = () => LINK_TO_COME } = setting;
  for (const [index, hold] of (route.holds ?? []).entries()) {
    const rule = holdRuleOf(hold);
    if (!rule) continue;
    if (hold.when && !conditionMet(hold.when, read, route, submission, destination).met) continue;
    const said = answered[index];
    const given = said?.for === hold.for ? said : undefined;
    const settled = rule.withOwners?.(hold, (asked) => settledOwner(asked, ownerOf) ?? asked) ?? hold;
    const step = rule.plan(settled, { index, records, route, submission, destination, given, would, link });
    if (step) return { answered: passed, held: { ...step, hold: index } };
    if (given) passed.push(rule.passed(given));
  }
  return { answered: passed, held: null };
}
