import { Redo2, Undo2 } from 'lucide-react';
import { IconButton } from './button';

/** Undoing and doing again what was changed in a draft. */
export function UndoButtons({
  history: { past, future, undo, redo },
}: {
  history: { past: readonly unknown[]; future: readonly unknown[]; undo: () => void; redo: () => void };
}) {
  return (
    <>
      <IconButton label="Undo" disabled={!past.length} onClick={undo}>
        <Undo2 className="size-4" aria-hidden />
      </IconButton>
      <IconButton label="Redo" disabled={!future.length} onClick={redo}>
        <Redo2 className="size-4" aria-hidden />
      </IconButton>
    </>
  );
}
