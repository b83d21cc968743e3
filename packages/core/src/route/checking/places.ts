import type { Place, RouteDefinition } from '../../definition/route-definition';
import { fixedText } from '../../definition/fixed-text';

/** A pipeline and one of its stages, by their keys. */
export interface PlaceKeys {
  pipeline: string;
  stage: string;
}

/** The places that a route names outright. Those that answers choose are not known before a submission. */
export function placesNamed(route: RouteDefinition): PlaceKeys[] {
  return route.writes.flatMap(({ place }) => (place ? (keysOf(place) ?? []) : []));
}

/** The route with one place in the stead of another, wherever it names that outright. */
export function replacePlace(route: RouteDefinition, from: PlaceKeys, to: PlaceKeys): RouteDefinition {
  const fixed = (text: string) => ({ parts: [{ text }] });
  return {
    ...route,
    writes: route.writes.map((write) => {
      const named = write.place && keysOf(write.place);
      if (!named || named.pipeline !== from.pipeline || named.stage !== from.stage) return write;
      return { ...write, place: { ...write.place!, pipeline: fixed(to.pipeline), stage: fixed(to.stage) } };
    }),
  };
}

function keysOf({ pipeline, stage }: Place): PlaceKeys | null {
  const keys = { pipeline: fixedText(pipeline), stage: fixedText(stage) };
  return keys.pipeline === null || keys.stage === null ? null : { pipeline: keys.pipeline, stage: keys.stage };
}
