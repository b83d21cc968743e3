import { CloudOff, Inbox } from 'lucide-react';
import { useEffect, useRef, type ReactNode } from 'react';
import { ApiError } from '../api/client';
import { Button } from './button';

/** What stands where nothing is yet: the next step, and the means to take it. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="flex flex-col items-center gap-2 px-6 py-14 text-center text-muted">
      <Inbox className="size-7" strokeWidth={1.5} aria-hidden />
      <h2 className="text-base text-ink">{title}</h2>
      <div className="max-w-[44ch]">{children}</div>
    </div>
  );
}

/** How often what did not come is asked for again, in milliseconds. */
const RETRY_MS = 3_000;

/** What stands where something could not be shown: what happened, and what to do. What passes by itself is tried again by itself. */
export function Failed({ error, retry }: { error: unknown; retry?: () => void }) {
  const again = useRef(retry);
  useEffect(() => {
    again.current = retry;
  });
  const passes = error instanceof ApiError && (error.problem.status === 0 || error.problem.status >= 500);
  useEffect(() => {
    if (!passes) return;
    const timer = window.setInterval(() => again.current?.(), RETRY_MS);
    return () => window.clearInterval(timer);
  }, [passes]);
  return (
    <div role="alert" className="flex flex-col items-center gap-2 px-6 py-14 text-center text-muted">
      <CloudOff className="size-7 text-brick" strokeWidth={1.5} aria-hidden />
      <h2 className="text-base text-ink">{error instanceof ApiError ? error.problem.title : 'This cannot be shown'}</h2>
      <p className="max-w-[52ch]">{messageOf(error)}</p>
      {retry && <Button onClick={retry}>Try again</Button>}
    </div>
  );
}

/** Grey lines in the place of what is coming, so that nothing jumps when it arrives. */
export function Loading({ lines = 8 }: { lines?: number }) {
  return (
    <div role="status" aria-label="Loading" className="flex flex-col">
      {Array.from({ length: lines }, (_, line) => (
        <div key={line} className="flex h-8 items-center border-b border-hair px-3">
          <span className="h-2.5 rounded-sm bg-hair" style={{ width: `${30 + ((line * 37) % 50)}%` }} />
        </div>
      ))}
    </div>
  );
}

/** An error in words for the person. */
export function messageOf(error: unknown): string {
  if (error instanceof ApiError)
    return error.problem.errors?.map(({ message }) => message).join(' ') || error.problem.detail;
  return 'This page met a mistake of ours. Load it again.';
}
