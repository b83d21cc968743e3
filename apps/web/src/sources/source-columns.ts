import type { SourcesReport } from '@haycart/api';
import { daysToWon, type Figure, type Figures } from '@haycart/core';
import { count, money } from '../components/format';

/** A column of figures. */
export interface Column {
  figure: Figure;
  head: string;
  isMoney?: boolean;
  look?: string;
  /** The text of what is worked out from several figures, blank without any. Such a cell does not open records. */
  worked?: (figures: Figures, currency: string) => string;
}

/** What a cost can be divided by. */
export const COST_PER = ['submissions', 'contacts', 'qualified', 'deals', 'wonDeals'] as const;
export type CostPer = (typeof COST_PER)[number];

/** The columns of figures that such a report tells; those that nothing stands in are left out, but for what was won. */
export function columnsOf({ figures, total }: SourcesReport, dealWord: string, per: CostPer): Column[] {
  const tells = (figure: Figure) => figures.includes(figure);
  const some = (figure: Figure, column: Omit<Column, 'figure'>) =>
    tells(figure) && total[figure] ? [{ figure, ...column }] : [];
  return [
    ...some('views', { head: 'Form views', look: 'max-lg:hidden', worked: ({ views }) => (views ? count(views) : '') }),
    ...(tells('submissions') ? [{ figure: 'submissions' as const, head: 'Submissions' }] : []),
    ...(tells('contacts') ? [{ figure: 'contacts' as const, head: 'New contacts', look: 'max-sm:hidden' }] : []),
    ...some('qualified', { head: 'Qualified', look: 'max-md:hidden' }),
    { figure: 'deals', head: capitalisedPlural(dealWord), look: 'max-sm:hidden' },
    { figure: 'value', head: 'Value', isMoney: true, look: 'max-lg:hidden' },
    { figure: 'wonDeals', head: 'Won', look: 'max-sm:hidden' },
    ...some('wonDeals', { head: 'Days to won', look: 'min-w-16 max-xl:hidden', worked: daysText }),
    { figure: 'won', head: 'Won value', isMoney: true },
    ...some('cost', { head: 'Cost', isMoney: true, look: 'max-md:hidden' }),
    ...some('cost', {
      head: `Per ${perWord(per, dealWord)}`,
      look: 'max-md:hidden',
      worked: (row, currency) => perOne(row, per, currency),
    }),
  ];
}

function daysText(figures: Figures): string {
  const days = daysToWon(figures);
  return days === null ? '' : days < 10 ? days.toFixed(1) : count(Math.round(days));
}

/** The cost per record; blank when there is none. */
function perOne({ cost, ...figures }: Figures, per: CostPer, currency: string): string {
  return cost && figures[per] ? money({ amount: Math.round(cost / figures[per]), currency }) : '';
}

/** The word for what a cost is divided by. */
export function perWord(per: CostPer, dealWord: string): string {
  const words = { submissions: 'submission', contacts: 'new contact', qualified: 'qualified lead' } as const;
  return per === 'deals' ? dealWord : per === 'wonDeals' ? `won ${dealWord}` : words[per];
}

function capitalisedPlural(word: string): string {
  return `${word.charAt(0).toUpperCase()}${word.slice(1).replace(/y$/, 'ie')}s`;
}
