import type { RouteShape } from '@haycart/api';
import { useMutation } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { Button, buttonLook } from '../components/button';
import { messageOf } from '../components/status';

/** Pauses a route at once; on resuming, one says what becomes of what waits. */
export function PauseOrResume({
  route,
  name,
  changed,
}: {
  route: Pick<RouteShape, 'id' | 'state' | 'version'>;
  /** Said beside what the button does, where there are several. */
  name?: string;
  changed: (after: RouteShape) => void;
}) {
  const label = (what: string) => (name === undefined ? {} : { 'aria-label': `${what} ${name}` });
  const [open, setOpen] = useState(false);
  const live = route.state === 'live';
  const change = useMutation({
    mutationFn: (waiting?: 'route' | 'leave-out') =>
      call<RouteShape>('POST', `/routes/${route.id}/${live ? 'pause' : 'resume'}`, waiting ? { waiting } : {}),
    onSuccess: (after, waiting) => {
      changed(after);
      setOpen(false);
      toast(
        live
          ? 'Paused. What arrives is kept and waits.'
          : waiting === 'leave-out'
            ? 'Resumed. What waited is left out; catching up routes it.'
            : 'Resumed, beginning with what arrived meanwhile.',
      );
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  if (route.version === null) return null;
  if (live)
    return (
      <Button disabled={change.isPending} onClick={() => change.mutate(undefined)} {...label('Pause')}>
        Pause
      </Button>
    );
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className={buttonLook('quiet')} {...label('Resume')}>
        Resume…
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          role="dialog"
          aria-label="Resume"
          className="z-50 flex w-[280px] flex-col gap-2 rounded border border-line bg-raised p-3 shadow-xl"
        >
          <p className="text-muted">What arrived while it was paused waits.</p>
          <Button look="main" disabled={change.isPending} onClick={() => change.mutate('route')}>
            Resume, and route what waits
          </Button>
          <Button disabled={change.isPending} onClick={() => change.mutate('leave-out')}>
            Resume, and leave that out
          </Button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
