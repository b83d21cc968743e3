import type { FunnelRow } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { destinationQuery, pipelinesQuery, sourceFunnelQuery, type CameToWish } from '../../api/queries';
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
import { FunnelTable } from './funnel-table';

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
                show={(row, asked, told) =>
                  setShown({ row, told, asked: { pipeline: funnel.data.pipeline, ...asked } })
                }
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
          wish={{ ...wish, ...shown.asked }}
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
  asked: CameToWish;
  /** How far they came, in words; blank for all of them. */
  told: string;
}

function pathOf({ channel, source }: FunnelRow) {
  return { ...(channel === null ? {} : { channel }), ...(source === null ? {} : { source }) };
}

function nameOf({ row: { channel, source }, told }: ShownDeals): string {
  const names = [channel === null ? 'all' : channelWord(channel), source, told].filter(Boolean);
  return names.join(', ');
}
