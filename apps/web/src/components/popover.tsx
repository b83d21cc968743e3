import { Popover as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** A small sheet that opens beside what calls it. */
export function Popover({
  trigger,
  label,
  open,
  onOpenChange,
  wide = false,
  align = 'start',
  children,
}: {
  /** A single button. */
  trigger: ReactNode;
  label: string;
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
  wide?: boolean;
  align?: 'start' | 'end';
  children: ReactNode;
}) {
  return (
    <Radix.Root {...(open === undefined ? {} : { open })} {...(onOpenChange ? { onOpenChange } : {})}>
      <Radix.Trigger asChild>{trigger}</Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          aria-label={label}
          align={align}
          sideOffset={4}
          collisionPadding={12}
          className={`z-30 max-h-[min(70vh,620px)] overflow-y-auto rounded border border-line bg-raised p-3 shadow-xl ${wide ? 'w-[min(680px,calc(100vw-24px))]' : 'w-[min(320px,calc(100vw-24px))]'}`}
        >
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
