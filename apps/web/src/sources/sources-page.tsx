import { CREDIT_MODELS } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { destinationQuery, sourcesQuery } from '../api/queries';
import { shortDay } from '../components/format';
import { ListFilter } from '../components/list-filter';
import { PageHead, Sheet } from '../components/sheet';
import { Empty, Failed, Loading } from '../components/status';
import { TakeAway, type TakeAwayFormat } from '../components/take-away';
import { useAddress } from '../state/use-address';
import { RecordsBehind } from './records-behind';
import { comparedDays, daysOf, PERIODS, USUAL_PERIOD, type Days } from './report-period';
import { SourceTable, type ShownCell } from './source-table';
import { sourceTree } from './source-tree';
import { WonChart } from './won-chart';

const USUAL_MODEL = 'position';
const FORMATS: TakeAwayFormat[] = [
  { format: 'csv', name: 'CSV', about: 'each campaign a line; amounts add up to all' },
  { format: 'xlsx', name: 'XLSX', about: 'the same as a workbook' },
];
const BASES: [string, string][] = [
  ['deal', 'the deal alone'],
  ['company', 'the whole company'],
];
const WINDOWS: [string, string][] = [
  ['30', '30 days'],
  ['90', '90 days'],
  ['365', 'a year'],
];
const HALF_LIVES: [string, string][] = [
  ['14', '14 days'],
  ['30', '30 days'],
  ['90', '90 days'],
];

/** Where business came from, by what somebody came by before. */
export function SourcesPage() {
  const [params, set] = useAddress();
  const inAddress = params.get('period') ?? '';
  const days = daysOf(inAddress);
  const isBetween = inAddress === `${days.from}..${days.to}`;
  const against = params.get('against') === 'year' ? 'year' : 'before';
  const credit = CREDIT_MODELS.find(({ key }) => key === params.get('credit'))?.key ?? USUAL_MODEL;
  const chosen = (name: string, options: readonly (readonly [string, string])[]) =>
    options.find(([key]) => key === params.get(name))?.[0];
  const how = {
    credit,
    basis: chosen('basis', BASES),
    window: chosen('window', WINDOWS),
    halfLife: credit === 'decay' ? chosen('halfLife', HALF_LIVES) : undefined,
  };
  const wish = { ...days, ...how };
  const report = useQuery(sourcesQuery(wish));
  const before = useQuery(sourcesQuery({ ...comparedDays(days, against), ...how }));
  const dealWord = useQuery(destinationQuery).data?.dealWord ?? 'deal';
  const [cell, setCell] = useState<ShownCell | null>(null);
  if (report.isPending) return <Loading />;
  if (report.isError) return <Failed error={report.error} retry={() => void report.refetch()} />;
  const { total, withoutRate, currency, model } = report.data;
  const filter = (label: string, name: string, any: string, options: readonly (readonly [string, string])[]) => (
    <ListFilter
      label={label}
      any={any}
      value={chosen(name, options) ?? (name === 'period' && isBetween ? inAddress : '')}
      options={options}
      choose={(value) => set(name, value)}
    />
  );
  return (
    <div className="h-full overflow-y-auto p-5 max-sm:p-3">
      <PageHead title="Sources" aside={`what brought business from ${inWords(days)}`}>
        {filter(
          'credit',
          'credit',
          CREDIT_MODELS.find(({ key }) => key === USUAL_MODEL)!.label,
          CREDIT_MODELS.filter(({ key }) => key !== USUAL_MODEL).map(({ key, label }) => [key, label]),
        )}
        {filter(
          'period',
          'period',
          PERIODS[USUAL_PERIOD]!,
          Object.entries(PERIODS).filter(([key]) => key !== USUAL_PERIOD),
        )}
        {filter('against', 'against', 'the period before', [['year', 'a year before']])}
        <TakeAway path="/reports/sources" wish={wish} formats={FORMATS} />
      </PageHead>
      {total.submissions + total.deals + total.wonDeals + total.contacts === 0 ? (
        <Sheet>
          <Empty title="Nothing came in this period">
            Choose another period, or look at what arrives at an intake.
          </Empty>
        </Sheet>
      ) : (
        <div className="flex flex-col gap-4">
          <WonChart months={report.data.months} currency={currency} />
          <SourceTable
            report={report.data}
            lines={sourceTree(report.data, before.data)}
            dealWord={dealWord}
            show={setCell}
          >
            {credit === 'decay' && filter('half after', 'halfLife', '7 days', HALF_LIVES)}
            {filter('touches of', 'basis', 'the contact', BASES)}
            {filter('within', 'window', 'any time', WINDOWS)}
          </SourceTable>
          <p className="text-small text-muted">
            {model} Touches count until the {dealWord} is closed. Counts are of records: one that several sources led to
            counts once in each, so rows may add up to more than all.
            {withoutRate.map(({ currency: without, deals }) => (
              <span key={without}>
                {' '}
                {deals} in {without} had no rate on their day and are in no amount.
              </span>
            ))}
          </p>
        </div>
      )}
      {cell && <RecordsBehind cell={cell} wish={wish} currency={currency} close={() => setCell(null)} />}
    </div>
  );
}

function inWords({ from, to }: Days): string {
  const year = (day: string) => (from.slice(0, 4) === to.slice(0, 4) ? '' : ` ${day.slice(0, 4)}`);
  return `${shortDay(from)}${year(from)} to ${shortDay(to)} ${to.slice(0, 4)}`;
}
