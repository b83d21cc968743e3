import type { Destination } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { destinationQuery } from './queries';

/** The workspace's destination, as its routes are planned against it; undefined until it is read. */
export function useDestination(): Destination | undefined {
  return useQuery(destinationQuery).data;
}
