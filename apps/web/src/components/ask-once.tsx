import type { UseMutationResult } from '@tanstack/react-query';
import { Dialog } from './dialog';
import { DialogActions } from './dialog-actions';

/** Asks once before something goes that does not come back, naming what is lost. */
export function AskOnce({
  title,
  loses,
  action,
  doing,
  close,
}: {
  title: string;
  /** What is lost, in a sentence or two. */
  loses: string;
  /** What the button says. */
  action: string;
  doing: UseMutationResult<unknown, unknown, void>;
  close: () => void;
}) {
  return (
    <Dialog open close={close} title={title} description={loses}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          doing.mutate();
        }}
      >
        <DialogActions error={doing.error} close={close} action={action} disabled={doing.isPending} />
      </form>
    </Dialog>
  );
}
