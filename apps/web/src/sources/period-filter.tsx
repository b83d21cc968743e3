import { daysOf, REPORT_PERIODS as PERIODS, USUAL_PERIOD, type Days } from '@haycart/core';
import { ListFilter } from '../components/list-filter';
import { useAddress } from '../state/use-address';

/** The period of a report as it stands in the address: its days today, and what the server is asked for another day. */
export function useReportPeriod(): { days: Days; asked: { period: string } | Days } {
  const [params] = useAddress();
  const named = params.get('period') ?? '';
  const days = daysOf(named, Date.now());
  if (named === `${days.from}..${days.to}`) return { days, asked: days };
  return { days, asked: { period: Object.hasOwn(PERIODS, named) ? named : USUAL_PERIOD } };
}

/** Chooses the period of a report. */
export function PeriodFilter() {
  const [params, set] = useAddress();
  const inAddress = params.get('period') ?? '';
  const { from, to } = daysOf(inAddress, Date.now());
  const isKnown = Object.hasOwn(PERIODS, inAddress) || inAddress === `${from}..${to}`;
  return (
    <ListFilter
      label="period"
      any={PERIODS[USUAL_PERIOD]!}
      value={isKnown ? inAddress : ''}
      options={Object.entries(PERIODS).filter(([key]) => key !== USUAL_PERIOD)}
      choose={(value) => set('period', value)}
    />
  );
}
