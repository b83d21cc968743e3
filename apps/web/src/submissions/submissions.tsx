import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { outcomesQuery, submissionsQuery } from '../api/queries';
import { ColumnsMenu } from '../components/columns-menu';
import { DataTable } from '../components/data-table';
import { count } from '../components/format';
import { PERIODS, type Period } from '../components/period';
import { usePageKeys } from '../components/list-keys';
import { PageHead } from '../components/sheet';
import { Empty, Failed, Loading } from '../components/status';
import { TakeAway, type TakeAwayFormat } from '../components/take-away';
import { OutcomeCounts } from './outcome-counts';
import { RunManyAgain } from './run-many-again';
import type { PanelSteps } from './panel-head';
import { RunPanel } from './run-panel';
import { COLUMN_CHOICES, COLUMNS_BESIDE, submissionColumns } from './submission-columns';
import { SubmissionFilters } from './submission-filters';
import { useSubmissionList } from './submission-list-state';
import { SubmissionSearch } from './submission-search';

const FORMATS: TakeAwayFormat[] = [
  { format: 'csv', name: 'CSV', about: 'of one intake, a column for each field' },
  { format: 'xlsx', name: 'XLSX', about: 'the same, numbers as numbers' },
  { format: 'jsonl', name: 'JSON Lines', about: 'all of each submission, for scripts' },
];

/** Everything that arrived: searched, narrowed and sorted; the account of what became of one stands beside the list. */
export function Submissions() {
  const state = useSubmissionList();
  const { filter, opened, open } = state;
  const list = useInfiniteQuery(submissionsQuery(filter));
  // What else there is stays in sight while one outcome is looked at.
  const outcomes = useQuery(outcomesQuery({ ...filter, outcome: undefined, sort: undefined }));
  usePageKeys({ Escape: () => open(null) });
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const clear = () => setChosen(new Set());
  const choose = (ids: readonly string[], add: boolean) =>
    setChosen((before) => new Set(add ? [...before, ...ids] : [...before].filter((id) => !ids.includes(id))));
  const asked = JSON.stringify({ ...filter, sort: undefined });
  useEffect(() => setChosen(new Set()), [asked]);
  const rows = list.data?.pages.flatMap(({ items }) => items) ?? [];
  const total = list.data?.pages[0]?.total;
  const isOpen = opened !== undefined;
  const columns = useMemo(() => submissionColumns(isOpen ? COLUMNS_BESIDE : state.columns), [isOpen, state.columns]);
  const at = rows.findIndex(({ id }) => id === opened);
  const steps: PanelSteps | null =
    at < 0 ? null : { at, of: total, to: (next) => rows[next] && (() => open(rows[next]!.id)) };
  return (
    <div className="flex h-full">
      <div className={`flex min-w-0 flex-1 flex-col overflow-y-auto p-5 ${opened ? 'max-lg:hidden' : ''}`}>
        <PageHead
          title="Submissions"
          aside={
            list.isSuccess && `${total === undefined ? 'more than 10,000' : count(total)} ${inPeriod(state.period)}`
          }
        >
          {!opened && (
            <ColumnsMenu
              columns={state.columns}
              choices={COLUMN_CHOICES}
              change={state.show}
              className="!h-8 max-md:hidden"
            />
          )}
          <TakeAway path="/submissions" wish={{ ...filter }} formats={FORMATS} className="!h-8" />
        </PageHead>
        <SubmissionSearch text={filter.q ?? ''} search={state.search} />
        <div className="mb-2.5 flex-none">
          <SubmissionFilters list={state} />
        </div>
        <div className="mb-2.5 min-h-[34px] flex-none">
          {outcomes.data && (
            <OutcomeCounts
              counts={outcomes.data}
              chosen={filter.outcome}
              choose={(outcome) => state.narrow('outcome', outcome)}
            />
          )}
        </div>
        {chosen.size > 0 && <RunManyAgain chosen={chosen} rows={rows} filter={filter} total={total} clear={clear} />}
        {list.isPending ? (
          <Loading lines={16} />
        ) : list.isError ? (
          <Failed error={list.error} retry={() => void list.refetch()} />
        ) : (
          <DataTable
            label="Submissions"
            columns={columns}
            rows={rows}
            total={total}
            nameOf={({ who, email, intake }) => `${who || email || 'unnamed'}, ${intake.name}`}
            opened={opened}
            open={({ id }) => open(id)}
            sort={{ ...state.sort, choose: state.sortBy }}
            choice={{ chosen, choose }}
            more={list.hasNextPage && !list.isFetchingNextPage ? () => void list.fetchNextPage() : undefined}
            empty={
              <Empty title={filter.q ? `Nothing was sent with “${filter.q}”` : 'No submission is like this'}>
                {filter.q
                  ? 'Words are looked for from their beginning. Try fewer of them, or take a filter away.'
                  : 'Remove a filter, or wait: what arrives shows up by itself.'}
              </Empty>
            }
          />
        )}
      </div>
      {opened && <RunPanel key={opened} id={opened} close={() => open(null)} steps={steps} />}
    </div>
  );
}

function inPeriod(period: Period): string {
  return period === 'all' ? 'in all' : `in the ${PERIODS[period]}`;
}
