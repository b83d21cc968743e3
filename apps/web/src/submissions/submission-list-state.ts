import { readSort, writeSort, type ListSort, type ListView } from '@haycart/core';
import { useMemo } from 'react';
import type { SubmissionFilter } from '../api/queries';
import { periodIn, sinceOf } from '../components/period';
import { setPart, useAddress } from '../state/use-address';
import { FIRST_COLUMNS } from './submission-columns';

const LATEST: ListSort = { field: 'received', down: true };

/** How the list of submissions is looked at; all of it stands in the address. */
export function useSubmissionList() {
  const [params, , change] = useAddress();
  const period = periodIn(params.get('period'));
  const since = useMemo(() => sinceOf(period), [period]);
  const sort = params.get('sort') ? readSort(params.get('sort')!) : LATEST;
  const shown = params.get('columns');
  const columns = useMemo(
    (): ListView['columns'] => (shown?.split(',') ?? FIRST_COLUMNS).map((field) => ({ field })),
    [shown],
  );
  const filter: SubmissionFilter = {
    intake: params.get('intake') ?? undefined,
    outcome: params.get('outcome') ?? undefined,
    route: params.get('route') ?? undefined,
    q: params.get('q') || undefined,
    since,
    sort: params.get('sort') ?? undefined,
  };
  const opened = params.get('open') ?? undefined;
  const put = (changes: Record<string, string | null>, replace: boolean) =>
    change((next) => {
      for (const [name, value] of Object.entries(changes)) setPart(next, name, value);
    }, replace);
  return {
    filter,
    period,
    sort,
    columns,
    opened,
    open: (id: string | null) => put({ open: id }, opened !== undefined),
    /** Another filter: what was open may not be among what is left. */
    narrow: (name: 'intake' | 'outcome' | 'route' | 'period', value: string | null) =>
      put({ [name]: value, open: null }, false),
    search: (text: string) => put({ q: text.trim() || null, open: null }, true),
    sortBy: (field: string) =>
      put(
        { sort: writeSort({ field, down: sort.field === field ? !sort.down : field === LATEST.field }), open: null },
        true,
      ),
    show: (next: ListView['columns']) => put({ columns: next.map(({ field }) => field).join(',') }, true),
  };
}

export type SubmissionList = ReturnType<typeof useSubmissionList>;
