import { COUNTED_WORK } from '../assignment/counters';
import { MOST_SHARE } from '../assignment/shares';
import { SKILL } from '../people/person';
import { z } from '../schema-library';
import type { Condition } from './route-definition';

/** The name of something in a definition. */
export const name = z.string().min(1).max(200);

/** The shape of a part. */
export const part = z
  .union([
    z.strictObject({ answer: name, or: z.array(name).min(1).max(20).optional() }),
    z.strictObject({ visit: name }),
    z.strictObject({ text: z.string().max(10_000) }),
    z.strictObject({ decision: name, output: name }),
    z.strictObject({ write: name, field: name }),
  ])
  .meta({ id: 'Part' });

/** The shape of a value. */
export const value = z
  .strictObject({
    parts: z.array(part).max(50),
    joinWith: z.string().max(100).optional(),
    finishers: z
      .array(z.strictObject({ use: name, with: z.record(z.string(), z.unknown()).optional() }))
      .max(50)
      .optional(),
  })
  .meta({ id: 'Value' });

/** The shape of a condition. */
export const condition: z.ZodType<Condition> = z
  .lazy(() =>
    z.union([
      z.strictObject({ all: z.array(condition) }),
      z.strictObject({ any: z.array(condition) }),
      z.strictObject({ not: condition }),
      z.strictObject({ of: part, test: name, value: z.unknown().optional(), caseSensitive: z.boolean().optional() }),
    ]),
  )
  .meta({ id: 'Condition' });

const namedOwner = z.union([
  z.strictObject({ person: name, standIn: name.optional() }),
  z.strictObject({
    team: name,
    keep: z
      .array(z.enum(['contact', 'company']))
      .max(2)
      .optional(),
    atWork: z.literal(true).optional(),
    by: z.enum(COUNTED_WORK).optional(),
    capacity: z.literal(true).optional(),
    perDay: z.literal(true).optional(),
    notTwice: z.literal(true).optional(),
    speaks: name.optional(),
    skills: z.array(z.string().regex(SKILL)).max(20).optional(),
    shares: z.record(name, z.number().int().min(0).max(MOST_SHARE)).optional(),
    otherwise: name.optional(),
  }),
  z.strictObject({ decision: name, output: name }),
]);

/** The shape of an owner rule. */
export const ownerRuleShape = z.union([
  namedOwner,
  z.strictObject({ enteredBy: z.literal(true), otherwise: namedOwner.optional() }),
]);
