import { accountOf, type AccountStep } from './account';
import { checkRoute } from './check';
import type { RouteSurroundings } from './surroundings';
import type { RouteDefinition } from './definition';
import type { KnownRecords } from './known-records';
import type { Plan } from './plan';
import { planRun } from './plan-run';
import type { Submission } from './submission';

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
): RehearsedPlan {
  const { destination, intakes } = surroundings;
  const newIds = Object.fromEntries(route.writes.map(({ as }) => [as, `new:${as}`]));
  const plan = planRun(route, submission, known, { destination, newIds });
  const intake = intakes.find(({ key }) => key === submission.intake)?.name ?? 'a made-up sample';
  return {
    ...plan,
    problems: [...checkRoute(route, surroundings), ...plan.problems],
    account: accountOf(plan, submission, { destination, intake }),
  };
}
