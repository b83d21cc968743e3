import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';
import { IconButton } from './button';
import { focusBack, focusFirstField } from './dialog-focus';

/**
 * A dialog over the page. Escape and the cross close it; the focus begins on the first field, stays inside, and goes back to
 * where it came from.
 */
export function Dialog({
  open,
  close,
  title,
  description,
  children,
  wide = false,
}: {
  open: boolean;
  close: () => void;
  title: string;
  description?: ReactNode;
  children: ReactNode;
  wide?: boolean;
}) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && close()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-scrim" />
        <Radix.Content
          onOpenAutoFocus={focusFirstField}
          onCloseAutoFocus={focusBack}
          {...(description ? {} : { 'aria-describedby': undefined })}
          className={`fixed left-1/2 top-[10vh] z-50 flex max-h-[82vh] w-[calc(100vw-32px)] -translate-x-1/2 flex-col overflow-auto rounded border border-line bg-sheet p-5 shadow-xl ${wide ? 'max-w-[760px]' : 'max-w-[480px]'}`}
        >
          <div className="mb-3 flex items-start justify-between gap-4">
            <Radix.Title className="text-lg leading-6">{title}</Radix.Title>
            <Radix.Close asChild>
              <IconButton label="Close" className="-mr-2 -mt-1">
                <X className="size-4" aria-hidden />
              </IconButton>
            </Radix.Close>
          </div>
          {description && <Radix.Description className="-mt-1 mb-4 text-muted">{description}</Radix.Description>}
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
