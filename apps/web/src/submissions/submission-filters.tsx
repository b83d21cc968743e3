import { useQuery } from '@tanstack/react-query';
import { intakeLinesQuery, routesQuery } from '../api/queries';
import { ListFilter } from '../components/list-filter';
import { PERIODS } from '../components/period';
import type { SubmissionList } from './submission-list-state';

/** What the list is narrowed to, as words in one line; each can be chosen and taken away. */
export function SubmissionFilters({ list: { filter, period, narrow } }: { list: SubmissionList }) {
  const intakes = useQuery(intakeLinesQuery);
  const routes = useQuery(routesQuery);
  return (
    <>
      <ListFilter
        label="arrived"
        any="all time"
        value={period === 'all' ? '' : period}
        options={Object.entries(PERIODS).filter(([key]) => key !== 'all')}
        choose={(value) => narrow('period', value)}
      />
      <ListFilter
        label="intake"
        any="any"
        value={filter.intake ?? ''}
        options={(intakes.data ?? []).map(({ key, name }) => [key, name])}
        choose={(value) => narrow('intake', value)}
      />
      <ListFilter
        label="route"
        any="any"
        value={filter.route ?? ''}
        options={(routes.data ?? []).map(({ id, name }) => [id, name])}
        choose={(value) => narrow('route', value)}
      />
    </>
  );
}
