import { SOURCE_FIGURES, type SourceFigure, type SourceRow, type SourcesReport } from '@haycart/api';
import type { Figure, Figures, RemovalShare } from '@haycart/core';
import { useState, type ReactNode } from 'react';
import { count, money } from '../components/format';
import { Sheet } from '../components/sheet';
import { Head, Heads } from '../components/heads';
import { RowName, rowWords } from './row-name';
import { columnsOf, type CostPer } from './source-columns';
import { ROW_PARTS, shownLines, type RowPart, type SourceLine } from './source-tree';
import { WonChange } from './won-change';

/** What a cell was asked to show the records of. */
export interface ShownCell {
  figure: SourceFigure;
  path: Partial<Record<RowPart, string>>;
  /** Of the row, in words. */
  name: string;
}

/** Channels with their sources and campaigns, each figure with the way to the records behind it. */
export function SourceTable({
  report,
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
  const { total, currency, split } = report;
  const columns = columnsOf(report, dealWord, per);
  const hasPages = report.rows.some(({ page }) => page !== undefined);
  const toggle = (key: string) =>
    setOpened((now) => new Set(now.has(key) ? [...now].filter((one) => one !== key) : [...now, key]));
  const cells = (figures: Figures, path: ShownCell['path'], name: string, after?: ReactNode) =>
    columns.map(({ figure, head, isMoney, look = '', worked }) => {
      const amount = figures[figure];
      const text = worked?.(figures, currency);
      return (
        <td key={head} className={`tabular px-2 text-right whitespace-nowrap last:pr-3.5 ${look}`}>
          {text ? (
            text
          ) : amount && !worked && isListed(figure) ? (
            <button type="button" className="hover:underline" onClick={() => show({ figure, path, name })}>
              {isMoney ? money({ amount, currency }) : count(amount)}
            </button>
          ) : (
            <span className="text-faint">{isMoney || worked ? '–' : 0}</span>
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
        <Heads>
          <Head>
            {split && `${split.label}, `}
            {split ? 'channel' : 'Channel'}, source, campaign{hasPages && ', page'}
          </Head>
          {columns.map(({ figure, head, look = '' }) => (
            <Head key={head} end look={look}>
              {head}
              {figure === 'won' && <span className="ml-2 inline-block w-14 max-sm:hidden" />}
            </Head>
          ))}
        </Heads>
        <tbody>
          {shownLines(lines, opened).map((line) => (
            <tr
              key={line.key}
              className={`h-9 border-b border-hair ${line.part === 'channel' && line.name === '' ? 'bg-straw-soft/40' : ''}`}
            >
              <th scope="row" className="max-w-0 w-[38%] truncate px-3.5 text-left font-normal">
                <RowName
                  line={line}
                  share={line.depth === 0 ? shares?.find(({ state }) => state === line.name) : undefined}
                  names={report}
                  isOpen={opened.has(line.key)}
                  toggle={() => toggle(line.key)}
                />
              </th>
              {cells(
                line.row,
                rowPath(line.row),
                rowWords(line, report),
                <WonChange now={line.row.won} before={line.wonBefore} />,
              )}
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr className="h-9 border-t border-line font-semibold">
            <th scope="row" className="px-3.5 text-left font-semibold">
              All
            </th>
            {cells(total, {}, 'all', <WonChange now={0} before={null} />)}
          </tr>
        </tfoot>
      </table>
    </Sheet>
  );
}

function rowPath(row: SourceRow): ShownCell['path'] {
  return Object.fromEntries(ROW_PARTS.flatMap((part) => (row[part] === undefined ? [] : [[part, row[part]]])));
}

/** Whether the records behind a figure can be listed. */
function isListed(figure: Figure): figure is SourceFigure {
  return (SOURCE_FIGURES as readonly Figure[]).includes(figure);
}
