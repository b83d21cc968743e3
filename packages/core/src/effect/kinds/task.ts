import { z } from '../../schema-library';
import type { OwnerRule } from '../../assignment/choose-owner';
import { fieldOf, recordWord, type Destination } from '../../destination/destination';
import type { RecordKind } from '../../diff/record';
import type { FollowUp } from '../../definition/route-definition';
import { condition, name, ownerRuleShape, value } from '../../definition/shapes';
import { dueAt, type DueIn } from '../../people/working-time';
import { counted } from '../../text';
import type { Value } from '../../value/value';
import { defineEffect, TASK_PRIORITIES, type TaskPriority } from '../effect';
import { oneLine } from '../one-line';
import { ownerInWords } from '../owner-in-words';

interface TaskFollowUp extends FollowUp {
  do: 'task';
  on: string;
  title: Value;
  body?: Value;
  /** After the submission arrived; any time when not said. */
  due?: DueIn;
  /** Whoever owns the record when not said. */
  owner?: OwnerRule;
  priority?: TaskPriority;
}

/** Some eleven years in hours. */
const FURTHEST = 100_000;

/** Makes a task for whoever looks after the record, or for somebody else. */
export const task = defineEffect<TaskFollowUp>({
  do: 'task',
  label: 'Task',
  description: 'Makes a task about the record, for its owner or somebody else, due after hours or days.',
  shape: z.strictObject({
    do: z.literal('task'),
    on: name,
    title: value,
    body: value.optional(),
    due: z
      .strictObject({
        in: z.number().min(0).max(FURTHEST),
        unit: z.enum(['hours', 'days']),
        working: z.boolean().optional(),
      })
      .optional(),
    owner: ownerRuleShape.optional(),
    priority: z.enum(TASK_PRIORITIES).optional(),
    when: condition.optional(),
  }) as unknown as z.ZodType<TaskFollowUp>,
  example: {
    settings: {
      do: 'task',
      on: 'person',
      title: { parts: [{ text: 'Call back' }] },
      due: { in: 2, unit: 'hours', working: true },
    },
    words: 'a task is made for whoever owns the contact, due in 2 working hours',
  },
  withValues: ({ title, body, ...settings }, change) => ({
    ...settings,
    title: change(title, ['title']),
    ...(body ? { body: change(body, ['body']) } : {}),
  }),
  check: ({ title }) =>
    title.parts.length ? [] : [{ code: 'blank-title', text: 'Say what the task is called.', way: ['title'] }],
  describe({ on, owner, due }, { route, destination }) {
    const record = route.writes.find(({ as }) => as === on)?.record;
    const word = record ? recordWord(destination, record) : on;
    const whom = owner ? ownerInWords(owner, record ?? 'contact', destination) : `whoever owns the ${word}`;
    return `a task is made for ${whom}${due ? `, due ${dueInWords(due)}` : ''}`;
  },
  plan(
    { title, body, due, owner: rule, priority = 'normal' },
    { record, route, submission, destination, workOut, chooseOwner },
  ) {
    if (!record) return { words: 'Task' };
    const [called, told] = [workOut(title), body && workOut(body)];
    const chosen = rule
      ? chooseOwner(rule, record.kind)
      : { owner: (record.values.owner as string | undefined) ?? null, problems: [] };
    const { owner } = chosen;
    const until = due
      ? dueAt(submission.receivedAt, due, owner === null ? undefined : destination.people?.[owner])
      : null;
    const line = oneLine(called.text) || route.name;
    return {
      words: `Task “${line}” for ${ownerName(owner, record.kind, destination)}`,
      problems: [...called.problems, ...(told?.problems ?? []), ...chosen.problems],
      made: {
        make: 'task',
        title: line,
        ...(told?.text.trim() ? { body: told.text } : {}),
        owner,
        due: until,
        priority,
      },
    };
  },
  owner: {
    of: ({ owner }) => (owner ? { rule: owner, way: ['owner'] } : null),
    put: (settings, owner) => ({ ...settings, owner }),
  },
});

/** `in 2 working hours`, `the same day`. */
export function dueInWords({ in: amount, unit, working }: DueIn): string {
  if (amount === 0) return unit === 'days' ? 'the same day' : 'at once';
  const one = unit === 'hours' ? 'hour' : 'day';
  return `in ${counted(amount, working ? `working ${one}` : one)}`;
}

function ownerName(key: string | null, record: RecordKind, destination: Destination): string {
  if (key === null) return 'nobody yet';
  return fieldOf(destination, record, 'owner')?.options?.find((one) => one.key === key)?.label ?? key;
}
