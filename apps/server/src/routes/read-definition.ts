import { notBuiltYet, readRoute, type RouteDefinition } from '@haycart/core';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';

/** A definition of the right shape. @throws ProblemError 422 with the place of everything that is not. */
export function readShape(definition: unknown): RouteDefinition {
  const read = readRoute(definition);
  if (read.ok) return read.route;
  throw new ProblemError(
    'refused',
    'The definition does not fit the format haycart.route/1.',
    problemsAt(read.problems),
  );
}

/** A definition that can be planned with. @throws ProblemError 422 naming what cannot be carried out. */
export function readPlannable(definition: unknown): RouteDefinition {
  const draft = readShape(definition);
  const notBuilt = notBuiltYet(draft);
  if (notBuilt.length)
    throw new ProblemError('refused', 'The definition uses what cannot be carried out yet.', problemsAt(notBuilt));
  return draft;
}
