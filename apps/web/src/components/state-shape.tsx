import type { RunLine, RunOutcome, SubmissionShape, SubmissionState } from '@haycart/api';

export type ShownState = RunOutcome | Exclude<SubmissionState, 'routed'>;

/** The word for each state; the shape never stands without it, at least for screen readers. */
export const STATE_WORDS: Record<ShownState, string> = {
  written: 'written',
  held: 'held',
  skipped: 'skipped',
  failed: 'failed',
  'taken-back': 'taken back',
  waiting: 'waiting',
  unrouted: 'no route',
  'set-aside': 'set aside',
  cancelled: 'cancelled with its file',
};

/** What became of a submission so far: that of its first run, else what it waits for. */
export function stateOf({
  state,
  runs,
}: Pick<SubmissionShape, 'state'> & { runs: readonly Pick<RunLine, 'outcome'>[] }): ShownState {
  if (state === 'set-aside' || (state === 'cancelled' && !runs.length)) return state;
  return runs[0]?.outcome ?? (state === 'waiting' ? 'waiting' : 'unrouted');
}

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
