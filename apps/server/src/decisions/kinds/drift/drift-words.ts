import { counted, parseKey, type Drift } from '@haycart/core';
import type { RepairRehearsal } from '@haycart/api';

/** What a decision about a change at a sender asks, and what lies behind it. */
export function driftWords({
  subject,
  detail,
  count,
  told,
}: {
  subject: string;
  detail: string;
  count: number;
  told: Drift;
}) {
  const field = lastName(told.field);
  switch (told.kind) {
    case 'renamed':
      return {
        question: `Is “${lastName(told.became)}” the new name of “${field}”?`,
        story: `${subject} sends the one since the other ended: ${told.because.join(', ')}.`,
      };
    case 'stopped':
      return {
        question: `“${field}” does not come any more`,
        story: `${subject} always sent it, and did not in the last ${counted(count, 'submission')}. Routes read it.`,
      };
    case 'changed':
      return {
        question: `“${field}” holds something else now`,
        story: `What ${subject} sends in it looks otherwise than all before (${detail.split(': ').at(-1)}). Routes read it.`,
      };
    case 'appeared':
      return {
        question: `A field came that nothing reads: “${field}”`,
        story: `${subject} sends it since a while, and its routes do not read it.`,
      };
  }
}

/** What a repair does, with its numbers. */
export function repairWords(label: string, told: Pick<Drift, 'kind'>, repair: RepairRehearsal): string {
  const { routes, runsAgain, fillsIn } = repair;
  const parts = [
    `${counted(routes.length, 'route')} ${routes.length === 1 ? 'reads' : 'read'} ${told.kind === 'renamed' ? 'both names' : 'it'}`,
    ...(runsAgain ? [`${counted(runsAgain, 'run')} ${runsAgain === 1 ? 'goes' : 'go'} again`] : []),
    ...(fillsIn ? [`blanks are filled in ${counted(fillsIn, 'record')}`] : []),
  ];
  return `${label}: ${parts.join(', ')}. Left: the routes stay as they are.`;
}

/** The last name of a key, which tells it from its neighbours. */
export function lastName(key: string): string {
  return String(parseKey(key)?.at(-1) ?? key);
}
