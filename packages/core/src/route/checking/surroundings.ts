import type { Destination } from '../../destination/destination';

/** What a route may name: the workspace's destination and its intakes, each with the field keys seen so far. */
export interface RouteSurroundings {
  destination: Destination;
  intakes: { key: string; name: string; fieldKeys?: ReadonlySet<string> }[];
}
