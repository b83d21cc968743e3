import type { FunnelRow } from '@haycart/api';
import type { RecordCondition } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { destinationQuery, pipelinesQuery, sourceFunnelQuery } from '../../api/queries';
import { useWords } from '../../api/words';
import { ListFilter } from '../../components/list-filter';
import { PageHead, Sheet } from '../../components/sheet';
import { Empty, Failed, Loading } from '../../components/status';
import { useAddress } from '../../state/use-address';
import { channelWord } from '../channel-word';
import { PeriodFilter, useReportPeriod } from '../period-filter';
import { RecordsBehind } from '../records-behind';
import { ReportFilter } from '../report-filter';
import { useNarrowing } from '../use-narrowing';
import { AnswerSpeedTables } from './answer-speed-tables';
import { FunnelTable, type DealStatus } from './funnel-table';

/** How far the deals of each source came, where they were lost, and how fast it was answered. */
export function FunnelPage() {
  const [params, set] = useAddress();
  const words = useWords();
  const { days } = useReportPeriod();
  const narrowing = useNarrowing();
  const wish = { ...days, basis: params.get('basis') ?? undefined, ...narrowing.wish };
  const pipeline = params.get('pipeline') ?? undefined;
  const pipelines = (useQuery(pipelinesQuery).data ?? []).filter(({ record }) => record === 'deal');
  const funnel = useQuery(sourceFunnelQuery({ ...wish, pipeline }));
  const [first, ...others] = pipelines;
  const [shown, setShown] = useState<ShownDeals | null>(null);
  const currency = useQuery(destinationQuery).data?.defaultCurrency ?? 'GBP';
  return (
    <div className="h-full overflow-y-auto p-5 max-sm:p-3">
      <PageHead title="Funnel" aside={`how far the ${words.many('deal')} of each source came`}>
        <PeriodFilter />
        {first && others.length > 0 && (
          <ListFilter
            label="pipeline"
            any={first.name}
            value={pipeline ?? ''}
            options={others.map(({ key, name }) => [key, name])}
            choose={(value) => set('pipeline', value)}
          />
        )}
      </PageHead>
      <ReportFilter narrowing={narrowing} />
      {funnel.isPending ? (
        <Loading />
      ) : funnel.isError ? (
        <Failed error={funnel.error} retry={() => void funnel.refetch()} />
      ) : (
        <div className="flex flex-col gap-4">
          <Sheet className="overflow-x-auto">
            {funnel.data.total.deals ? (
              <FunnelTable
                funnel={funnel.data}
                show={(row, status) => setShown({ row, status, pipeline: funnel.data.pipeline })}
              />
            ) : (
              <Empty title={`No ${words.many('deal')} were begun in this period`}>
                Choose another period or pipeline, or take a filter away.
              </Empty>
            )}
          </Sheet>
          <AnswerSpeedTables wish={wish} />
        </div>
      )}
      {shown && (
        <RecordsBehind
          cell={{ figure: 'deals', path: pathOf(shown.row), name: nameOf(shown) }}
          wish={{ ...wish, dealFilter: JSON.stringify(dealsOf(shown, narrowing.filters.deal)) }}
          currency={currency}
          isCredited={false}
          close={() => setShown(null)}
        />
      )}
    </div>
  );
}

/** Whose deals are shown. */
interface ShownDeals {
  row: FunnelRow;
  /** Null for all of them. */
  status: DealStatus | null;
  /** Its key. */
  pipeline: string;
}

function pathOf({ channel, source }: FunnelRow) {
  return { ...(channel === null ? {} : { channel }), ...(source === null ? {} : { source }) };
}

function nameOf({ row: { channel, source }, status }: ShownDeals): string {
  const names = [channel === null ? 'all' : channelWord(channel), source, status].filter(Boolean);
  return names.join(', ');
}

/** Returns a filter for deals: the page's own filter, a pipeline, and a status if there is one. */
function dealsOf({ status, pipeline }: ShownDeals, filter: RecordCondition | undefined): RecordCondition {
  const is = (field: string, value: string): RecordCondition => ({ of: { field }, test: 'is', value });
  return { all: [...(filter ? [filter] : []), is('pipeline', pipeline), ...(status ? [is('status', status)] : [])] };
}
