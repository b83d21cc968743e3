import { ListFilter } from '../components/list-filter';
import { useAddress } from '../state/use-address';
import { daysOf, PERIODS, USUAL_PERIOD, type Days } from './report-period';

/** The period of a report as it stands in the address. */
export function useReportDays(): Days {
  const [params] = useAddress();
  return daysOf(params.get('period'));
}

/** Chooses the period of a report. */
export function PeriodFilter() {
  const [params, set] = useAddress();
  const inAddress = params.get('period') ?? '';
  const { from, to } = daysOf(inAddress);
  const isKnown = inAddress in PERIODS || inAddress === `${from}..${to}`;
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
