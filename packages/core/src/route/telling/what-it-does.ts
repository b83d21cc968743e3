import { recordWord, type Destination } from '../../destination/destination';
import { listInWords } from '../../text';
import type { RouteDefinition, Write } from '../../definition/route-definition';
import { describeRoute, type RouteNames } from './describe';
import { partLabel } from '../editing/route-conditions';

/** What a route does, a sentence for each section of its sheet that says something. */
export function whatItDoes(route: RouteDefinition, names: RouteNames): string[] {
  const { takesFrom, onlyWhen, mapping, recognise, place, decide, followUp } = describeRoute(route, names);
  const naming = route.writes.flatMap((write) => {
    const after = namedAfter(write, route, names.destination);
    return after ? [`The ${recordWord(names.destination, write.record)}’s name is ${after}`] : [];
  });
  return [
    `Takes from ${takesFrom}`,
    ...(route.onlyWhen ? [`Only when ${onlyWhen}`] : []),
    `Mapping: ${mapping}`,
    ...naming,
    `Recognises ${recognise}`,
    `Placed ${place.startsWith('in no') ? place : `in ${place}`}`,
    ...(route.decisions?.length ? [`Decides ${decide}`] : []),
    ...(followUp === 'nothing more' ? [] : [`Follow up: ${followUp}`]),
  ];
}

/** What a deal or a lead is called after: `the company’s Name and the contact’s Full name`; null for others. */
export function namedAfter(write: Write, route: RouteDefinition, destination: Destination): string | null {
  if (write.record !== 'deal' && write.record !== 'lead') return null;
  const parts = write.fills.find(({ field }) => field === 'name')?.value.parts ?? [];
  return listInWords(parts.map((part) => partLabel(part, route, destination))) || null;
}
