import type {
  BandFigures,
  DecisionLine,
  DecisionShape,
  EntryLinkShape,
  EntryShape,
  ProfileShape,
  FieldShape,
  FieldUse,
  GroupCount,
  HomeShape,
  IdentityReport,
  IntakeLine,
  FormDomainShape,
  FormFiguresShape,
  FormMonth,
  FormShape,
  IntakeShape,
  ThemeShape,
  LabelUse,
  MembershipLine,
  MergeShape,
  Page,
  PersonShape,
  PipelineGrid,
  PipelineShape,
  PlaceUse,
  RecordShape,
  RecordSheet,
  RouteCaseShape,
  RouteDefinitionLine,
  RouteVersionLine,
  RouteLine,
  RouteShape,
  RunShape,
  SavedView,
  SearchHit,
  SessionShape,
  SetUpChange,
  SheetShape,
  SignInOptions,
  SubmissionDetail,
  SubmissionShape,
  TeamShape,
  WorkspaceShape,
} from '@haycart/api';
import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import type { ExchangeRate, ReadyCheck, RecordKind } from '@haycart/core';
import { call, query } from './client';
import type { RecordPlural } from './record-kinds';

/** The first part of each key is the topic whose change makes it stale; see `useLiveUpdates`. */
export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: () => call<SessionShape>('GET', '/session'),
  retry: false,
  staleTime: Infinity,
});
export const signInOptionsQuery = queryOptions({
  queryKey: ['sign-in'],
  queryFn: () => call<SignInOptions>('GET', '/session/options'),
});
export const bandQuery = queryOptions({ queryKey: ['any', 'band'], queryFn: () => call<BandFigures>('GET', '/band') });
export const decisionsQuery = queryOptions({
  queryKey: ['any', 'decisions'],
  queryFn: () => call<DecisionLine[]>('GET', '/decisions'),
});
export const decisionQuery = (id: string) =>
  queryOptions({
    queryKey: ['decisions', id],
    queryFn: () => call<DecisionShape>('GET', `/decisions/${id}`),
    retry: false,
  });
export const mergesQuery = (record: string) =>
  queryOptions({
    queryKey: ['records', 'merges', record],
    queryFn: () => call<MergeShape[]>('GET', `/merges?record=${record}`),
  });
export const identityQuery = (kind: RecordKind) =>
  queryOptions({
    queryKey: ['identity', kind],
    queryFn: () => call<IdentityReport>('GET', `/identity?kind=${kind}`),
  });
export const sheetQuery = (intake: string) =>
  queryOptions({
    queryKey: ['submissions', 'sheet', intake],
    queryFn: () => call<SheetShape>('GET', `/sheets/${intake}`),
  });
export const homeQuery = queryOptions({ queryKey: ['any', 'home'], queryFn: () => call<HomeShape>('GET', '/home') });
export const intakeLinesQuery = queryOptions({
  queryKey: ['submissions', 'intake-lines'],
  queryFn: () => call<IntakeLine[]>('GET', '/intake-lines'),
});
export const intakeQuery = (id: string) =>
  queryOptions({ queryKey: ['intakes', id], queryFn: () => call<IntakeShape>('GET', `/intakes/${id}`) });
export const routeVersionsQuery = (id: string) =>
  queryOptions({
    queryKey: ['routes', id, 'versions'],
    queryFn: () => call<RouteVersionLine[]>('GET', `/routes/${id}/versions`),
  });
export const routeCasesQuery = (id: string) =>
  queryOptions({ queryKey: ['route-cases', id], queryFn: () => call<RouteCaseShape[]>('GET', `/routes/${id}/cases`) });
export const routeDefinitionsQuery = queryOptions({
  queryKey: ['routes', 'definitions'],
  queryFn: () => call<RouteDefinitionLine[]>('GET', '/route-definitions'),
});
export const profileQuery = (intake: string) =>
  queryOptions({
    queryKey: ['submissions', 'profile', intake],
    queryFn: () => call<ProfileShape>('GET', `/intakes/${encodeURIComponent(intake)}/profile`),
    staleTime: 30_000,
  });

export interface SubmissionFilter {
  intake?: string | undefined;
  outcome?: string | undefined;
  since?: string | undefined;
  route?: string | undefined;
}

const PAGE = 100;

export const submissionsQuery = (filter: SubmissionFilter) =>
  infiniteQueryOptions({
    queryKey: ['submissions', 'list', filter],
    queryFn: ({ pageParam }) =>
      call<Page<SubmissionShape>>('GET', `/submissions${query({ ...filter, limit: PAGE, after: pageParam })}`),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
export const outcomesQuery = (filter: SubmissionFilter) =>
  queryOptions({
    queryKey: ['submissions', 'outcomes', filter],
    queryFn: () => call<Record<string, number>>('GET', `/submission-outcomes${query({ ...filter })}`),
    placeholderData: keepPreviousData,
  });
export const latestSubmissionsQuery = (intake: string, limit: number) =>
  queryOptions({
    queryKey: ['submissions', 'latest', intake, limit],
    queryFn: () => call<Page<SubmissionShape>>('GET', `/submissions${query({ intake, limit })}`),
    placeholderData: keepPreviousData,
  });
export const submissionQuery = (id: string) =>
  queryOptions({
    queryKey: ['submissions', 'one', id],
    queryFn: () => call<SubmissionDetail>('GET', `/submissions/${id}`),
  });
export const runQuery = (id: string) =>
  queryOptions({ queryKey: ['runs', id], queryFn: () => call<RunShape>('GET', `/runs/${id}`) });

export const routesQuery = queryOptions({
  queryKey: ['routes', 'list'],
  queryFn: () => call<RouteLine[]>('GET', '/routes'),
});
/** The route as it is now, also when somebody else changes it. */
export const latestRouteQuery = (id: string) =>
  queryOptions({ queryKey: ['routes', id, 'latest'], queryFn: () => call<RouteShape>('GET', `/routes/${id}`) });
export const routeQuery = (id: string) =>
  queryOptions({
    queryKey: ['route', id],
    queryFn: () => call<RouteShape>('GET', `/routes/${id}`),
    staleTime: Infinity,
    gcTime: 0,
  });
export const pipelinesQuery = queryOptions({
  queryKey: ['pipelines', 'list'],
  queryFn: () => call<PipelineShape[]>('GET', '/pipelines'),
  staleTime: 60_000,
});
export const placeUsesQuery = queryOptions({
  queryKey: ['records', 'place-uses'],
  queryFn: () => call<PlaceUse[]>('GET', '/set-up/place-uses'),
});
export const fieldUsesQuery = queryOptions({
  queryKey: ['fields', 'uses'],
  queryFn: () => call<FieldUse[]>('GET', '/set-up/field-uses'),
});
export const setUpChangesQuery = queryOptions({
  queryKey: ['pipelines', 'changes'],
  queryFn: () => call<SetUpChange[]>('GET', '/set-up/changes'),
});
export const fieldsQuery = queryOptions({
  queryKey: ['fields', 'list'],
  queryFn: () => call<FieldShape[]>('GET', '/fields'),
  staleTime: 60_000,
});
/** What the grid of a pipeline is narrowed to, and over how many days conversion is counted. */
export interface GridWish {
  q?: string | undefined;
  filter?: string | undefined;
  days?: number | undefined;
}

export const gridQuery = (id: string, wish: GridWish) =>
  queryOptions({
    queryKey: ['records', 'grid', id, wish],
    queryFn: () => call<PipelineGrid>('GET', `/pipelines/${id}/grid${query({ ...wish })}`),
    placeholderData: keepPreviousData,
  });

/** What a list of records is narrowed to and sorted by, as the server takes it. */
export interface RecordsWish {
  q?: string | undefined;
  filter?: string | undefined;
  sort?: string | undefined;
  /** The key of an intake that they came through. */
  through?: string | undefined;
}

export const recordsQuery = (kind: RecordPlural, wish: RecordsWish) =>
  infiniteQueryOptions({
    queryKey: ['records', 'list', kind, wish],
    queryFn: ({ pageParam }) =>
      call<Page<RecordShape>>('GET', `/${kind}${query({ ...wish, limit: PAGE, after: pageParam })}`),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
export const recordCountQuery = (kind: RecordPlural, { q, filter, through }: RecordsWish) =>
  queryOptions({
    queryKey: ['records', 'count', kind, q, filter, through],
    queryFn: () => call<{ total: number }>('GET', `/${kind}/count${query({ q, filter, through })}`),
    placeholderData: keepPreviousData,
  });
export const recordGroupsQuery = (kind: RecordPlural, by: string, { q, filter, through }: RecordsWish) =>
  queryOptions({
    queryKey: ['records', 'groups', kind, by, q, filter, through],
    queryFn: () => call<GroupCount[]>('GET', `/${kind}/groups${query({ by, q, filter, through })}`),
    placeholderData: keepPreviousData,
  });
export const recordSheetQuery = (kind: string, id: string) =>
  queryOptions({
    queryKey: ['records', 'sheet', kind, id],
    queryFn: () => call<RecordSheet>('GET', `/${kind}/${id}/sheet`),
  });
export const viewsQuery = queryOptions({
  queryKey: ['views'],
  queryFn: () => call<SavedView[]>('GET', '/views'),
  staleTime: 60_000,
});
export const peopleQuery = queryOptions({
  queryKey: ['people', 'list'],
  queryFn: () => call<PersonShape[]>('GET', '/people'),
  staleTime: 60_000,
});
export const teamsQuery = queryOptions({
  queryKey: ['people', 'teams'],
  queryFn: () => call<TeamShape[]>('GET', '/teams'),
  staleTime: 60_000,
});
export const formQuery = (id: string) =>
  queryOptions({
    queryKey: ['intakes', 'form', id],
    queryFn: () => call<FormShape>('GET', `/forms/${id}`),
    staleTime: Infinity,
  });
export const formFiguresQuery = (id: string, days: number) =>
  queryOptions({
    queryKey: ['form-figures', id, days],
    queryFn: () => call<FormFiguresShape>('GET', `/forms/${id}/figures?days=${days}`),
  });
/** The signed-in person's own link into a form; made when asked for the first time. */
export const entryLinkQuery = (form: string) =>
  queryOptions({
    queryKey: ['entry-link', form],
    queryFn: () => call<EntryLinkShape>('POST', `/forms/${form}/entry-link`),
    staleTime: Infinity,
  });
/** A form and what was entered by a link; asked again while something is on its way, since nobody need be signed in. */
export const entryQuery = (secret: string) =>
  queryOptions({
    queryKey: ['entry', secret],
    queryFn: () => call<EntryShape>('GET', `/entry/${secret}`),
    refetchInterval: ({ state: { data } }) => (data?.latest.some(({ state }) => state === 'waiting') ? 700 : false),
    retry: false,
  });
export const formDomainsQuery = queryOptions({
  queryKey: ['form-domains'],
  queryFn: () => call<FormDomainShape[]>('GET', '/form-domains'),
});
export const formMonthsQuery = queryOptions({
  queryKey: ['submissions', 'form-months'],
  queryFn: () => call<FormMonth[]>('GET', '/form-months'),
});
export const themesQuery = queryOptions({
  queryKey: ['themes'],
  queryFn: () => call<ThemeShape[]>('GET', '/themes'),
});
export const labelsQuery = (kind: 'tags' | 'lists') =>
  queryOptions({ queryKey: ['labels', kind], queryFn: () => call<LabelUse[]>('GET', `/${kind}`) });
export const membershipsQuery = (list: string) =>
  queryOptions({
    queryKey: ['records', 'memberships', list],
    queryFn: () => call<MembershipLine[]>('GET', `/lists/${list}/memberships`),
  });
export const workspaceQuery = queryOptions({
  queryKey: ['people', 'workspace'],
  queryFn: () => call<WorkspaceShape>('GET', '/workspace'),
});
export const readinessQuery = queryOptions({
  queryKey: ['any', 'readiness'],
  queryFn: () => call<ReadyCheck[]>('GET', '/set-up/readiness'),
});
export const ratesQuery = queryOptions({
  queryKey: ['pipelines', 'rates'],
  queryFn: () => call<ExchangeRate[]>('GET', '/exchange-rates'),
});
export const searchQuery = (text: string) =>
  queryOptions({
    queryKey: ['search', text],
    queryFn: () => call<SearchHit[]>('GET', `/search${query({ q: text })}`),
    enabled: text.trim() !== '',
    placeholderData: keepPreviousData,
  });
