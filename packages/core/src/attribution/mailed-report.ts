import { formatMoney } from '../reading/money';
import { capitalised } from '../text';
import type { Figure, Figures } from './credit-tree';
import type { Days } from './report-period';

/** What a mail about sources is written from. */
export interface MailedReport {
  /** What the view is called. */
  name: string;
  days: Days;
  currency: string;
  /** What a deal is called, one and several. */
  dealWords: { one: string; many: string };
  figures: readonly Figure[];
  total: Figures;
  /** The same of the period before. */
  before: Figures;
  /** The first rows, those that brought most first, and how many there are in all. */
  rows: readonly { name: string; figures: Figures }[];
  allRows: number;
  /** Where the whole of it is; null when the server does not know its address. */
  link: string | null;
}

/** The subject and the text of the mail: each figure against the period before, and what each source brought. */
export function mailedReport(report: MailedReport): { subject: string; text: string } {
  const { name, days, total, before, rows, allRows, link } = report;
  const figures = wordsOf(report).filter(([figure]) => report.figures.includes(figure));
  const value = (of: Figures, figure: Figure) => said(of[figure], figure, report.currency);
  const lines = figures.map(
    ([figure, word]) => `${word}: ${value(total, figure)}${change(total[figure], before[figure])}`,
  );
  const told = rows.map(({ name: of, figures: own }) => `- ${capitalised(of)}: ${rowWords(own, report) || 'nothing'}`);
  const more = allRows > rows.length ? [`- and ${allRows - rows.length} more, in the file`] : [];
  return {
    subject: `${name}: ${value(total, 'won')} won, ${days.from} to ${days.to}`,
    text: [
      `${name}, ${days.from} to ${days.to}, against the period before.`,
      lines.join('\n'),
      [...told, ...more].join('\n') || 'Nothing came in this period.',
      ...(link ? [`All of it: ${link}`] : []),
      'You asked for this mail each Monday; end it on the page Sources, under Mail.',
    ].join('\n\n'),
  };
}

function wordsOf({ dealWords: { many } }: MailedReport): [Figure, string][] {
  return [
    ['won', 'Won value'],
    ['wonDeals', `Won ${many}`],
    ['deals', `New ${many}`],
    ['value', `Value of new ${many}`],
    ['contacts', 'New contacts'],
    ['submissions', 'Submissions'],
    ['cost', 'Cost'],
  ];
}

/** `£ 1,200.00 won by 2 deals, 4 new deals, 31 submissions`, without what is nothing. */
function rowWords(own: Figures, { currency, dealWords: { one, many }, figures }: MailedReport): string {
  const counted = (figure: Figure, singular: string, plural: string) => {
    const count = figures.includes(figure) ? own[figure] : 0;
    return count ? `${count.toLocaleString('en-GB')} ${count === 1 ? singular : plural}` : '';
  };
  const wonBy = counted('wonDeals', one, many);
  return [
    own.won ? `${formatMoney({ amount: own.won, currency })} won by ${wonBy}` : wonBy && `${wonBy} won`,
    counted('deals', `new ${one}`, `new ${many}`),
    counted('submissions', 'submission', 'submissions'),
    figures.includes('cost') && own.cost ? `cost ${formatMoney({ amount: own.cost, currency })}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

const MONEY: readonly Figure[] = ['won', 'value', 'cost'];

function said(amount: number, figure: Figure, currency: string): string {
  return MONEY.includes(figure) ? formatMoney({ amount, currency }) : amount.toLocaleString('en-GB');
}

function change(now: number, before: number): string {
  if (!before) return '';
  const percent = Math.round((now / before - 1) * 100);
  return percent === 0 ? ' (as before)' : ` (${percent > 0 ? '+' : '−'}${Math.abs(percent)} %)`;
}
