import type { Balance, BalanceLine } from '@haycart/api';
import { counted } from '@haycart/core';

/** `even`: it adds up. `more`: more is kept than was counted, as after a process was killed. `off`: something is missing. */
export type BalanceSign = 'even' | 'more' | 'off';

/** Whether a line adds up, and in what way it does not. */
export function signOf({ acknowledged, kept, off }: BalanceLine): { kind: BalanceSign; words: string } {
  const missing = acknowledged - kept;
  const parts = [
    ...(missing > 0 ? [`${missing} not kept`] : []),
    ...(off.length ? [`${counted(off.length, 'submission')} that no run tells of`] : []),
  ];
  if (parts.length) return { kind: 'off', words: parts.join(', ') };
  if (missing < 0) return { kind: 'more', words: `${-missing} more than acknowledged` };
  return { kind: 'even', words: 'yes' };
}

/** All lines in a sentence. */
export function balanceWords({ lines, off }: Balance): string {
  if (off) return `${counted(off, 'submission')} of ${total(lines)} cannot be accounted for`;
  return total(lines) === 0 ? 'nothing arrived' : `all ${total(lines)} are accounted for`;
}

function total(lines: readonly BalanceLine[]): number {
  return lines.reduce((sum, { acknowledged, kept }) => sum + Math.max(acknowledged, kept), 0);
}
