import type {
  AuditLine,
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
  DeletedRecord,
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
  RouteSheetShape,
  RunShape,
  SavedView,
  SearchHit,
  SessionLine,
  SessionShape,
  SetUpChange,
  SheetShape,
  SignInOptions,
  SubmissionDetail,
  SubmissionShape,
  TeamShape,
  TokenLine,
  WorkspaceShape,
} from '@haycart/api';
import { ROUTE_SAMPLES } from '@haycart/api';
import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import type { Destination, ExchangeRate, ReadyCheck, RecordKind } from '@haycart/core';
import { call, get, query } from './client';
import type { RecordPlural } from './record-kinds';

/** The first part of each key is the topic whose change makes it stale, beside those of its `meta`; see `useLiveUpdates`. */
export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: get<SessionShape>('/session'),
  retry: false,
  staleTime: Infinity,
});
export const signInOptionsQuery = queryOptions({
  queryKey: ['sign-in'],
  queryFn: get<SignInOptions>('/session/options'),
});
export const bandQuery = queryOptions({ queryKey: ['any', 'band'], queryFn: get<BandFigures>('/band') });
export const decisionsQuery = queryOptions({
  queryKey: ['any', 'decisions'],
  queryFn: get<DecisionLine[]>('/decisions'),
});
export const decisionQuery = (id: string) =>
  queryOptions({
    queryKey: ['decisions', id],
    queryFn: get<DecisionShape>(`/decisions/${id}`),
    retry: false,
  });
export const mergesQuery = (record: string) =>
  queryOptions({
    queryKey: ['records', 'merges', record],
    queryFn: get<MergeShape[]>(`/merges?record=${record}`),
  });
export const identityQuery = (kind: RecordKind) =>
  queryOptions({
    queryKey: ['identity', kind],
    queryFn: get<IdentityReport>(`/identity?kind=${kind}`),
  });
export const sheetQuery = (intake: string) =>
  queryOptions({
    queryKey: ['submissions', 'sheet', intake],
    queryFn: get<SheetShape>(`/sheets/${intake}`),
  });
export const homeQuery = queryOptions({ queryKey: ['any', 'home'], queryFn: get<HomeShape>('/home') });
export const intakeLinesQuery = queryOptions({
  queryKey: ['submissions', 'intake-lines'],
  queryFn: get<IntakeLine[]>('/intake-lines'),
});
export const intakeQuery = (id: string) =>
  queryOptions({ queryKey: ['intakes', id], queryFn: get<IntakeShape>(`/intakes/${id}`) });
export const routeVersionsQuery = (id: string) =>
  queryOptions({
    queryKey: ['routes', id, 'versions'],
    queryFn: get<RouteVersionLine[]>(`/routes/${id}/versions`),
  });
export const routeCasesQuery = (id: string) =>
  queryOptions({ queryKey: ['route-cases', id], queryFn: get<RouteCaseShape[]>(`/routes/${id}/cases`) });
export const routeDefinitionsQuery = queryOptions({
  queryKey: ['routes', 'definitions'],
  queryFn: get<RouteDefinitionLine[]>('/route-definitions'),
});
export const profileQuery = (intake: string) =>
  queryOptions({
    queryKey: ['submissions', 'profile', intake],
    queryFn: get<ProfileShape>(`/intakes/${encodeURIComponent(intake)}/profile`),
    staleTime: 30_000,
  });

export interface SubmissionFilter {
  intake?: string | undefined;
  outcome?: string | undefined;
  since?: string | undefined;
  route?: string | undefined;
  q?: string | undefined;
  sort?: string | undefined;
}

const PAGE = 100;

export const submissionsQuery = (filter: SubmissionFilter) =>
  infiniteQueryOptions({
    queryKey: ['submissions', 'list', filter],
    queryFn: ({ pageParam, signal }) =>
      get<Page<SubmissionShape>>(`/submissions${query({ ...filter, limit: PAGE, after: pageParam })}`)({ signal }),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
export const outcomesQuery = (filter: SubmissionFilter) =>
  queryOptions({
    queryKey: ['submissions', 'outcomes', filter],
    queryFn: get<Record<string, number>>(`/submission-outcomes${query({ ...filter })}`),
    placeholderData: keepPreviousData,
  });
export const latestSubmissionsQuery = (intake: string, limit: number) =>
  queryOptions({
    queryKey: ['submissions', 'latest', intake, limit],
    queryFn: get<Page<SubmissionShape>>(`/submissions${query({ intake, limit })}`),
    placeholderData: keepPreviousData,
  });
export const submissionQuery = (id: string) =>
  queryOptions({
    queryKey: ['submissions', 'one', id],
    queryFn: get<SubmissionDetail>(`/submissions/${id}`),
  });
export const runQuery = (id: string) => queryOptions({ queryKey: ['runs', id], queryFn: get<RunShape>(`/runs/${id}`) });
/** A run with the account of one of its attempts. */
export const attemptQuery = (run: string, attempt: string) =>
  queryOptions({
    queryKey: ['runs', run, attempt],
    queryFn: get<RunShape>(`/runs/${run}/attempts/${attempt}`),
  });

export const routesQuery = queryOptions({
  queryKey: ['routes', 'list'],
  queryFn: get<RouteLine[]>('/routes'),
});
/** The route as it is now, also when somebody else changes it. */
export const latestRouteQuery = (id: string) =>
  queryOptions({ queryKey: ['routes', id, 'latest'], queryFn: get<RouteShape>(`/routes/${id}`) });
/** The route as it was opened; all that its page shows besides comes with it. */
export const routeQuery = (id: string) =>
  queryOptions({
    queryKey: ['route', id],
    queryFn: async ({ client, signal }) => {
      const { route, intakes, destination, definitions, cases, samples } = await get<RouteSheetShape>(
        `/routes/${id}/sheet`,
      )({ signal });
      client.setQueryData(intakeLinesQuery.queryKey, intakes);
      client.setQueryData(destinationQuery.queryKey, destination);
      client.setQueryData(routeDefinitionsQuery.queryKey, definitions);
      client.setQueryData(routeCasesQuery(id).queryKey, cases);
      if (samples) {
        client.setQueryData(latestSubmissionsQuery(samples.intake, ROUTE_SAMPLES).queryKey, samples.latest);
        client.setQueryData(profileQuery(samples.intake).queryKey, samples.profile);
      }
      return route;
    },
    staleTime: Infinity,
    gcTime: 0,
  });
export const pipelinesQuery = queryOptions({
  queryKey: ['pipelines', 'list'],
  queryFn: get<PipelineShape[]>('/pipelines'),
  staleTime: 60_000,
});
export const placeUsesQuery = queryOptions({
  queryKey: ['records', 'place-uses'],
  queryFn: get<PlaceUse[]>('/set-up/place-uses'),
});
export const fieldUsesQuery = queryOptions({
  queryKey: ['fields', 'uses'],
  queryFn: get<FieldUse[]>('/set-up/field-uses'),
});
export const setUpChangesQuery = queryOptions({
  queryKey: ['pipelines', 'changes'],
  queryFn: get<SetUpChange[]>('/set-up/changes'),
});
export const fieldsQuery = queryOptions({
  queryKey: ['fields', 'list'],
  queryFn: get<FieldShape[]>('/fields'),
  staleTime: 60_000,
});
/** All that a route is planned against, as the server plans it. */
export const destinationQuery = queryOptions({
  queryKey: ['fields', 'destination'],
  queryFn: get<Destination>('/destination'),
  staleTime: 60_000,
  meta: { topics: ['pipelines', 'people', 'labels', 'identity'] },
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
    queryFn: get<PipelineGrid>(`/pipelines/${id}/grid${query({ ...wish })}`),
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
    queryFn: ({ pageParam, signal }) =>
      get<Page<RecordShape>>(`/${kind}${query({ ...wish, limit: PAGE, after: pageParam })}`)({ signal }),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
export const deletedRecordsQuery = (kind: RecordKind) =>
  infiniteQueryOptions({
    queryKey: ['records', 'deleted', kind],
    queryFn: ({ pageParam, signal }) =>
      get<Page<DeletedRecord>>(`/deleted-records${query({ kind, limit: PAGE, after: pageParam })}`)({ signal }),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
  });
export const recordCountQuery = (kind: RecordPlural, { q, filter, through }: RecordsWish) =>
  queryOptions({
    queryKey: ['records', 'count', kind, q, filter, through],
    queryFn: get<{ total: number }>(`/${kind}/count${query({ q, filter, through })}`),
    placeholderData: keepPreviousData,
  });
export const recordGroupsQuery = (kind: RecordPlural, by: string, { q, filter, through }: RecordsWish) =>
  queryOptions({
    queryKey: ['records', 'groups', kind, by, q, filter, through],
    queryFn: get<GroupCount[]>(`/${kind}/groups${query({ by, q, filter, through })}`),
    placeholderData: keepPreviousData,
  });
export const recordSheetQuery = (kind: string, id: string) =>
  queryOptions({
    queryKey: ['records', 'sheet', kind, id],
    queryFn: get<RecordSheet>(`/${kind}/${id}/sheet`),
  });
export const viewsQuery = queryOptions({
  queryKey: ['views'],
  queryFn: get<SavedView[]>('/views'),
  staleTime: 60_000,
});
export const peopleQuery = queryOptions({
  queryKey: ['people', 'list'],
  queryFn: get<PersonShape[]>('/people'),
  staleTime: 60_000,
});
export const teamsQuery = queryOptions({
  queryKey: ['people', 'teams'],
  queryFn: get<TeamShape[]>('/teams'),
  staleTime: 60_000,
});
export const formQuery = (id: string) =>
  queryOptions({
    queryKey: ['intakes', 'form', id],
    queryFn: get<FormShape>(`/forms/${id}`),
    staleTime: Infinity,
  });
export const formFiguresQuery = (id: string, days: number) =>
  queryOptions({
    queryKey: ['form-figures', id, days],
    queryFn: get<FormFiguresShape>(`/forms/${id}/figures?days=${days}`),
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
    queryFn: get<EntryShape>(`/entry/${secret}`),
    refetchInterval: ({ state: { data } }) => (data?.latest.some(({ state }) => state === 'waiting') ? 700 : false),
    retry: false,
  });
export const formDomainsQuery = queryOptions({
  queryKey: ['form-domains'],
  queryFn: get<FormDomainShape[]>('/form-domains'),
});
export const formMonthsQuery = queryOptions({
  queryKey: ['submissions', 'form-months'],
  queryFn: get<FormMonth[]>('/form-months'),
});
export const themesQuery = queryOptions({
  queryKey: ['themes'],
  queryFn: get<ThemeShape[]>('/themes'),
});
export const labelsQuery = (kind: 'tags' | 'lists') =>
  queryOptions({ queryKey: ['labels', kind], queryFn: get<LabelUse[]>(`/${kind}`) });
export const membershipsQuery = (list: string) =>
  queryOptions({
    queryKey: ['records', 'memberships', list],
    queryFn: get<MembershipLine[]>(`/lists/${list}/memberships`),
  });
export const workspaceQuery = queryOptions({
  queryKey: ['people', 'workspace'],
  queryFn: get<WorkspaceShape>('/workspace'),
});
export const readinessQuery = queryOptions({
  queryKey: ['any', 'readiness'],
  queryFn: get<ReadyCheck[]>('/set-up/readiness'),
});
export const ratesQuery = queryOptions({
  queryKey: ['pipelines', 'rates'],
  queryFn: get<ExchangeRate[]>('/exchange-rates'),
});
export const searchQuery = (text: string) =>
  queryOptions({
    queryKey: ['search', text],
    queryFn: get<SearchHit[]>(`/search${query({ q: text })}`),
    enabled: text.trim() !== '',
    placeholderData: keepPreviousData,
  });

/** What the audit is narrowed to. */
export interface AuditWish {
  actor?: string | undefined;
  command?: string | undefined;
  since?: string | undefined;
}

export const auditQuery = (wish: AuditWish) =>
  infiniteQueryOptions({
    queryKey: ['any', 'audit', wish],
    queryFn: ({ pageParam, signal }) =>
      get<Page<AuditLine>>(`/audit${query({ ...wish, limit: PAGE, after: pageParam })}`)({ signal }),
    initialPageParam: '',
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
export const tokensQuery = queryOptions({
  queryKey: ['tokens'],
  queryFn: get<TokenLine[]>('/tokens'),
});
export const mySessionsQuery = queryOptions({
  queryKey: ['my-sessions'],
  queryFn: get<SessionLine[]>('/account/sessions'),
});
