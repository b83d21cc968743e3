import type { RouteDefinition, Write } from '../definition/route-definition';
import type { Value } from '../value/value';
import { alwaysAdded } from '../effect/kinds/mark';
import { fixedText } from '../definition/fixed-text';
import type { FormRouteWish } from './form-route';

/**
 * What one would have to wish for to get a route that places and marks as this one does: the wish with which the copy of a
 * form begins. What a wish cannot say, such as a stage that depends on an answer, is left out.
 */
export function wishOfRoute({ writes, followUps = [] }: RouteDefinition): FormRouteWish {
  const placed = writes.find(({ record, place }) => (record === 'deal' || record === 'lead') && place);
  const tags = alwaysAdded(followUps, 'tag');
  const lists = alwaysAdded(followUps, 'list');
  return {
    ...(placed ? placeOf(placed) : {}),
    ...(tags.length ? { tags: [...new Set(tags)] } : {}),
    ...(lists.length ? { lists: [...new Set(lists)] } : {}),
  };
}

function placeOf({ record, place, owner, fills }: Write): FormRouteWish {
  const [pipeline, stage] = [always(place?.pipeline), always(place?.stage)];
  const worth = fills.find(({ field }) => field === 'value')?.value;
  const value = always(worth) ?? fallbackOf(worth);
  return {
    ...(pipeline && stage && place && (record === 'deal' || record === 'lead')
      ? { place: { record, pipeline, stage, again: place.again } }
      : {}),
    ...(value ? { value } : {}),
    ...(owner ? { owner } : {}),
  };
}

/** The text that a value always is; null where it depends on what was sent, and for none. */
function always(value: Value | undefined): string | null {
  return (value && fixedText(value)) || null;
}

/** What a value is where nothing was answered. */
function fallbackOf(value: Value | undefined): string | null {
  const text = value?.finishers?.find(({ use }) => use === 'default')?.with?.['text'];
  return typeof text === 'string' ? text : null;
}
