import { formatMoney } from '../reading/money';
import type { Figures } from './credit-tree';

/** What one source brought in a period, and in the one that it is compared with. */
export interface ComparedSource {
  name: string;
  now: Pick<Figures, 'won' | 'wonDeals' | 'submissions'>;
  before: Pick<Figures, 'won' | 'wonDeals' | 'submissions'>;
}

/** How many changes are told at most. */
const MOST = 4;
/** A change counts from this part of what was won in the better of the two periods. */
const LEAST = 0.03;

/**
 * What changed about what was won, in sentences with the reason; the greatest change first. The reason is whichever explains
 * more of it: how many were won, or what each brought. Nothing is told when nothing was won before.
 */
export function whatChanged(
  sources: readonly ComparedSource[],
  { currency, dealWords }: { currency: string; dealWords: { one: string; many: string } },
): string[] {
  const sum = (of: 'now' | 'before') => sources.reduce((whole, source) => whole + source[of].won, 0);
  if (!sum('before')) return [];
  const least = Math.max(1, LEAST * Math.max(sum('now'), sum('before')));
  const money = (amount: number) => formatMoney({ amount: Math.round(amount), currency });
  const deals = (count: number) => `${count.toLocaleString('en-GB')} ${count === 1 ? dealWords.one : dealWords.many}`;
  return sources
    .map((source) => ({ ...source, change: source.now.won - source.before.won }))
    .filter(({ change }) => Math.abs(change) >= least)
    .sort((one, other) => Math.abs(other.change) - Math.abs(one.change) || (one.name < other.name ? -1 : 1))
    .slice(0, MOST)
    .map(({ name, now, before, change }) => {
      if (!before.won) return `${name} brought ${money(now.won)}, and nothing before.`;
      if (!now.won) return `${name} brought nothing, after ${money(before.won)} before${noSubmissions(now, before)}.`;
      const said = `${name} brought ${money(Math.abs(change))} ${change > 0 ? 'more' : 'less'}`;
      const each = { now: now.won / now.wonDeals, before: before.won / before.wonDeals };
      const byCount = (now.wonDeals - before.wonDeals) * each.before;
      const byWorth = now.wonDeals * (each.now - each.before);
      return Math.abs(byCount) >= Math.abs(byWorth)
        ? `${said}: ${deals(now.wonDeals)} won, against ${before.wonDeals.toLocaleString('en-GB')}.`
        : `${said}: each ${dealWords.one} won brought it ${money(each.now)}, against ${money(each.before)}.`;
    });
}

function noSubmissions(now: ComparedSource['now'], before: ComparedSource['before']): string {
  return now.submissions === 0 && before.submissions > 0 ? '; nobody came by it any more' : '';
}
