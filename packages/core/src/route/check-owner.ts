import { namedOwner } from '../assignment/choose-owner';
import { fieldOf, type Destination } from '../destination/destination';
import type { RecordKind } from '../diff/record';
import { jsonPointer } from '../json';
import { error, type Problem } from '../problem';
import type { RouteDefinition } from './definition';

/** What is wrong with the owners that a route names. */
export function checkOwners(route: RouteDefinition, destination: Destination): Problem[] {
  return route.writes.flatMap(({ owner, record }, w) => {
    const named = owner && namedOwner(owner);
    if (!named) return [];
    const at = ['writes', w, 'owner', ...('enteredBy' in owner ? ['otherwise'] : [])];
    if ('person' in named)
      return isOption(destination, record, 'owner', named.person)
        ? []
        : [error('unknown-person', `There is no person “${named.person}”.`, jsonPointer([...at, 'person']))];
    return destination.teams?.[named.team]
      ? []
      : [error('unknown-team', `There is no team “${named.team}”.`, jsonPointer([...at, 'team']))];
  });
}

function isOption(destination: Destination, record: RecordKind, field: string, key: string): boolean {
  return (fieldOf(destination, record, field)?.options ?? []).some((option) => option.key === key && !option.retired);
}
