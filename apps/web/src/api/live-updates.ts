import { EVENT_TOPICS, type EventTopic } from '@haycart/api';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

/** Events come in bursts under load; queries are made stale at most this often, in milliseconds. */
const GATHER_MS = 250;

/** Keeps what is shown current: whatever the server tells has changed is read anew. */
export function useLiveUpdates(): void {
  const client = useQueryClient();
  useEffect(() => {
    const due = new Set<EventTopic | 'any'>();
    let timer: number | undefined;
    const refresh = () => {
      timer = undefined;
      for (const topic of due) void client.invalidateQueries({ queryKey: [topic] });
      due.clear();
    };
    const changed = (topics: readonly EventTopic[]) => {
      due.add('any');
      for (const topic of topics) due.add(topic);
      timer ??= window.setTimeout(refresh, GATHER_MS);
    };
    const source = new EventSource('/api/v1/events');
    source.addEventListener('changed', (event) =>
      changed((JSON.parse(String(event.data)) as { topics: EventTopic[] }).topics),
    );
    // After a broken connection anything may have changed meanwhile.
    let opened = false;
    source.addEventListener('open', () => {
      if (opened) changed(EVENT_TOPICS);
      opened = true;
    });
    return () => {
      source.close();
      window.clearTimeout(timer);
    };
  }, [client]);
}
