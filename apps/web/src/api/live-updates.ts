import { EVENT_TOPICS, type EventTopic } from '@haycart/api';
import { useQueryClient, type Query, type QueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { RefreshPacer, type Refreshed } from './refresh-pacer';

const RETRY_MS = 3_000;

type Topic = EventTopic | 'any';

/** Keeps what is shown current: whatever the server tells has changed is read anew. */
export function useLiveUpdates(): void {
  const client = useQueryClient();
  useEffect(() => {
    const pacer = new RefreshPacer<Topic>((topics) => refresh(client, topics));
    const changed = (topics: readonly EventTopic[]) => pacer.changed(['any', ...topics]);
    const unsubscribe = client.getMutationCache().subscribe((event) => {
      if (event.type === 'updated' && event.action.type === 'success') pacer.hurry();
    });
    // After a broken connection anything may have changed meanwhile.
    let opened = false;
    let source: EventSource;
    let again: number | undefined;
    const listen = () => {
      source = new EventSource('/api/v1/events');
      source.addEventListener('changed', (event) =>
        changed((JSON.parse(String(event.data)) as { topics: EventTopic[] }).topics),
      );
      source.addEventListener('open', () => {
        if (opened) changed(EVENT_TOPICS);
        opened = true;
      });
      // The browser goes on by itself after a lost connection, but not once it was answered with an error.
      source.addEventListener('error', () => {
        if (source.readyState === EventSource.CLOSED) again = window.setTimeout(listen, RETRY_MS);
      });
    };
    listen();
    return () => {
      source.close();
      pacer.stop();
      unsubscribe();
      window.clearTimeout(again);
    };
  }, [client]);
}

/** Reads anew what is shown of some topics; what is not shown is read when it is. What is being read already is not broken off. */
async function refresh(client: QueryClient, topics: ReadonlySet<Topic>): Promise<Refreshed<Topic>> {
  await visible();
  const isAbout = (query: Query) => topicsOf(query).some((topic) => topics.has(topic));
  const shown = client.getQueryCache().findAll({ type: 'active', predicate: isAbout });
  const busy = shown.filter(({ state }) => state.fetchStatus !== 'idle');
  await client.invalidateQueries({ predicate: isAbout, refetchType: 'none' });
  const due = new Set(shown.filter((query) => !busy.includes(query)));
  await client.refetchQueries({ type: 'active', predicate: (query) => due.has(query) }, { cancelRefetch: false });
  return {
    requests: [...due].reduce((sum, query) => sum + pagesOf(query), 0),
    missed: new Set(busy.flatMap(topicsOf).filter((topic) => topics.has(topic))),
  };
}

/** What a query shows: by the first part of its key, and what its `meta` names beside it. */
function topicsOf({ queryKey, meta }: Query): Topic[] {
  return [queryKey[0] as Topic, ...((meta?.topics as Topic[] | undefined) ?? [])];
}

/** How many requests a query takes: a list that was read on takes one for each page. */
function pagesOf({ state: { data } }: Query): number {
  return (data as { pages?: unknown[] } | undefined)?.pages?.length ?? 1;
}

/** Waits until the page can be seen. */
async function visible(): Promise<void> {
  if (document.visibilityState === 'visible') return;
  await new Promise((resolve) => document.addEventListener('visibilitychange', resolve, { once: true }));
  await visible();
}
