import type { ShownState } from '../components/state-shape';

const NOT_WRITTEN: Record<Exclude<ShownState, 'written'>, string> = {
  held: 'Nothing is written yet',
  skipped: 'Left out: nothing was written',
  failed: 'Nothing was written',
  'taken-back': 'Taken back',
  waiting: 'Waiting to be routed',
  unrouted: 'No route takes it',
  'set-aside': 'Set aside',
  cancelled: 'Cancelled with its file',
};

/** What became of a submission in a few words, and why where it was not written. @param summary Of its run, if there is one. */
export function resultOf(state: ShownState, summary: string): { result: string; why: string } {
  if (state === 'written') return { result: summary, why: '' };
  return { result: NOT_WRITTEN[state], why: state === 'taken-back' ? '' : summary };
}
