import type { Counters } from '../../assignment/counters';
import { accountOf, type AccountStep } from '../telling/account';
import { checkRoute } from '../checking/check';
import type { RouteSurroundings } from '../checking/surroundings';
import type { RouteDefinition } from '../../definition/route-definition';
import type { KnownRecords } from '../../identity/known-records';
import type { Plan } from '../planning/plan';
import { planRun } from '../planning/plan-run';
import type { Submission } from '../../payload/submission';

/** A plan that is only shown, with what is wrong with the route, and the account in sentences. */
export type RehearsedPlan = Plan & { account: AccountStep[] };

/**
 * What a route would do with a submission, by the code that runs live. Records that would be made have ids that begin
 * with `new:`. The route must be one that can be carried out; see `notBuiltYet`.
 */
export function rehearse(
  route: RouteDefinition,
  submission: Submission,
  known: KnownRecords,
  surroundings: RouteSurroundings,
  counters?: Counters,
): RehearsedPlan {
  const { destination, intakes } = surroundings;
  const newIds = Object.fromEntries(route.writes.map(({ as }) => [as, `new:${as}`]));
  const plan = planRun(route, submission, known, { destination, newIds, counters, allTables: true });
  const intake = intakes.find(({ key }) => key === submission.intake)?.name ?? 'a made-up sample';
  return {
    ...plan,
    problems: [...checkRoute(route, surroundings), ...plan.problems],
    account: accountOf(plan, submission, { destination, intake }),
  };
}
