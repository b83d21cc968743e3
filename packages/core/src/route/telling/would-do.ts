import type { Destination } from '../../destination/destination';
import { capitalised } from '../../text';
import type { Plan } from '../planning/plan';
import { outcomeText } from './account';

/** What a run does once it may, in a few words each, as sentences without a full stop. */
export function wouldDo(plan: Plan, destination: Pick<Destination, 'dealWord'> = {}): string[] {
  const written = outcomeText({ ...plan, outcome: 'write' }, destination);
  const after = (plan.effects ?? []).flatMap(({ words, made, out }) => (made || out ? [words] : []));
  return [written, ...after].map(capitalised);
}
