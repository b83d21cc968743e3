import { useMutation } from '@tanstack/react-query';
import { Crosshair } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { call } from '../api/client';
import { Button } from '../components/button';
import { messageOf } from '../components/status';
import { TextField } from '../components/text-field';
import { useAddress } from '../state/use-address';

type Wish = { kind: 'complete' } | { kind: 'failing'; route: string } | { kind: 'holding'; text: string };

/** Jumps to the sample that shows best what a route is to do. */
export function SampleFinder({
  intake,
  route,
  disabled,
}: {
  intake: string | undefined;
  route: string;
  disabled: boolean;
}) {
  const [, , change] = useAddress();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const find = useMutation({
    mutationFn: (wish: Wish) =>
      call<{ submission: string | null }>('GET', `/intakes/${intake}/sample?${new URLSearchParams({ ...wish })}`),
    onSuccess: ({ submission }) => {
      if (submission === null) return;
      change((params) => params.set('sample', submission), false);
      setOpen(false);
    },
  });
  if (!intake) return null;
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        disabled={disabled}
        aria-label="Find a sample"
        title="Find a sample"
        className="inline-flex size-8 flex-none items-center justify-center rounded hover:bg-hair disabled:opacity-40"
      >
        <Crosshair className="size-4" aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          role="dialog"
          aria-label="Find a sample"
          className="z-50 flex w-[300px] flex-col gap-2 rounded border border-line bg-raised p-3 shadow-xl"
        >
          <Button onClick={() => find.mutate({ kind: 'complete' })}>The most complete</Button>
          <Button onClick={() => find.mutate({ kind: 'failing', route })}>The latest that failed or waits</Button>
          <form
            className="flex items-end gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (text.trim()) find.mutate({ kind: 'holding', text });
            }}
          >
            <div className="min-w-0 flex-1">
              <TextField
                label="With an answer that holds"
                value={text}
                onChange={({ target }) => setText(target.value)}
              />
            </div>
            <Button type="submit">Find</Button>
          </form>
          <p role="status" className="min-h-5 text-small text-muted">
            {find.isPending
              ? 'Looking …'
              : find.isError
                ? messageOf(find.error)
                : find.data?.submission === null
                  ? 'None of the latest 5,000 is like that.'
                  : ''}
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
