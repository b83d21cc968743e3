import type { FunnelRow, SourceFunnel } from '@haycart/api';
import { ChevronRight } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { CameToWish } from '../../api/queries';
import { useWords } from '../../api/words';
import { count, percent } from '../../components/format';
import { Head, Heads } from '../../components/heads';
import { channelWord } from '../channel-word';

/** Shows the deals of a row that came so far; `told` is how far, in words. */
type Show = (row: FunnelRow, asked: Omit<CameToWish, 'pipeline'>, told: string) => void;

const CELL = 'tabular px-2 text-right align-top whitespace-nowrap last:pr-3.5';

/** Channels with their sources, and how many of their deals came to each stage. */
export function FunnelTable({ funnel: { stages, rows, total }, show }: { funnel: SourceFunnel; show: Show }) {
  const words = useWords();
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const toggle = (channel: string) =>
    setOpened((now) => new Set(now.has(channel) ? [...now].filter((one) => one !== channel) : [...now, channel]));
  const sourcesOf = (channel: string | null) =>
    rows.filter((row) => row.channel === channel && row.source !== null && row.source !== '');
  return (
    <table className="w-full border-collapse" aria-label="How far it came">
      <Heads>
        <Head>Channel, source</Head>
        <Head end>{words.Many('deal')} begun</Head>
        {stages.map(({ key, name }) => (
          <Head end key={key}>
            {name}
          </Head>
        ))}
        <Head end>Won</Head>
        <Head end>Still open</Head>
      </Heads>
      <tbody>
        {rows
          .filter(({ source }) => source === null)
          .flatMap((row) => {
            const below = sourcesOf(row.channel);
            const isOpen = opened.has(row.channel!);
            const name = channelWord(row.channel!);
            return [
              <Row key={row.channel} row={row} stages={stages} show={show}>
                {below.length ? (
                  <button
                    type="button"
                    aria-expanded={isOpen}
                    className="flex items-center gap-1 font-semibold hover:underline"
                    onClick={() => toggle(row.channel!)}
                  >
                    <ChevronRight className={`size-3.5 flex-none ${isOpen ? 'rotate-90' : ''}`} aria-hidden />
                    {name}
                  </button>
                ) : (
                  <span className="pl-[18px] font-semibold">{name}</span>
                )}
              </Row>,
              ...(isOpen
                ? below.map((one) => (
                    <Row stages={stages} key={`${one.channel} ${one.source}`} row={one} show={show}>
                      <span className="pl-[38px]">{one.source}</span>
                    </Row>
                  ))
                : []),
            ];
          })}
      </tbody>
      <tfoot className="border-t border-line font-semibold">
        <Row row={total} stages={stages} show={show}>
          <span className="font-semibold">All</span>
        </Row>
      </tfoot>
    </table>
  );
}

function Row({
  row,
  stages,
  show,
  children,
}: {
  row: FunnelRow;
  stages: SourceFunnel['stages'];
  show: Show;
  children: ReactNode;
}) {
  const { deals, won, open, reached, lostAt } = row;
  const opens = (figure: number, asked: Omit<CameToWish, 'pipeline'>, told: string, after = '') =>
    figure ? (
      <button type="button" className="hover:underline" onClick={() => show(row, asked, told)}>
        {count(figure)}
        {after}
      </button>
    ) : (
      <span className="text-faint">0</span>
    );
  return (
    <tr className="border-b border-hair last:border-0">
      <th scope="row" className="px-3.5 py-2 text-left align-top font-normal">
        {children}
      </th>
      <td className={`${CELL} py-2`}>{opens(deals, {}, '')}</td>
      {stages.map(({ key: stage, name }, index) => (
        <td key={stage} className={`${CELL} py-2`}>
          <Share part={reached[index]!} of={deals}>
            {opens(reached[index]!, { stage }, `reached ${name}`)}
          </Share>
          {lostAt[index]! > 0 && (
            <span className="block text-small font-normal text-brick">
              {opens(lostAt[index]!, { stage, status: 'lost' }, `lost at ${name}`, ' lost')}
            </span>
          )}
        </td>
      ))}
      <td className={`${CELL} py-2`}>
        <Share part={won} of={deals}>
          {opens(won, { status: 'won' }, 'won')}
        </Share>
      </td>
      <td className={`${CELL} py-2`}>{opens(open, { status: 'open' }, 'open')}</td>
    </tr>
  );
}

/** A figure after its share of all, with the share as a bar below. */
function Share({ part, of, children }: { part: number; of: number; children: ReactNode }) {
  return (
    <>
      <span className="mr-2 text-small font-normal text-muted">{of ? percent(part / of) : ''}</span>
      {children}
      <span className="mt-1 flex h-1 justify-end bg-hair" aria-hidden>
        <span className="bg-straw" style={{ width: `${of ? (part / of) * 100 : 0}%` }} />
      </span>
    </>
  );
}
