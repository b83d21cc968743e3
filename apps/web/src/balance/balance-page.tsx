import type { BalanceLine } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { balanceQuery } from '../api/queries';
import { count } from '../components/format';
import { ListFilter } from '../components/list-filter';
import { PageHead, Sheet } from '../components/sheet';
import { StateShape } from '../components/state-shape';
import { Empty, Failed, Loading } from '../components/status';
import { TakeAway, type TakeAwayFormat } from '../components/take-away';
import { useAddress } from '../state/use-address';
import { balanceWords, signOf, type BalanceSign } from '../components/balance-sign';
import { Head, Heads } from '../components/heads';

const DAYS: [string, string][] = [
  ['1', 'today'],
  ['30', 'the last 30 days'],
  ['90', 'the last 90 days'],
];
const USUAL = 14;
const FORMATS: TakeAwayFormat[] = [
  { format: 'csv', name: 'CSV', about: 'each intake and day a line' },
  { format: 'xlsx', name: 'XLSX', about: 'the same as a workbook' },
];
const DAY = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' });

type Counted = Exclude<keyof BalanceLine, 'intake' | 'name' | 'day' | 'off'>;
const COLUMNS: readonly [Counted, string, string?][] = [
  ['acknowledged', 'Acknowledged'],
  ['written', 'Written', 'max-sm:hidden'],
  ['held', 'Held', 'max-md:hidden'],
  ['skipped', 'Skipped', 'max-md:hidden'],
  ['failed', 'Failed', 'max-md:hidden'],
  ['takenBack', 'Taken back', 'max-lg:hidden'],
  ['unrouted', 'No route', 'max-lg:hidden'],
  ['waiting', 'Waiting', 'max-lg:hidden'],
  ['setAside', 'Set aside', 'max-lg:hidden'],
  ['cancelled', 'Cancelled', 'max-lg:hidden'],
];
const SHAPES = { even: 'written', more: 'skipped', off: 'failed' } as const satisfies Record<BalanceSign, string>;

/** Proof that nothing is lost: what senders were told was kept, beside what became of it. */
export function BalancePage() {
  const [params, set] = useAddress();
  const asked = params.get('days');
  const days = DAYS.some(([key]) => key === asked) ? Number(asked) : USUAL;
  const balance = useQuery(balanceQuery(days));
  if (balance.isPending) return <Loading />;
  if (balance.isError) return <Failed error={balance.error} retry={() => void balance.refetch()} />;
  const { lines, off } = balance.data;
  return (
    <div className="h-full overflow-y-auto p-5 max-sm:p-3">
      <PageHead
        title="Balance"
        aside={
          <span className="flex items-center gap-2">
            <StateShape state={off ? 'failed' : 'written'} />
            {balanceWords(balance.data)}
          </span>
        }
      >
        <ListFilter
          label="days"
          any={`the last ${USUAL}`}
          value={days === USUAL ? '' : String(days)}
          options={DAYS}
          choose={(value) => set('days', value)}
        />
        <TakeAway path="/reports/balance" wish={{ days: String(days) }} formats={FORMATS} />
      </PageHead>
      <Sheet>
        {lines.length === 0 ? (
          <Empty title="Nothing arrived in these days">What arrives is counted here twice, and compared.</Empty>
        ) : (
          <table className="w-full border-collapse" aria-label="Balance by intake and day">
            <Heads>
              <Head>Day, intake</Head>
              {COLUMNS.map(([key, head, look = '']) => (
                <Head key={key} end look={look}>
                  {head}
                </Head>
              ))}
              <Head look="whitespace-nowrap">Adds up</Head>
            </Heads>
            <tbody>
              {lines.map((line, index) => (
                <Line key={`${line.day} ${line.intake}`} line={line} isFirst={lines[index - 1]?.day !== line.day} />
              ))}
            </tbody>
          </table>
        )}
      </Sheet>
      <p className="mt-3 text-small text-muted">
        Acknowledged is counted by whoever told the sender, and from no submission; the rest from the submissions and
        their runs. Days are in UTC.
      </p>
    </div>
  );
}

function Line({ line, isFirst }: { line: BalanceLine; isFirst: boolean }) {
  const sign = signOf(line);
  return (
    <tr className={`h-9 ${isFirst ? 'border-t border-line first:border-t-0' : 'border-t border-hair'}`}>
      <th scope="row" className="w-full max-w-0 truncate px-3.5 text-left font-normal">
        <span className="inline-block w-24 text-muted max-sm:block max-sm:w-auto max-sm:text-small max-sm:empty:hidden">
          {isFirst ? DAY.format(new Date(line.day)) : ''}
        </span>
        <Link to={`/submissions?intake=${line.intake}`} className="hover:underline max-sm:block max-sm:truncate">
          {line.name}
        </Link>
      </th>
      {COLUMNS.map(([key, , look = '']) => (
        <td
          key={key}
          className={`tabular px-2 text-right ${line[key] ? (key === 'acknowledged' ? 'font-semibold' : '') : 'text-faint'} ${look}`}
        >
          {count(line[key])}
        </td>
      ))}
      <td className="px-3.5">
        <span className="flex items-center gap-x-2 sm:flex-wrap">
          <StateShape state={SHAPES[sign.kind]} /> {sign.words}
          {line.off.map((id) => (
            <Link key={id} to={`/submissions?open=${id}`} className="font-mono text-[12.5px] text-slate underline">
              {id.slice(0, 8)}
            </Link>
          ))}
        </span>
      </td>
    </tr>
  );
}
