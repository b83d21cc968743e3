import { counted } from '@haycart/core';
import { Button } from '../components/button';

/** What can be done with the tasks that are chosen. */
export function ChosenTasks({
  chosen,
  isDone,
  isBusy,
  finish,
  clear,
}: {
  chosen: number;
  /** Whether those that are chosen are done already. */
  isDone: boolean;
  isBusy: boolean;
  finish: () => void;
  clear: () => void;
}) {
  return (
    <div
      role="toolbar"
      aria-label="What is chosen"
      className="mb-2 flex flex-wrap items-center gap-2 rounded border border-ink bg-straw-soft px-3 py-1.5"
    >
      <b className="font-semibold">{counted(chosen, 'task')} chosen</b>
      <span className="ml-auto flex gap-2">
        <Button look="main" onClick={finish} disabled={isBusy}>
          Mark as {isDone ? 'open' : 'done'}
        </Button>
        <Button onClick={clear}>Choose none</Button>
      </span>
    </div>
  );
}
