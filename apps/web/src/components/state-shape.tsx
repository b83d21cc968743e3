import type { RunOutcome } from '@haycart/api';

export type ShownState = RunOutcome | 'waiting' | 'unrouted';

/** The word for each state; the shape never stands without it, at least for screen readers. */
export const STATE_WORDS: Record<ShownState, string> = {
  written: 'written',
  held: 'held',
  skipped: 'skipped',
  failed: 'failed',
  'taken-back': 'taken back',
  waiting: 'waiting',
  unrouted: 'no route',
};

/** A state as its shape. With `word`, screen readers hear the word; without, the word must stand beside it. */
export function StateShape({ state, word = false }: { state: ShownState; word?: boolean }) {
  return word ? (
    <span
      className="state-shape"
      data-state={state}
      role="img"
      aria-label={STATE_WORDS[state]}
      title={STATE_WORDS[state]}
    />
  ) : (
    <span className="state-shape" data-state={state} aria-hidden />
  );
}
