import type { SourceCohort } from '@haycart/api';
import { USUAL_CHANNELS } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { cohortsQuery, destinationQuery } from '../api/queries';
import { count, money, percent } from '../components/format';
import { ListFilter } from '../components/list-filter';
import { PageHead, Sheet } from '../components/sheet';
import { Empty, Failed, Loading } from '../components/status';
import { Head, Heads } from '../components/heads';
import { useAddress } from '../state/use-address';
import { channelWord } from './channel-word';
import { ReportFilter } from './report-filter';
import { useNarrowing } from './use-narrowing';

const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' });
const BASES: [string, string][] = [
  ['deal', 'the deal alone'],
  ['company', 'the whole company'],
];
/** The months after the first touch that have a column; 0 is the first month. */
const AFTER = [0, 1, 2, 3, 6, 11];

/** What became of deals by the month of their first touch. */
export function CohortsPage() {
  const [params, set] = useAddress();
  const narrowing = useNarrowing();
  const basis = params.get('basis') ?? undefined;
  const wish = { basis, channel: params.get('channel') ?? undefined, ...narrowing.wish };
  const cohorts = useQuery(cohortsQuery(wish));
  const currency = useQuery(destinationQuery).data?.defaultCurrency ?? 'GBP';
  if (cohorts.isPending) return <Loading />;
  // With the filter, which may be what is wrong.
  if (cohorts.isError)
    return (
      <div className="h-full overflow-y-auto p-5 max-sm:p-3">
        <ReportFilter narrowing={narrowing} />
        <Failed error={cohorts.error} retry={() => void cohorts.refetch()} />
      </div>
    );
  return (
    <div className="h-full overflow-y-auto p-5 max-sm:p-3">
      <PageHead title="Month by month" aside="what became of the deals of those who first came by in a month">
        <ListFilter
          label="first by"
          any="any channel"
          value={wish.channel ?? ''}
          options={USUAL_CHANNELS.map((channel) => [channel, channelWord(channel)])}
          choose={(value) => set('channel', value)}
        />
        <ListFilter
          label="touches of"
          any="the contact"
          value={wish.basis ?? ''}
          options={BASES}
          choose={(value) => set('basis', value)}
        />
      </PageHead>
      <ReportFilter narrowing={narrowing} />
      <Sheet className="overflow-x-auto">
        {cohorts.data.length ? (
          <table className="w-full border-collapse" aria-label="Deals by the month of the first touch">
            <Heads>
              <Head>First came by</Head>
              <Head end>Deals</Head>
              <Head end>Open</Head>
              <Head end>Lost</Head>
              <Head end>Won</Head>
              {AFTER.map((months) => (
                <Head end key={months}>
                  {months === 0 ? 'Won in a month' : months === 11 ? 'in a year' : `in ${months + 1} months`}
                </Head>
              ))}
              <Head end>Days to won</Head>
              <Head end>Won value</Head>
            </Heads>
            <tbody>
              {cohorts.data.map((cohort) => (
                <Cohort key={cohort.month} cohort={cohort} currency={currency} />
              ))}
            </tbody>
          </table>
        ) : (
          <Empty title="No deals yet">Deals are listed here by the month of their first touch.</Empty>
        )}
      </Sheet>
      <p className="mt-3 text-small text-muted">
        Shares are of the deals of the month; what is still to come is left blank. Days are those in the middle.
      </p>
    </div>
  );
}

function Cohort({ cohort, currency }: { cohort: SourceCohort; currency: string }) {
  const { month, deals, won, lost, worth, wonWithin, daysToWon } = cohort;
  const cell = 'tabular px-2 text-right whitespace-nowrap last:pr-3.5';
  return (
    <tr className="h-9 border-b border-hair last:border-0">
      <th scope="row" className="px-3.5 text-left font-semibold whitespace-nowrap">
        {MONTH.format(new Date(`${month}-01T00:00:00Z`))}
      </th>
      <td className={cell}>{count(deals)}</td>
      <td className={cell}>{count(deals - won - lost)}</td>
      <td className={cell}>{count(lost)}</td>
      <td className={cell}>{count(won)}</td>
      {AFTER.map((months) => {
        const share = wonWithin[months] === undefined ? null : wonWithin[months] / deals;
        return (
          <td key={months} className={cell}>
            {share === null ? '' : share === 0 ? <span className="text-faint">0</span> : percent(share)}
          </td>
        );
      })}
      <td className={cell}>{daysToWon === null ? <span className="text-faint">–</span> : count(daysToWon)}</td>
      <td className={cell}>{worth ? money({ amount: worth, currency }) : <span className="text-faint">–</span>}</td>
    </tr>
  );
}
