import type { DecisionShape, DecisionView } from '@haycart/api';

/** What a decision shows, which is to be of a kind. */
export function viewAs<As extends DecisionView['as']>(
  { kind, view }: DecisionShape,
  as: As,
): Extract<DecisionView, { as: As }> {
  if (view.as !== as) throw new Error(`The decision ${kind} is shown as ${view.as}.`);
  return view as Extract<DecisionView, { as: As }>;
}
