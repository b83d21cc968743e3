import { comparedCell } from '../decision/cell';
import { columnsOf } from '../decision/column';
import { cellSetting } from '../decision/decide';
import { TABLE_LIMITS } from '../decision/decision-table';
import type { Destination } from '../destination/destination';
import { jsonPointer } from '../json';
import { error, type Problem } from '../problem';
import { z } from '../schema-library';
import { SOURCE_ANSWERS, WAY_PARTS, type ChannelRules, type IntakeSource } from '../source/channel-rules';
import { plainName } from './names';
import { aroundRules, tableOfRules, WAY_PART_LABELS } from './rules-table';

/** Limits of channel rules and joined names. */
export const CHANNEL_RULE_LIMITS = { rules: TABLE_LIMITS.rows, names: 1_000, spellings: 200, name: 200 } as const;

const ANY_TIME = '2026-01-01T00:00:00.000Z';
const name = z.string().trim().min(1).max(CHANNEL_RULE_LIMITS.name);
const cell = z.strictObject({ test: z.string().max(40), value: z.unknown().optional() });

const joinedNames = z
  .array(z.strictObject({ name, spellings: z.array(name).min(1).max(CHANNEL_RULE_LIMITS.spellings) }))
  .max(CHANNEL_RULE_LIMITS.names);

const rulesShape = z.strictObject({
  rules: z
    .array(
      z.strictObject({
        when: z.partialRecord(z.enum(WAY_PARTS), cell),
        channel: z.string().trim().max(CHANNEL_RULE_LIMITS.name),
        source: name.optional(),
        medium: name.optional(),
        note: z.string().max(2_000).optional(),
      }),
    )
    .max(CHANNEL_RULE_LIMITS.rules),
  names: joinedNames,
  apart: joinedNames.optional(),
});

const intakeSourceShape = z.strictObject({
  constant: z
    .strictObject({
      channel: name.optional(),
      source: name.optional(),
      medium: name.optional(),
      campaign: name.optional(),
    })
    .optional(),
  always: z.boolean().optional(),
  answers: z.partialRecord(z.enum(SOURCE_ANSWERS), z.string().min(1).max(1_000)).optional(),
});

type Read<Thing> = { ok: true; read: Thing } | { ok: false; problems: Problem[] };

/** Checks channel rules. Returns them, or all problems with their places. */
export function readChannelRules(given: unknown, destination: Destination): Read<ChannelRules> {
  const shape = readShape(rulesShape, given);
  if (!shape.ok) return shape;
  const rules: ChannelRules = shape.read;
  const problems = [...cellProblems(rules, destination), ...channelProblems(rules), ...nameProblems(rules)];
  return problems.length ? { ok: false, problems } : { ok: true, read: rules };
}

/** Checks the source settings of an intake. Returns them, or all problems. */
export function readIntakeSource(given: unknown): Read<IntakeSource> {
  return readShape(intakeSourceShape, given);
}

function readShape<Thing>(shape: z.ZodType<Thing>, given: unknown): Read<Thing> {
  const result = shape.safeParse(given);
  if (result.success) return { ok: true, read: result.data };
  return {
    ok: false,
    problems: result.error.issues.map(({ path, message }) =>
      error('wrong-value', `This does not fit: ${message}.`, jsonPointer(path as (string | number)[])),
    ),
  };
}

function cellProblems(rules: ChannelRules, destination: Destination): Problem[] {
  const setting = cellSetting(destination, ANY_TIME);
  const columns = columnsOf(tableOfRules(rules), aroundRules(destination));
  return rules.rules.flatMap(({ when }, row) =>
    WAY_PARTS.flatMap((part, index) => {
      const compared = when[part] && comparedCell(when[part], columns[index]!, setting);
      if (typeof compared !== 'string') return [];
      return [
        error(
          'wrong-value',
          `Row ${row + 1}, ${WAY_PART_LABELS[part]}: ${compared}`,
          jsonPointer(['rules', row, 'when', part]),
        ),
      ];
    }),
  );
}

function channelProblems({ rules }: ChannelRules): Problem[] {
  return rules.flatMap(({ channel }, row) =>
    channel === ''
      ? [error('missing', `Row ${row + 1} names no channel.`, jsonPointer(['rules', row, 'channel']))]
      : [],
  );
}

/** A spelling may belong to one name only. */
function nameProblems({ names }: ChannelRules): Problem[] {
  const under = new Map<string, number>();
  return names.flatMap(({ name, spellings }, index) =>
    [name, ...spellings].flatMap((spelling) => {
      const plain = plainName(spelling);
      const before = under.get(plain) ?? index;
      under.set(plain, before);
      if (before === index) return [];
      const text = `“${spelling}” is a spelling of “${names[before]!.name}” already.`;
      return [error('wrong-value', text, jsonPointer(['names', index]))];
    }),
  );
}
