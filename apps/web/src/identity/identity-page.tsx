import type { RecordKind } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { identityQuery } from '../api/queries';
import { useWords } from '../api/words';
import { PageHead } from '../components/sheet';
import { Failed, Loading } from '../components/status';
import { useAddress } from '../state/use-address';
import { CalibrationCard, MergesCard, RulesCard, WeeksCard } from './report-cards';
import { RecognitionSettings } from './recognition-settings';
import { ScanCard } from './scan-card';
import { ThresholdsCard } from './thresholds-card';

const KINDS: readonly RecordKind[] = ['contact', 'company', 'lead'];

/** Recognition, watched: what may be the same, by what people were recognised, and how right the score is. */
export function IdentityPage() {
  const words = useWords();
  const [params, , change] = useAddress();
  const kind = KINDS.find((one) => one === params.get('kind')) ?? 'contact';
  const report = useQuery(identityQuery(kind));
  if (report.isPending) return <Loading />;
  if (report.isError) return <Failed error={report.error} retry={() => void report.refetch()} />;
  const { data } = report;
  return (
    <div className="h-full overflow-y-auto p-5">
      <PageHead title="Recognition" aside={`${words.many(kind)}: who is known, and who may be the same`}>
        <div role="group" aria-label="Kind of record" className="flex">
          {KINDS.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={one === kind}
              onClick={() => change((next) => next.set('kind', one), false)}
              className={`h-8 border px-3 font-semibold first:rounded-l last:rounded-r ${one === kind ? 'border-ink bg-straw-soft' : 'border-line text-muted hover:text-ink'}`}
            >
              {words.Many(one)}
            </button>
          ))}
        </div>
      </PageHead>
      <div className="grid items-start gap-5 lg:grid-cols-[minmax(0,6fr)_minmax(0,5fr)]">
        <div className="flex min-w-0 flex-col gap-5">
          <ScanCard report={data} />
          <ThresholdsCard
            key={`${kind} ${data.settings.thresholds.accept} ${data.settings.thresholds.ask}`}
            report={data}
          />
          <MergesCard suspected={data.suspected} merges={data.merges} kind={kind} />
        </div>
        <div className="flex min-w-0 flex-col gap-5">
          <RulesCard rules={data.rules} asked={data.asked} />
          <WeeksCard weeks={data.weeks} />
          <CalibrationCard calibration={data.calibration} />
          <RecognitionSettings report={data} />
        </div>
      </div>
    </div>
  );
}
