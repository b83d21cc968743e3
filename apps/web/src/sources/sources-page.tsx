import type { SourcesReport } from '@haycart/api';
import { comparedDays, CREDIT_MODELS, creditedByRemoval, type Days, listInWords, type DataDriven } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { sourcesQuery } from '../api/queries';
import { useWords } from '../api/words';
import { count, shortDay } from '../components/format';
import { ListFilter } from '../components/list-filter';
import { PageHead, Sheet } from '../components/sheet';
import { Empty, Failed, Loading, messageOf } from '../components/status';
import { TakeAway, type TakeAwayFormat } from '../components/take-away';
import { useAddress } from '../state/use-address';
import { RecordsBehind } from './records-behind';
import { ReportMails } from './report-mails';
import { ReportFilter } from './report-filter';
import { PeriodFilter, useReportPeriod } from './period-filter';
import { COST_PER, perWord, type CostPer } from './source-columns';
import { SourceTable, type ShownCell } from './source-table';
import { pathOf, sourceTree } from './source-tree';
import { UnknownCauses } from './unknown-causes';
import { useDataDriven } from './use-data-driven';
import { useNarrowing } from './use-narrowing';
import { useSplits } from './use-splits';
import { WhatChanged } from './what-changed';
import { WonChart } from './won-chart';

const NO_REMOVAL = 'Credit by removal is worked out on this page alone: the mail shares it equally.';
const USUAL_MODEL = 'position';
const DATA_DRIVEN = 'data';
/** The model used for all other figures when credit goes by removal effects. */
const BESIDE = 'equal';
const MODELS: [string, string][] = [
  ...CREDIT_MODELS.map(({ key, label }): [string, string] => [key, label]),
  [DATA_DRIVEN, 'by removal'],
];
const USUAL_PER: CostPer = 'wonDeals';
const FORMATS: TakeAwayFormat[] = [
  { format: 'csv', name: 'CSV', about: 'each campaign a line; amounts add up to all' },
  { format: 'xlsx', name: 'XLSX', about: 'the same as a workbook' },
];
const BASES: [string, string][] = [
  ['deal', 'the deal alone'],
  ['company', 'the whole company'],
];
const WINDOWS = [30, 90, 365].map((days): [string, string] => [String(days), days === 365 ? 'a year' : `${days} days`]);
const DEPTHS: [string, string][] = [['channel,source,campaign,page', 'pages']];
const USUAL_HALF_LIFE: [string, string] = ['7', '7 days'];
const HALF_LIVES = [14, 30, 90].map((days): [string, string] => [String(days), `${days} days`]);

/** Fewer changes are counted in within a moment, and nothing is said of them. */
const MANY_WAIT = 200;
/** More are not counted. */
const MOST_WAITING = 1_000;

/** Where business came from, by what somebody came by before. */
export function SourcesPage() {
  const [params, set] = useAddress();
  const { days, asked: period } = useReportPeriod();
  const against = params.get('against') === 'year' ? 'year' : 'before';
  const credit = MODELS.find(([key]) => key === params.get('credit'))?.[0] ?? USUAL_MODEL;
  const isDataDriven = credit === DATA_DRIVEN;
  const chosen = (name: string, options: readonly (readonly [string, string])[]) =>
    options.find(([key]) => key === params.get(name))?.[0];
  const how = {
    credit: isDataDriven ? BESIDE : credit,
    basis: chosen('basis', BASES),
    window: chosen('window', WINDOWS),
    halfLife: credit === 'decay' ? chosen('halfLife', HALF_LIVES) : undefined,
  };
  const narrowing = useNarrowing();
  const { splits, split: asSaid } = useSplits(params.get('split'));
  // What is lost without a channel is of channels alone.
  const split = isDataDriven ? undefined : asSaid;
  const by = isDataDriven ? undefined : chosen('by', DEPTHS);
  const asked = { ...how, ...narrowing.wish, split, by };
  const wish = { ...days, ...asked };
  const report = useQuery(sourcesQuery(wish));
  const before = useQuery(sourcesQuery({ ...comparedDays(days, against), ...asked }));
  const removal = useDataDriven(wish, isDataDriven);
  const dealWord = useWords().one('deal');
  const per = COST_PER.find((one) => one === params.get('per')) ?? USUAL_PER;
  const [cell, setCell] = useState<ShownCell | null>(null);
  if (report.isPending) return <Loading />;
  // With the filter, which may be what is wrong.
  if (report.isError)
    return (
      <div className="h-full overflow-y-auto p-5 max-sm:p-3">
        <ReportFilter narrowing={narrowing} />
        <Failed error={report.error} retry={() => void report.refetch()} />
      </div>
    );
  const { total, withoutRate, costsWithoutRate, currency, model, figures, waiting } = report.data;
  const isNarrowed = Object.values(narrowing.wish).some((part) => part !== undefined);
  const filter = (label: string, name: string, any: string, options: readonly (readonly [string, string])[]) => (
    <ListFilter
      label={label}
      any={any}
      value={chosen(name, options) ?? ''}
      options={options}
      choose={(value) => set(name, value)}
    />
  );
  return (
    <div className="h-full overflow-y-auto p-5 max-sm:p-3">
      <PageHead title="Sources" aside={inWords(days)}>
        {filter(
          'credit',
          'credit',
          MODELS.find(([key]) => key === USUAL_MODEL)![1],
          MODELS.filter(([key]) => key !== USUAL_MODEL),
        )}
        <PeriodFilter />
        {filter('against', 'against', 'the period before', [['year', 'a year before']])}
        <ReportMails query={{ ...period, ...asked }} note={isDataDriven ? NO_REMOVAL : null} />
        <TakeAway path="/reports/sources" wish={wish} formats={FORMATS} />
      </PageHead>
      <ReportFilter narrowing={narrowing} />
      {waiting >= MANY_WAIT && (
        <p role="status" className="mb-4 rounded bg-straw-soft px-3.5 py-2">
          {waiting >= MOST_WAITING ? 'More than ' : ''}
          {count(waiting)} changes of records are still being counted in. Until then the figures are too low.
        </p>
      )}
      {total.submissions + total.deals + total.wonDeals + total.contacts + total.cost === 0 ? (
        <Sheet>
          {isNarrowed ? (
            <Empty title="Nothing fits">Take a filter away, or choose another period.</Empty>
          ) : (
            <Empty title="Nothing came in this period">
              Choose another period, or look at what arrives at an intake.
            </Empty>
          )}
        </Sheet>
      ) : (
        <div className="flex flex-col gap-4">
          <div className="flex items-stretch gap-4 max-lg:flex-col">
            <div className="min-w-0 flex-1">
              <WonChart months={report.data.months} currency={currency} />
            </div>
            {before.data && !isDataDriven && <WhatChanged report={report.data} before={before.data} />}
          </div>
          <SourceTable
            report={report.data}
            lines={sourceTree(
              isDataDriven ? byRemoval(report.data, removal.result) : report.data,
              isDataDriven ? undefined : before.data,
            )}
            shares={isDataDriven ? removal.result?.shares : undefined}
            dealWord={dealWord}
            per={per}
            show={setCell}
          >
            {!isDataDriven && filter('rows by', 'split', 'channel', splits)}
            {!isDataDriven && filter('down to', 'by', 'campaigns', DEPTHS)}
            {credit === 'decay' && filter('half after', 'halfLife', USUAL_HALF_LIFE[1], HALF_LIVES)}
            {filter('touches of', 'basis', 'the contact', BASES)}
            {total.cost > 0 &&
              filter(
                'cost of a',
                'per',
                perWord(USUAL_PER, dealWord),
                COST_PER.filter((one) => one !== USUAL_PER).map((one) => [one, perWord(one, dealWord)]),
              )}
            {filter('within', 'window', 'any time', WINDOWS)}
          </SourceTable>
          <p className="text-small text-muted">
            {isDataDriven ? <RemovalWords {...removal} /> : model} Touches count until the {dealWord} is closed. Counts
            are of records: one that several sources led to counts once in each, so rows may add up to more than all.
            {!figures.includes('cost') && ' Costs are of whole campaigns, and so are left out here.'}
            {withoutRate.map(({ currency: without, deals }) => (
              <span key={without}>
                {' '}
                {deals} in {without} had no rate on their day and are in no amount.
              </span>
            ))}
            {costsWithoutRate.length > 0 && (
              <span> Costs in {listInWords(costsWithoutRate)} had no rate on their day and are in none.</span>
            )}
          </p>
          <UnknownCauses wish={{ ...days, ...narrowing.wish }} />
        </div>
      )}
      {cell && (
        <RecordsBehind
          isCredited={!isDataDriven}
          cell={cell}
          wish={wish}
          currency={currency}
          close={() => setCell(null)}
        />
      )}
    </div>
  );
}

/** A report with channels credited by removal effects, once those are worked out. */
function byRemoval(report: SourcesReport, result: DataDriven | null): SourcesReport {
  if (!result) return report;
  const rows = creditedByRemoval([...report.groups, ...report.rows], pathOf, result.shares);
  return { ...report, groups: rows.slice(0, report.groups.length), rows: rows.slice(report.groups.length) };
}

/** Explains the shares, shows progress, and warns when the data are too thin. */
function RemovalWords({ result, percent, error, more }: ReturnType<typeof useDataDriven>) {
  if (error) return <span className="text-brick">{messageOf(error)}</span>;
  if (!result) return <span role="status">Working out what would be lost without each channel: {percent} %.</span>;
  return (
    <>
      Each channel is credited with what would be lost without it, as past journeys went; beside it stands between what
      nine of ten draws of other journeys lie.{' '}
      {result.tooThin && <b className="font-semibold text-ink">{result.tooThin} Take it for a hint. </b>}
      {more > 0 && `${count(more)} journeys with rare paths are not included. `}
      Within a channel it is shared equally, and so are the months above.
    </>
  );
}

function inWords({ from, to }: Days): string {
  const year = (day: string) => (from.slice(0, 4) === to.slice(0, 4) ? '' : ` ${day.slice(0, 4)}`);
  return `${shortDay(from)}${year(from)} to ${shortDay(to)} ${to.slice(0, 4)}`;
}
