import { answerKeys } from './answers';
import type { RouteDefinition } from '../../definition/route-definition';

/** What the fields are called that tell who somebody is, in words that a payload’s reader knows. */
const CALLED: Record<string, string> = {
  first_name: 'First name',
  last_name: 'Last name',
  full_name: 'Full name',
  name: 'Full name',
  email: 'E-mail',
};

/**
 * What a route takes some answers for, by their keys: the names and the address of the person that it writes. By these a
 * submission says who it is from, whatever its sender calls them.
 */
export function senderNames({ writes }: Pick<RouteDefinition, 'writes'>): Record<string, string> {
  const names: Record<string, string> = {};
  for (const { record, fills } of writes) {
    if (record !== 'contact' && record !== 'lead') continue;
    for (const { field, value } of fills) {
      const [part, ...more] = value.parts;
      const called = CALLED[field];
      if (called && part && 'answer' in part && !more.length) for (const key of answerKeys(part)) names[key] ??= called;
    }
  }
  return names;
}
