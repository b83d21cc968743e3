import { pipelineOf, type Destination } from '../destination/destination';
import type { AnswerPromise } from '../people/answer-promise';
import { dueAt } from '../people/working-time';
import type { PlannedAssignment } from './planned-assignments';

/** What was promised for something: by the team that gets it, else by the pipeline that it goes into. */
export function promiseOf(
  { team, pipeline }: { team?: string | undefined; pipeline?: string | undefined },
  destination: Pick<Destination, 'teams' | 'pipelines'>,
): AnswerPromise | null {
  const ofTeam = team === undefined ? undefined : destination.teams?.[team]?.promise;
  return ofTeam ?? (pipeline === undefined ? undefined : pipelineOf(destination, pipeline)?.promise) ?? null;
}

/** Until when (ISO 8601) whoever gets something at a moment is to answer it; `null` where nothing is promised. */
export function answerDue(
  given: Pick<PlannedAssignment, 'person' | 'team' | 'pipeline'>,
  at: string,
  destination: Destination,
): string | null {
  const promise = promiseOf(given, destination);
  if (!promise) return null;
  return dueAt(at, { in: promise.minutes, unit: 'minutes', working: true }, destination.people?.[given.person]);
}
