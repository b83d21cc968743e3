import {
  ROUTE_SAMPLES,
  type RouteCaseShape,
  type RouteDefinitionLine,
  type RouteVersionLine,
  type RouteLine,
  type RouteShape,
  type RouteSheetShape,
} from '@haycart/api';
import { queryOptions } from '@tanstack/react-query';
import { get } from '../client';
import { intakeLinesQuery, profileQuery } from './intakes';
import { latestSubmissionsQuery } from './submissions';
import { destinationQuery } from './set-up';

export const routeVersionsQuery = (id: string) =>
  queryOptions({
    queryKey: ['routes', id, 'versions'],
    queryFn: get<RouteVersionLine[]>(`/routes/${id}/versions`),
  });
export const routeCasesQuery = (id: string) =>
  queryOptions({ queryKey: ['route-cases', id], queryFn: get<RouteCaseShape[]>(`/routes/${id}/cases`) });
export const routeDefinitionsQuery = queryOptions({
  queryKey: ['routes', 'definitions'],
  queryFn: get<RouteDefinitionLine[]>('/route-definitions'),
});
export const routesQuery = queryOptions({
  queryKey: ['routes', 'list'],
  queryFn: get<RouteLine[]>('/routes'),
});
/** The route as it is now, also when somebody else changes it. */
export const latestRouteQuery = (id: string) =>
  queryOptions({ queryKey: ['routes', id, 'latest'], queryFn: get<RouteShape>(`/routes/${id}`) });
/** The route as it was opened; all that its page shows besides comes with it. */
export const routeQuery = (id: string) =>
  queryOptions({
    queryKey: ['route', id],
    queryFn: async ({ client, signal }) => {
      const { route, intakes, destination, definitions, cases, samples } = await get<RouteSheetShape>(
        `/routes/${id}/sheet`,
      )({ signal });
      client.setQueryData(intakeLinesQuery.queryKey, intakes);
      client.setQueryData(destinationQuery.queryKey, destination);
      client.setQueryData(routeDefinitionsQuery.queryKey, definitions);
      client.setQueryData(routeCasesQuery(id).queryKey, cases);
      if (samples) {
        client.setQueryData(latestSubmissionsQuery(samples.intake, ROUTE_SAMPLES).queryKey, samples.latest);
        client.setQueryData(profileQuery(samples.intake).queryKey, samples.profile);
      }
      return route;
    },
    staleTime: Infinity,
    gcTime: 0,
  });
