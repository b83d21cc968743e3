import { ownerRuleShape, type FormRouteWish } from '@haycart/core';
import { z } from 'zod';
import { ProblemError } from '../platform/errors/problem-error';

const key = z.string().min(1).max(200);
const wishShape = z.strictObject({
  place: z
    .strictObject({
      record: z.enum(['deal', 'lead']),
      pipeline: key,
      stage: key,
      again: z.enum(['update', 'new', 'new-if-closed', 'leave']),
    })
    .optional(),
  value: z.string().max(60).optional(),
  owner: ownerRuleShape.optional(),
  tags: z.array(key).max(50).optional(),
  lists: z.array(key).max(50).optional(),
});

/** Reads where what a form brings is to go; whether those places exist is the route's to check. */
export function readWish(given: unknown): FormRouteWish {
  const read = wishShape.safeParse(given);
  if (!read.success) throw new ProblemError('refused', `The route cannot be made: ${read.error.issues[0]!.message}.`);
  return read.data as FormRouteWish;
}
