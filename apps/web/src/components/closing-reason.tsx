import { useState } from 'react';
import { Dialog } from './dialog';
import { DialogActions } from './dialog-actions';
import { TextField } from './text-field';

const USUAL = {
  won: ['Price', 'Trust', 'Time to deliver', 'Came back to us'],
  lost: ['Too dear', 'Chose another firm', 'No answer', 'Not now', 'Too far away', 'Not what we do'],
};

/** Asks why something was won, lost or set aside; the usual reasons are one click. */
export function ClosingReason({
  title,
  won,
  needed = false,
  action,
  close,
  decide,
}: {
  title: string;
  won: boolean;
  /** Whether it must be said. */
  needed?: boolean;
  action: string;
  close: () => void;
  decide: (reason: string) => void;
}) {
  const [reason, setReason] = useState('');
  return (
    <Dialog open close={close} title={title} description="The reason is what numbers about losses are made of.">
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          decide(reason.trim());
        }}
      >
        <div className="flex flex-wrap gap-1.5">
          {USUAL[won ? 'won' : 'lost'].map((usual) => (
            <button
              key={usual}
              type="button"
              aria-pressed={reason === usual}
              onClick={() => setReason(usual)}
              className={`h-8 rounded border px-2.5 ${reason === usual ? 'border-ink bg-straw-soft' : 'border-line hover:border-muted'}`}
            >
              {usual}
            </button>
          ))}
        </div>
        <TextField label="Reason" value={reason} autoFocus onChange={({ target }) => setReason(target.value)} />
        <DialogActions error={null} close={close} action={action} disabled={needed && !reason.trim()} />
      </form>
    </Dialog>
  );
}
