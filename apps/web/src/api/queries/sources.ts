import type { SourceFigure, SourceRecords, SourcesReport } from '@haycart/api';
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { get, query } from '../client';

/** What a report is asked for; the server's usual where nothing is said. */
export interface SourcesWish {
  /** ISO 8601 days, both of them in it. */
  from: string;
  to: string;
  credit?: string | undefined;
  basis?: string | undefined;
  window?: string | undefined;
  halfLife?: string | undefined;
}
/** Where business came from in a period, down to campaigns. */
export const sourcesQuery = (wish: SourcesWish) =>
  queryOptions({
    queryKey: ['sources', 'report', wish],
    queryFn: get<SourcesReport>(`/reports/sources${query({ ...wish, by: 'channel,source,campaign' })}`),
    placeholderData: keepPreviousData,
  });
/** The records behind one figure of one row. */
export const sourceRecordsQuery = (
  wish: SourcesWish,
  figure: SourceFigure,
  path: Partial<Record<'channel' | 'source' | 'campaign', string>>,
) =>
  queryOptions({
    queryKey: ['sources', 'records', wish, figure, path],
    queryFn: get<SourceRecords>(`/reports/sources/records${recordsQuery(wish, figure, path)}`),
  });

/** A blank part is asked for too: it means what nothing is known of. */
function recordsQuery(wish: SourcesWish, figure: SourceFigure, path: object): string {
  const wished = Object.entries(wish).filter(([, value]) => value !== undefined) as [string, string][];
  const asked = Object.entries(path) as [string, string][];
  return `?${String(new URLSearchParams([...wished, ['figure', figure], ...asked]))}`;
}
