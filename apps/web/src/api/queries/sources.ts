import type {
  AnswerSpeed,
  ChannelRulesShape,
  JourneyPaths,
  ReportMail,
  SourceChange,
  SourceCohort,
  SourceFigure,
  SourceFunnel,
  SourceMoves,
  SourceRecords,
  SourcesReport,
  UnknownSources,
} from '@haycart/api';
import type { ChannelRules } from '@haycart/core';
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { call, get, query } from '../client';

/** What reports are narrowed to: the key of an intake, and conditions as JSON. */
export interface SourcesNarrowing {
  intake?: string | undefined;
  dealFilter?: string | undefined;
  contactFilter?: string | undefined;
  companyFilter?: string | undefined;
}
/** What a report is asked for; the server's usual where nothing is said. */
export interface SourcesWish extends SourcesNarrowing {
  /** ISO 8601 days, both of them in it. */
  from: string;
  to: string;
  credit?: string | undefined;
  basis?: string | undefined;
  window?: string | undefined;
  halfLife?: string | undefined;
  /** What the first rows go by instead of the channel: `intake`, or `deal.pipeline`. */
  split?: string | undefined;
  /** What rows go by, from the outside in, such as `channel,source`; down to campaigns when not said. */
  by?: string | undefined;
}
/** Where business came from in a period. */
export const sourcesQuery = ({ by = 'channel,source,campaign', ...wish }: SourcesWish) =>
  queryOptions({
    queryKey: ['sources', 'report', by, wish],
    queryFn: get<SourcesReport>(`/reports/sources${query({ ...wish, by })}`),
    placeholderData: keepPreviousData,
  });
/** Deals of a pipeline by how far they came: those that reached a stage, or were lost at it. */
export interface CameToWish {
  pipeline?: string;
  stage?: string;
  status?: 'open' | 'won' | 'lost';
}
/** The records behind one figure of one row. */
export const sourceRecordsQuery = (
  wish: SourcesWish & CameToWish,
  figure: SourceFigure,
  path: Partial<Record<'splitValue' | 'channel' | 'source' | 'campaign', string>>,
) =>
  queryOptions({
    queryKey: ['sources', 'records', wish, figure, path],
    queryFn: get<SourceRecords>(`/reports/sources/records${recordsQuery(wish, figure, path)}`),
  });

/** Ways that journeys went, for the data-driven model. */
export const journeyPathsQuery = ({ credit: _, halfLife: __, split: ___, ...wish }: SourcesWish) =>
  queryOptions({
    queryKey: ['sources', 'paths', wish],
    queryFn: get<JourneyPaths>(`/reports/sources/paths${query({ ...wish })}`),
  });
/** What became of the deals of each month. */
export const cohortsQuery = (wish: SourcesNarrowing & { basis?: string | undefined; channel?: string | undefined }) =>
  queryOptions({
    queryKey: ['sources', 'cohorts', wish],
    queryFn: get<SourceCohort[]>(`/reports/sources/cohorts${query({ ...wish })}`),
    placeholderData: keepPreviousData,
  });
/** How far the deals of each source came in a pipeline. */
export const sourceFunnelQuery = (wish: SourcesWish & { pipeline?: string | undefined }) =>
  queryOptions({
    queryKey: ['sources', 'funnel', wish],
    queryFn: get<SourceFunnel>(`/reports/sources/funnel${query({ ...wish })}`),
    placeholderData: keepPreviousData,
  });
/** How fast what came was answered. */
export const answerSpeedQuery = (wish: SourcesWish) =>
  queryOptions({
    queryKey: ['sources', 'answers', wish],
    queryFn: get<AnswerSpeed>(`/reports/sources/answers${query({ ...wish })}`),
    placeholderData: keepPreviousData,
  });
/** Why the source of some touches is unknown. */
export const unknownSourcesQuery = (wish: SourcesNarrowing & Pick<SourcesWish, 'from' | 'to'>) =>
  queryOptions({
    queryKey: ['sources', 'unknown', wish],
    queryFn: get<UnknownSources>(`/reports/sources/unknown${query({ ...wish })}`),
    placeholderData: keepPreviousData,
  });

/** The views that one is mailed each Monday. */
export const reportMailsQuery = queryOptions({
  queryKey: ['sources', 'mails'],
  queryFn: get<ReportMail[]>('/report-mails'),
});

/** How channels are told apart. */
export const channelRulesQuery = queryOptions({
  queryKey: ['labels', 'channel-rules'],
  queryFn: get<ChannelRulesShape>('/channel-rules'),
});
/** What rules would change about the last year. */
export const sourceMovesQuery = (rules: ChannelRules) =>
  queryOptions({
    queryKey: ['sources', 'moves', rules],
    queryFn: () => call<SourceMoves>('POST', '/channel-rules/rehearsal', rules),
    placeholderData: keepPreviousData,
    retry: false,
  });
/** The latest changes of the sources of past visits. */
export const sourceChangesQuery = queryOptions({
  queryKey: ['sources', 'changes'],
  queryFn: get<SourceChange[]>('/source-changes'),
});

/** A blank part is asked for too: it means what nothing is known of. */
function recordsQuery(wish: object, figure: SourceFigure, path: object): string {
  const wished = Object.entries(wish).filter(([, value]) => value !== undefined) as [string, string][];
  const asked = Object.entries(path) as [string, string][];
  return `?${String(new URLSearchParams([...wished, ['figure', figure], ...asked]))}`;
}
