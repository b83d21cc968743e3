import { answerDue, type Destination, type Plan } from '@haycart/core';
import { newSecret } from '../platform/auth/secret';
import type { NewOutboxItem } from '../outbox/outbox.service';
import type { NewActivity } from '../records/activities/made-activities.service';
import type { NewAssignment } from '../records/assignments/assignments.service';
import type { NewAsk } from './holds/asked.service';
import type { DuePassage } from './due-passage';

/** Who is given what by an attempt. What a person was asked about first begins to be due when they have answered, and what is brought in later never is. */
export function givenBy(
  attempt: string,
  { queued }: DuePassage,
  { given = [] }: Plan,
  destination: Destination,
  now: Date,
): NewAssignment[] {
  const at = queued.turns ? now : queued.received_at;
  return given.map(({ pipeline, ...one }) => ({
    ...one,
    attempt,
    at,
    due: queued.quiet ? null : answerDue({ ...one, pipeline }, at.toISOString(), destination),
  }));
}

/** What the follow-ups of an attempt make for records. */
export function madeBy(
  { attempt, route, at }: { attempt: string; route: string; at: Date },
  { effects = [] }: Pick<Plan, 'effects'>,
): NewActivity[] {
  return effects.flatMap(({ made, record }, effect) =>
    made && record ? [{ record: record.id, attempt, effect, at, by: `the route ${route}`, made }] : [],
  );
}

/** What the follow-ups of an attempt send, each under a key that is the same for every try. */
export function outgoingOf(
  attempt: string,
  { route, queued }: DuePassage,
  { effects = [] }: Plan,
): Omit<NewOutboxItem, 'run'>[] {
  return effects.flatMap(({ out }, index) =>
    out
      ? [
          {
            submission: queued.id,
            attempt,
            route: route.id,
            kind: out.kind,
            to: out.to,
            key: out.once === undefined ? `${attempt}.${index}` : `${queued.id}.${route.id}.${out.once}`,
            body: out.body ?? null,
            record: out.record,
            together: out.together,
            unsent: queued.quiet,
          },
        ]
      : [],
  );
}

/** Who is asked by an attempt, each by the link that the mail names. */
export function asksOf(
  attempt: string,
  { route, queued }: DuePassage,
  { asks = [] }: Plan,
  secrets: readonly string[],
): NewAsk[] {
  return asks.map((ask, index) => ({
    ...ask,
    attempt,
    submission: queued.id,
    route: route.id,
    secret: secrets[index] ?? newSecret(),
    unsent: queued.quiet,
  }));
}
