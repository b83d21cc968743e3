import type { DecisionAction, DecisionShape } from '@haycart/api';
import { counted, parseKey } from '@haycart/core';

/** Actions with a button on the common page; the others belong to pages of their own. */
export type PlainAction = Exclude<
  DecisionAction,
  'means' | 'same' | 'different' | 'new-record' | 'no-record' | 'later'
>;

/** What each action is called, and its key. */
export const ACTIONS: Record<PlainAction, { label: string; key: string }> = {
  repair: { label: 'Repair', key: 'r' },
  'run-again': { label: 'Run again', key: 'r' },
  'send-again': { label: 'Send again', key: 'r' },
  resume: { label: 'Resume', key: 'r' },
  release: { label: 'Release', key: 'r' },
  'add-option': { label: 'Make it an option', key: 'o' },
  leave: { label: 'Leave it', key: 'x' },
};

/** What an action is called for a decision. */
export function labelOf({ kind }: Pick<DecisionShape, 'kind'>, action: keyof typeof ACTIONS): string {
  return action === 'repair' && kind === 'appeared' ? 'Read it' : ACTIONS[action].label;
}

/** The decision as a question or a statement, for its heading. */
export function questionOf({ kind, subject, count, drift, answer }: DecisionShape): string {
  switch (kind) {
    case 'renamed':
      return drift?.told.kind === 'renamed'
        ? `Is “${lastOf(drift.told.became)}” the new name of “${lastOf(drift.told.field)}”?`
        : '';
    case 'stopped':
      return `“${lastOf(drift?.told.field)}” does not come any more`;
    case 'changed':
      return `“${lastOf(drift?.told.field)}” holds something else now`;
    case 'appeared':
      return `A field came that nothing reads: “${lastOf(drift?.told.field)}”`;
    case 'new-answer':
      return `What does “${answer?.value}” mean?`;
    case 'failed':
      return `${counted(count, 'run')} of ${subject} failed`;
    case 'undelivered':
      return `${counted(count, 'post')} of ${subject} could not be delivered`;
    case 'held':
      return `${counted(count, 'run')} of ${subject} ${count === 1 ? 'waits' : 'wait'}`;
    case 'look-alike':
    case 'which-record':
      return subject;
    case 'paused':
      return `${counted(count, 'submission')} ${count === 1 ? 'waits' : 'wait'} for ${subject}`;
    case 'set-aside':
      return `Did a person send ${count === 1 ? 'this' : `these ${count}`}?`;
  }
}

/** What lies behind it, in a sentence or two. */
export function storyOf({ kind, subject, detail, count, drift, answer }: DecisionShape): string {
  switch (kind) {
    case 'renamed':
      return `${subject} sends the one since the other ended${drift?.told.kind === 'renamed' ? `: ${drift.told.because.join(', ')}` : ''}.`;
    case 'stopped':
      return `${subject} always sent it, and did not in the last ${counted(count, 'submission')}. Routes read it.`;
    case 'changed':
      return `What ${subject} sends in it looks otherwise than all before (${detail.split(': ').at(-1)}). Routes read it.`;
    case 'appeared':
      return `${subject} sends it since a while, and its routes do not read it.`;
    case 'new-answer':
      return `${subject} got it for ${answer?.label}, which has no such option. It came ${count === 1 ? 'once' : `${count} times`}.`;
    case 'failed':
    case 'undelivered':
    case 'held':
    case 'look-alike':
    case 'which-record':
      return detail;
    case 'paused':
      return 'The route is paused. Nothing is lost: what waits goes on when the route is resumed.';
    case 'set-aside':
      return `They came through ${subject} and look as if a machine had sent them. Nothing was written.`;
  }
}

/** What an action does, in a sentence. */
export function effectOf(decision: DecisionShape): string {
  const { kind, repair } = decision;
  if (repair) {
    const parts = [
      `${counted(repair.routes.length, 'route')} ${repair.routes.length === 1 ? 'reads' : 'read'} ${kind === 'renamed' ? 'both names' : 'it'}`,
      ...(repair.runsAgain
        ? [`${counted(repair.runsAgain, 'run')} ${repair.runsAgain === 1 ? 'goes' : 'go'} again`]
        : []),
      ...(repair.fillsIn ? [`blanks are filled in ${counted(repair.fillsIn, 'record')}`] : []),
    ];
    return `${labelOf(decision, 'repair')}: ${parts.join(', ')}. Left: the routes stay as they are.`;
  }
  switch (kind) {
    case 'failed':
    case 'held':
      return 'Run again: with the present version of the route. Left: not asked again unless more comes.';
    case 'undelivered':
      return 'Send again: at once, and again later if that fails. Left: not asked again unless more is given up.';
    case 'new-answer':
      return 'What waits goes again, and what was written without it gets the value.';
    case 'set-aside':
      return 'Release: they are routed like any other. Left: they stay aside, and stay readable.';
    case 'paused':
      return 'Resume: the route runs, beginning with what waits.';
    default:
      return 'Left: not asked again. To change a route, open it above.';
  }
}

function lastOf(key = ''): string {
  return String(parseKey(key)?.at(-1) ?? key);
}
