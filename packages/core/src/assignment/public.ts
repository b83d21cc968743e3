/** What of assignment is for others, by name. */
export { answerDue, promiseOf } from './answer-due';
export { assign } from './assign';
export {
  decidedOwner,
  type DecidedOwner,
  namedOwner,
  type NamedOwner,
  type OwnerRule,
  type TeamOwner,
} from './choose-owner';
export { type CountedWork, countedWork, Counters, turnOf, workOf } from './counters';
export { countersOfTeam } from './from-team';
export { handOver, type HandedTo } from './hand-over';
export type { PlannedAssignment } from './planned-assignments';
export { MOST_SHARE } from './shares';
export { type AnswerPromise, checkPromise, type MissedStep, PROMISE_MINUTES } from '../people/answer-promise';
