import type { HomeShape } from '@haycart/api';
import type { ReactNode } from 'react';
import { count, percent, seconds, shortMoney } from '../components/format';
import { Sheet } from '../components/sheet';
import { Sparkline } from '../components/sparkline';

/** The figures of the day, each with what it is compared with and a fortnight of days. */
export function DayFigures({ day }: { day: HomeShape }) {
  const { days, inPipeline, weekAgo } = day;
  const ended = day.written + day.held + day.skipped + day.failed + day.takenBack;
  const worth = (amount: number) => shortMoney({ amount, currency: inPipeline.currency });
  return (
    <Sheet className="grid grid-cols-2 sm:grid-cols-3 xl:grid-cols-5">
      <Figure
        value={count(day.arrived)}
        name="Received"
        beside={`${count(weekAgo.arrived)} a week ago`}
        bars={days.map(({ arrived }) => arrived)}
      />
      <Figure
        value={count(day.written)}
        name="Written"
        beside={
          ended
            ? `${percent(day.written / ended)}${day.usuallyWritten === null ? '' : `, usually ${percent(day.usuallyWritten)}`}`
            : 'nothing ended'
        }
        bars={days.map(({ written }) => written)}
      />
      <Figure
        value={count(day.failed)}
        name="Failed"
        beside={`${count(weekAgo.failed)} a week ago`}
        bars={days.map(({ failed }) => failed)}
        colour="text-brick"
      />
      <Figure
        value={day.median === null ? '–' : seconds(day.median)}
        name="Median to record"
        beside={day.p95 === null ? 'nothing was written' : `95th percentile ${seconds(day.p95)}`}
      />
      <Figure
        value={worth(inPipeline.now)}
        name="New in pipeline"
        beside={`${worth(inPipeline.weekAgo)} a week ago`}
        bars={days.map(({ inPipeline: amount }) => amount)}
        colour="text-slate"
      />
    </Sheet>
  );
}

function Figure({
  value,
  name,
  beside,
  bars,
  colour = 'text-green',
}: {
  value: ReactNode;
  name: string;
  beside: string;
  bars?: readonly number[];
  colour?: string;
}) {
  return (
    <section
      aria-label={name}
      className="flex min-w-0 flex-col border-t border-l border-line px-3.5 pt-2.5 pb-3 -mt-px -ml-px"
    >
      <b className="tabular font-heading text-[26px] leading-8 font-semibold">{value}</b>
      <span>{name}</span>
      <span className="text-small text-muted">{beside}</span>
      {bars && (
        <div className="mt-2">
          <Sparkline
            values={bars}
            label={`${name} on each of the last ${bars.length} days`}
            className={`h-6 w-full ${colour}`}
          />
        </div>
      )}
    </section>
  );
}
