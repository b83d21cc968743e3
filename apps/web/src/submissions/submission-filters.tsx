import { useQuery } from '@tanstack/react-query';
import { intakeLinesQuery, routesQuery } from '../api/queries';
import { ListFilters } from '../components/list-filters';
import { periodFilter } from '../components/period';
import type { SubmissionList } from './submission-list-state';

/** What the list of submissions is narrowed to. */
export function SubmissionFilters({ list: { filter, period, narrow } }: { list: SubmissionList }) {
  const intakes = useQuery(intakeLinesQuery);
  const routes = useQuery(routesQuery);
  return (
    <ListFilters
      filters={[
        periodFilter('arrived', period, (value) => narrow('period', value)),
        {
          label: 'intake',
          any: 'any',
          value: filter.intake ?? '',
          options: (intakes.data ?? []).map(({ key, name }) => [key, name]),
          choose: (value) => narrow('intake', value),
        },
        {
          label: 'route',
          any: 'any',
          value: filter.route ?? '',
          options: (routes.data ?? []).map(({ id, name }) => [id, name]),
          choose: (value) => narrow('route', value),
        },
      ]}
    />
  );
}
