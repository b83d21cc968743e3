import type { SourceFigure } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { sourceRecordsQuery, type SourcesWish } from '../api/queries';
import { Dialog } from '../components/dialog';
import { count, money } from '../components/format';
import { Failed, Loading } from '../components/status';
import { Time } from '../components/time';
import type { ShownCell } from './source-table';

const WORDS: Record<SourceFigure, string> = {
  submissions: 'Submissions',
  contacts: 'New contacts',
  qualified: 'Qualified leads',
  deals: 'Deals begun',
  value: 'Deals begun',
  wonDeals: 'Deals won',
  won: 'Deals won',
};
const WAYS = {
  submission: '/submissions?open=',
  contact: '/records/contacts/',
  lead: '/records/leads/',
  deal: '/records/deals/',
} as const;

/** The records behind one figure: as many as it says, and credited with what it says. */
export function RecordsBehind({
  cell: { figure, path, name },
  wish,
  currency,
  close,
}: {
  cell: ShownCell;
  wish: SourcesWish;
  currency: string;
  close: () => void;
}) {
  const behind = useQuery(sourceRecordsQuery(wish, figure, path));
  const ofDeals = WAYS.deal === WAYS[behind.data?.items[0]?.kind ?? 'contact'];
  return (
    <Dialog open close={close} wide title={`${WORDS[figure]}: ${name}`}>
      {behind.isPending ? (
        <Loading />
      ) : behind.isError ? (
        <Failed error={behind.error} retry={() => void behind.refetch()} />
      ) : (
        <>
          <p className="-mt-2 mb-2 text-muted">
            {count(behind.data.total)}
            {behind.data.total > behind.data.items.length && `, of which ${count(behind.data.items.length)} are listed`}
            {ofDeals && '; what each is credited with is its part of what it is worth'}
          </p>
          <table className="w-full border-collapse">
            <thead>
              <tr className="border-b border-line text-label text-muted">
                <th scope="col" className="py-1.5 text-left font-semibold">
                  Name
                </th>
                <th scope="col" className="px-2 py-1.5 text-right font-semibold">
                  When
                </th>
                {ofDeals && (
                  <>
                    <th scope="col" className="px-2 py-1.5 text-right font-semibold max-sm:hidden">
                      Worth
                    </th>
                    <th scope="col" className="py-1.5 text-right font-semibold">
                      Credited
                    </th>
                  </>
                )}
              </tr>
            </thead>
            <tbody>
              {behind.data.items.map(({ kind, id, name: called, at, worth, credited }) => (
                <tr key={id} className="h-8 border-b border-hair">
                  <td className="max-w-0 w-full truncate">
                    <Link to={`${WAYS[kind]}${id}`} className="hover:underline">
                      {called}
                    </Link>
                  </td>
                  <td className="px-2 text-right whitespace-nowrap text-muted">
                    <Time at={at} />
                  </td>
                  {ofDeals && (
                    <>
                      <td className="tabular px-2 text-right whitespace-nowrap text-muted max-sm:hidden">
                        {amountOf(worth, currency)}
                      </td>
                      <td className="tabular text-right whitespace-nowrap">{amountOf(credited, currency)}</td>
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

function amountOf(amount: number | null | undefined, currency: string): string {
  if (amount === 0) return '–';
  return amount === null || amount === undefined ? 'no rate' : money({ amount: Math.round(amount), currency });
}
