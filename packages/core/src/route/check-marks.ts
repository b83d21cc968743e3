import { namedOwner } from '../assignment/choose-owner';
import { fieldOf, type Destination } from '../destination/destination';
import type { RecordKind } from '../diff/record';
import { jsonPointer } from '../json';
import { error, type Problem } from '../problem';
import type { RouteDefinition } from './definition';

/** What is wrong with the owners, tags and lists that a route names. */
export function checkMarks(route: RouteDefinition, destination: Destination): Problem[] {
  return [...checkOwners(route, destination), ...checkFollowUps(route, destination)];
}

function checkOwners(route: RouteDefinition, destination: Destination): Problem[] {
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

function checkFollowUps(route: RouteDefinition, destination: Destination): Problem[] {
  return (route.followUps ?? []).flatMap((followUp, f) => {
    if (followUp.do !== 'tag' && followUp.do !== 'list') return [];
    const write = route.writes.find(({ as }) => as === followUp.on);
    if (!write)
      return [error('unknown-write', `No write is called “${followUp.on}”.`, jsonPointer(['followUps', f, 'on']))];
    if (followUp.do === 'list' && write.record !== 'contact')
      return [
        error(
          'list-does-not-fit',
          'Lists are of contacts, so only a contact can be put in one.',
          jsonPointer(['followUps', f, 'on']),
        ),
      ];
    const [field, keys] =
      followUp.do === 'tag' ? (['tags', followUp.tags] as const) : (['lists', followUp.lists] as const);
    return keys.flatMap((key, k) =>
      isOption(destination, write.record, field, key)
        ? []
        : [
            error(
              `unknown-${followUp.do}`,
              `There is no ${followUp.do} “${key}”.`,
              jsonPointer(['followUps', f, field, k]),
            ),
          ],
    );
  });
}

function isOption(destination: Destination, record: RecordKind, field: string, key: string): boolean {
  return (fieldOf(destination, record, field)?.options ?? []).some((option) => option.key === key && !option.retired);
}
