import { z } from '../../schema-library';
import { RECORD_KINDS } from '../../diff/record';
import { INPUT_AS, OUTPUT_TYPES, TABLE_LIMITS } from '../../decision/decision-table';
import { AGAIN, WHEN_MATCHED } from '../../decision/known-words';
import { holdShapes } from '../../hold/registry';
import { effectShapes } from '../../effect/registry';
import { condition, name, ownerRuleShape, part, value } from '../../definition/shapes';
import {
  KEY_RULES,
  SAFEGUARDS,
  WHEN_SEVERAL,
  type FollowUp,
  type Hold,
  type RouteDefinition,
} from '../../definition/route-definition';

const cellTest = z.strictObject({ test: name, value: z.unknown().optional() });

const decisionTable = z
  .strictObject({
    name,
    fits: z.enum(['first', 'one']).optional(),
    inputs: z
      .array(
        z.strictObject({
          of: part,
          label: z.string().max(200),
          as: z.enum(INPUT_AS).optional(),
          finishers: value.shape.finishers,
          postcode: part.optional(),
          timeZone: name.optional(),
        }),
      )
      .max(TABLE_LIMITS.inputs),
    outputs: z.array(z.strictObject({ name, type: z.enum(OUTPUT_TYPES) })).max(TABLE_LIMITS.outputs),
    rows: z
      .array(
        z.strictObject({
          when: z.array(cellTest.nullable()).max(TABLE_LIMITS.inputs),
          then: z.record(name, z.unknown()),
          note: z.string().max(2_000).optional(),
        }),
      )
      .max(TABLE_LIMITS.rows),
    otherwise: z.record(name, z.unknown()).optional(),
  })
  .meta({ id: 'DecisionTable' });

const then = {
  whenMatched: z.enum(WHEN_MATCHED).optional(),
  whenSeveral: z.enum(WHEN_SEVERAL).optional(),
  whenNone: z.enum(['next', 'create', 'skip', 'ask']).optional(),
};

const matchRule = z
  .union([
    z.strictObject({ by: z.enum(KEY_RULES), askIf: z.array(z.enum(SAFEGUARDS)).max(3).optional(), ...then }),
    z.strictObject({
      by: z.literal('likeness'),
      accept: z.number().min(0).max(1),
      ask: z.number().min(0).max(1),
      ...then,
    }),
  ])
  .meta({ id: 'MatchRule' });

const decided = z.strictObject({ decision: name, output: name });

const write = z
  .strictObject({
    as: name,
    record: z.enum(RECORD_KINDS),
    when: condition.optional(),
    match: z.array(matchRule).optional(),
    whenMatched: then.whenMatched,
    whenSeveral: then.whenSeveral,
    decided: z.strictObject({ whenMatched: decided.optional(), again: decided.optional() }).optional(),
    whenNone: z.enum(['create', 'skip', 'ask']).optional(),
    fills: z
      .array(
        z.strictObject({
          field: name,
          value,
          overwrite: z.enum(['always', 'unless-typed', 'if-blank', 'never']).optional(),
          ifEmpty: z.enum(['leave', 'clear', 'fail']).optional(),
        }),
      )
      .max(500),
    links: z.array(name).optional(),
    place: z
      .strictObject({
        pipeline: value,
        stage: value,
        again: z.enum(AGAIN),
        backwards: z.boolean().optional(),
        within: z.number().int().min(1).max(3_650).optional(),
        sameField: name.optional(),
      })
      .optional(),
    owner: ownerRuleShape.optional(),
  })
  .meta({ id: 'Write' });

const followUp = z.union(effectShapes()).meta({ id: 'FollowUp' }) as unknown as z.ZodType<FollowUp>;

const hold = z.union(holdShapes()).meta({ id: 'Hold' }) as unknown as z.ZodType<Hold>;

/** The shape of a route definition; `ROUTE_SCHEMA` is the same as JSON Schema. */
export const routeShape: z.ZodType<RouteDefinition> = z.strictObject({
  format: z.literal('haycart.route/1'),
  name,
  from: z.array(name).max(100),
  onlyWhen: condition.optional(),
  decisions: z.array(decisionTable).max(TABLE_LIMITS.tables).optional(),
  writes: z.array(write).max(20),
  followUps: z.array(followUp).max(50).optional(),
  holds: z.array(hold).max(20).optional(),
  sendOn: z.array(z.looseObject({ to: name })).optional(),
});

/** The format `haycart.route/1` as JSON Schema 2020-12. */
export const ROUTE_SCHEMA = {
  $id: 'https://haycart.example/route.schema.json',
  title: 'Hay Cart route, format 1',
  ...z.toJSONSchema(routeShape, { target: 'draft-2020-12', io: 'input' }),
};
