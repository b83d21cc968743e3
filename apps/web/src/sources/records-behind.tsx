import type { SourceFigure } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { sourceRecordsQuery, type CameToWish, type SourcesWish } from '../api/queries';
import { useWords } from '../api/words';
import { Dialog } from '../components/dialog';
import { count, money } from '../components/format';
import { Failed, Loading } from '../components/status';
import { Time } from '../components/time';
import type { ShownCell } from './source-table';

const WORDS = {
  submissions: 'Submissions',
  contacts: 'New contacts',
  qualified: 'Qualified leads',
  cost: 'What campaigns cost',
} as const;
const WAYS = {
  submission: '/submissions?open=',
  contact: '/records/contacts/',
  lead: '/records/leads/',
  deal: '/records/deals/',
  campaign: '/sources/campaigns/',
} as const;

/** The records behind one figure: as many as it says, and credited with what it says. */
export function RecordsBehind({
  cell: { figure, path, name },
  wish,
  currency,
  isCredited,
  close,
}: {
  cell: ShownCell;
  wish: SourcesWish & CameToWish;
  currency: string;
  /** Whether it can be told for each record what it is credited with. */
  isCredited: boolean;
  close: () => void;
}) {
  const title = `${figureWords(figure, useWords().Many('deal'))}: ${name}`;
  const behind = useQuery(sourceRecordsQuery(wish, figure, path));
  const ofCosts = figure === 'cost';
  const ofDeals = WAYS.deal === WAYS[behind.data?.items[0]?.kind ?? 'contact'];
  return (
    <Dialog open close={close} wide title={title}>
      {behind.isPending ? (
        <Loading />
      ) : behind.isError ? (
        <Failed error={behind.error} retry={() => void behind.refetch()} />
      ) : (
        <>
          <p className="-mt-2 mb-2 text-muted">
            {count(behind.data.total)}
            {behind.data.total > behind.data.items.length && `, of which ${count(behind.data.items.length)} are listed`}
            {ofDeals && isCredited && '; credited: the part of its value'}
          </p>
          <table className="w-full border-collapse">
            <thead>
              <tr className="border-b border-line text-label text-muted">
                <th scope="col" className="py-1.5 text-left font-semibold">
                  Name
                </th>
                <th scope="col" className="px-2 py-1.5 text-right font-semibold">
                  {ofCosts ? 'Until' : 'When'}
                </th>
                {ofCosts && (
                  <th scope="col" className="py-1.5 text-right font-semibold">
                    Cost
                  </th>
                )}
                {ofDeals && (
                  <>
                    <th scope="col" className="px-2 py-1.5 text-right font-semibold max-sm:hidden">
                      Value
                    </th>
                    {isCredited && (
                      <th scope="col" className="py-1.5 text-right font-semibold">
                        Credited
                      </th>
                    )}
                  </>
                )}
              </tr>
            </thead>
            <tbody>
              {behind.data.items.map(({ kind, id, name: called, at, worth, credited }) => (
                <tr key={`${id} ${worth}`} className="h-8 border-b border-hair">
                  <td className="max-w-0 w-full truncate">
                    <Link to={`${WAYS[kind]}${id}`} className="hover:underline">
                      {called}
                    </Link>
                  </td>
                  <td className="px-2 text-right whitespace-nowrap text-muted">
                    <Time at={at} />
                  </td>
                  {ofCosts && <td className="tabular text-right whitespace-nowrap">{amountOf(worth, currency)}</td>}
                  {ofDeals && (
                    <>
                      <td className="tabular px-2 text-right whitespace-nowrap text-muted max-sm:hidden">
                        {amountOf(worth, currency)}
                      </td>
                      {isCredited && (
                        <td className="tabular text-right whitespace-nowrap">{amountOf(credited, currency)}</td>
                      )}
                    </>
                  )}
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </Dialog>
  );
}

function figureWords(figure: SourceFigure, deals: string): string {
  if (figure in WORDS) return WORDS[figure as keyof typeof WORDS];
  return `${deals} ${figure === 'deals' || figure === 'value' ? 'begun' : 'won'}`;
}

function amountOf(amount: number | null | undefined, currency: string): string {
  if (amount === 0) return '–';
  return amount === null || amount === undefined ? 'no rate' : money({ amount: Math.round(amount), currency });
}
