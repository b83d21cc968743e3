import type { ReactNode } from 'react';
import { Button } from './button';
import { messageOf } from './status';

/** How a dialog ends: what was refused, the way out, and the one main action, which submits the form around it. */
export function DialogActions({
  error,
  close,
  action,
  disabled = false,
  note,
}: {
  /** What the server answered when it would not; `null` when nothing was refused. */
  error: unknown;
  close: () => void;
  action: string;
  disabled?: boolean;
  note?: ReactNode;
}) {
  return (
    <>
      {error !== null && (
        <p role="alert" className="text-small text-brick">
          {messageOf(error)}
        </p>
      )}
      <div className="flex items-center justify-end gap-2">
        {note && <span className="mr-auto text-small text-muted">{note}</span>}
        <Button onClick={close}>Cancel</Button>
        <Button look="main" type="submit" disabled={disabled}>
          {action}
        </Button>
      </div>
    </>
  );
}
