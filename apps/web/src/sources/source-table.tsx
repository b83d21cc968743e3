import type { SourceFigure, SourceRow, SourcesReport } from '@haycart/api';
import type { Figures, RemovalShare } from '@haycart/core';
import { ChevronRight } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { count, money, percent } from '../components/format';
import { Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { channelWord } from './channel-word';
import { opens, shownLines, type SourceLine } from './source-tree';

/** What a cell was asked to show the records of. */
export interface ShownCell {
  figure: SourceFigure;
  path: Pick<SourceRow, 'channel' | 'source' | 'campaign'>;
  /** Of the row, in words. */
  name: string;
}

interface Column {
  figure: SourceFigure;
  head: string;
  isMoney?: boolean;
  look?: string;
  /** What the figure is divided by. Such a cell does not open records. */
  per?: CostPer;
}

/** What a cost can be divided by. */
export const COST_PER = ['submissions', 'contacts', 'qualified', 'deals', 'wonDeals'] as const;
export type CostPer = (typeof COST_PER)[number];

/** Columns that nothing stands in are left out, but for what was won. */
function columnsOf({ qualified, cost }: Figures, dealWord: string, per: CostPer): Column[] {
  return [
    { figure: 'submissions', head: 'Submissions' },
    { figure: 'contacts', head: 'New contacts', look: 'max-sm:hidden' },
    ...(qualified ? [{ figure: 'qualified' as const, head: 'Qualified', look: 'max-md:hidden' }] : []),
    { figure: 'deals', head: capitalisedPlural(dealWord), look: 'max-sm:hidden' },
    { figure: 'value', head: 'Their value', isMoney: true, look: 'max-lg:hidden' },
    { figure: 'wonDeals', head: 'Won', look: 'max-sm:hidden' },
    { figure: 'won', head: 'Won value', isMoney: true },
    ...(cost
      ? [
          { figure: 'cost' as const, head: 'Cost', isMoney: true, look: 'max-md:hidden' },
          { figure: 'cost' as const, head: `Per ${perWord(per, dealWord)}`, isMoney: true, look: 'max-md:hidden', per },
        ]
      : []),
  ];
}

/** The word for what a cost is divided by. */
export function perWord(per: CostPer, dealWord: string): string {
  const words = { submissions: 'submission', contacts: 'new contact', qualified: 'qualified lead' } as const;
  return per === 'deals' ? dealWord : per === 'wonDeals' ? `won ${dealWord}` : words[per];
}

function capitalisedPlural(word: string): string {
  return `${word.charAt(0).toUpperCase()}${word.slice(1).replace(/y$/, 'ie')}s`;
}

/** Channels with their sources and campaigns, each figure with the way to the records behind it. */
export function SourceTable({
  report: { total, currency, campaigns },
  lines,
  dealWord,
  per,
  shares,
  show,
  children,
}: {
  report: SourcesReport;
  lines: readonly SourceLine[];
  dealWord: string;
  /** What the cost is divided by. */
  per: CostPer;
  /** The shares of channels by removal effect, with their ranges. */
  shares: readonly RemovalShare[] | undefined;
  show: (cell: ShownCell) => void;
  /** What stands at the right of its heading. */
  children: ReactNode;
}) {
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const columns = columnsOf(total, dealWord, per);
  const names = new Map(campaigns.map(({ code, name }) => [code, name]));
  const toggle = (key: string) =>
    setOpened((now) => new Set(now.has(key) ? [...now].filter((one) => one !== key) : [...now, key]));
  const cells = (figures: Figures, path: ShownCell['path'], name: string, after?: ReactNode) =>
    columns.map(({ figure, isMoney, look = '', per: divisor }) => {
      const amount = divisor ? perOne(figures, divisor) : figures[figure];
      return (
        <td key={`${figure} ${divisor}`} className={`tabular px-2 text-right whitespace-nowrap last:pr-3.5 ${look}`}>
          {amount && divisor ? (
            money({ amount, currency })
          ) : amount ? (
            <button type="button" className="hover:underline" onClick={() => show({ figure, path, name })}>
              {isMoney ? money({ amount, currency }) : count(amount)}
            </button>
          ) : (
            <span className="text-faint">{isMoney ? '–' : 0}</span>
          )}
          {figure === 'won' && after}
        </td>
      );
    });
  return (
    <Sheet>
      <header className="flex flex-wrap items-center gap-2 px-3.5 py-2.5">
        <h2 className="mr-auto text-base">What it came by</h2>
        {children}
      </header>
      <table className="w-full border-collapse" aria-label="Where business came from">
        <thead>
          <tr className="border-b border-line text-label text-muted">
            <th scope="col" className="px-3.5 py-2 text-left font-semibold">
              Channel, source, campaign
            </th>
            {columns.map(({ figure, head, look = '' }) => (
              <th key={head} scope="col" className={`px-2 py-2 text-right font-semibold last:pr-3.5 ${look}`}>
                {head}
                {figure === 'won' && <span className="ml-2 inline-block w-14 max-sm:hidden" />}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shownLines(lines, opened).map((line) => (
            <tr
              key={line.key}
              className={`h-9 border-b border-hair ${line.row.channel === '' ? 'bg-straw-soft/40' : ''}`}
            >
              <th scope="row" className="max-w-0 w-[38%] truncate px-3.5 text-left font-normal">
                <Name
                  line={line}
                  share={line.depth === 0 ? shares?.find(({ state }) => state === line.name) : undefined}
                  campaignName={names.get(line.name)}
                  isOpen={opened.has(line.key)}
                  toggle={() => toggle(line.key)}
                />
              </th>
              {cells(line.row, pathOf(line.row), nameOf(line), <Change now={line.row.won} before={line.wonBefore} />)}
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr className="h-9 border-t border-line font-semibold">
            <th scope="row" className="px-3.5 text-left font-semibold">
              All
            </th>
            {cells(total, {}, 'all', <Change now={0} before={null} />)}
          </tr>
        </tfoot>
      </table>
    </Sheet>
  );
}

function Name({
  line,
  share,
  campaignName,
  isOpen,
  toggle,
}: {
  line: SourceLine;
  share: RemovalShare | undefined;
  /** What a campaign of the register is called. */
  campaignName: string | undefined;
  isOpen: boolean;
  toggle: () => void;
}) {
  const { depth, name, row } = line;
  const text =
    depth === 0
      ? channelWord(name)
      : (depth === 2 && campaignName) || name || (depth === 2 ? 'without a campaign' : 'without a name');
  const words = (
    <span className={`truncate ${depth === 0 ? 'font-semibold' : ''} ${name === '' && depth > 0 ? 'text-muted' : ''}`}>
      {row.channel === '' && <StateShape state="held" />} {text}
      {share && (
        <span className="ml-1.5 font-normal text-muted">
          {percent(share.share)}, between {percent(share.low)} and {percent(share.high)}
        </span>
      )}
      {row.channel === '' && <span className="ml-1.5 font-normal text-muted">no touch is known that led to it</span>}
    </span>
  );
  return (
    <span className="flex items-center" style={{ paddingLeft: depth * 20 }}>
      {opens(line) && row.channel !== '' ? (
        <button
          type="button"
          aria-expanded={isOpen}
          className="flex min-w-0 items-center gap-1 hover:underline"
          onClick={toggle}
        >
          <ChevronRight className={`size-3.5 flex-none ${isOpen ? 'rotate-90' : ''}`} aria-hidden />
          {words}
        </button>
      ) : (
        <span className="flex min-w-0 pl-[18px]">{words}</span>
      )}
    </span>
  );
}

/** The cost per record; 0 when there is none. */
function perOne({ cost, ...figures }: Figures, per: CostPer): number {
  return figures[per] ? Math.round(cost / figures[per]) : 0;
}

/** By how much it is more or less than before; nothing where there was nothing. */
function Change({ now, before }: { now: number; before: number | null }) {
  const change = before ? now / before - 1 : 0;
  const text = `${change > 0 ? '+' : '−'}${percent(Math.abs(change))}`;
  return (
    <span
      className={`ml-2 inline-block w-14 text-small max-sm:hidden ${change > 0 ? 'text-green' : 'text-brick'}`}
      title={before ? 'against the period that it is compared with' : undefined}
    >
      {Math.abs(change) < 0.005
        ? ''
        : Math.abs(change) > 9.99
          ? change > 0
            ? '× ' + count(Math.round(now / before!))
            : text
          : text}
    </span>
  );
}

function pathOf({ channel, source, campaign }: SourceRow): ShownCell['path'] {
  return {
    ...(channel === undefined ? {} : { channel }),
    ...(source === undefined ? {} : { source }),
    ...(campaign === undefined ? {} : { campaign }),
  };
}

function nameOf({ row: { channel = '', source, campaign } }: SourceLine): string {
  return [channelWord(channel), source, campaign].filter(Boolean).join(', ');
}
