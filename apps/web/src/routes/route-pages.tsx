import type { IntakeLine, RouteShape } from '@haycart/api';
import type { Destination, RouteDefinition } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Outlet, useOutletContext, useParams } from 'react-router';
import { toast } from 'sonner';
import { useDestination } from '../api/destination';
import { intakeLinesQuery, latestRouteQuery, routeQuery, sessionQuery } from '../api/queries';
import { Failed, Loading } from '../components/status';
import { useDraft } from './draft';

/** A route whose draft is open, with what its pages need beside it. */
export interface OpenedRoute {
  definition: RouteDefinition;
  route: RouteShape;
  saving: 'saved' | 'saving' | 'failed';
  error: unknown;
  destination: Destination;
  intakes: IntakeLine[];
}

/** What the pages of one route share: its draft stays open while one goes from its sheet to its tables and back. */
export function RoutePages() {
  const { id = '' } = useParams();
  const route = useQuery(routeQuery(id));
  const open = useDraft(({ open }) => open);
  const ready = useDraft((draft) => draft.id === id);
  useEffect(() => {
    if (route.data && useDraft.getState().id !== route.data.id) open(route.data.id, route.data.draft, route.data);
  }, [route.data, open]);
  useOthersChanges(id, ready ? route.data : undefined);
  useEffect(
    () => () => {
      void useDraft.getState().save();
      useDraft.setState({ id: null });
    },
    [id],
  );
  if (route.isError) return <Failed error={route.error} retry={() => void route.refetch()} />;
  if (!ready) return <Loading />;
  return <Opened />;
}

export function useOpenedRoute(): OpenedRoute {
  return useOutletContext<OpenedRoute>();
}

function Opened() {
  const { value: definition, saved: route, saving, error } = useDraft();
  const destination = useDestination();
  const intakes = useQuery(intakeLinesQuery).data;
  if (!definition || !route || !destination || !intakes) return <Loading />;
  return <Outlet context={{ definition, route, saving, error, destination, intakes } satisfies OpenedRoute} />;
}

/** Shows what another person saves of the draft as they save it, unless something of one’s own is not saved yet. */
function useOthersChanges(id: string, opened: RouteShape | undefined): void {
  const me = useQuery(sessionQuery).data?.person.name;
  // What was opened is the latest until a change is told of.
  const latest = useQuery({
    ...latestRouteQuery(id),
    enabled: opened !== undefined,
    initialData: opened,
    staleTime: Infinity,
  }).data;
  useEffect(() => {
    const { id: shown, saved, takeOver } = useDraft.getState();
    if (!latest || shown !== latest.id || !saved || latest.revision <= saved.revision) return;
    if (takeOver(latest.draft, latest) && latest.draftSavedBy !== me)
      toast(`${latest.draftSavedBy ?? 'Somebody else'} changed this draft. It is shown as it is now.`);
  }, [latest, me]);
}
