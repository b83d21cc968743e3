import type { JsonObject } from '@haycart/core';
import type {
  EntryLinkShape,
  EntryShape,
  ProfileShape,
  IntakeLine,
  FormDomainShape,
  FormFiguresShape,
  FormMonth,
  FormShape,
  IntakeShape,
  ThemeShape,
  SheetShape,
} from '@haycart/api';
import { queryOptions } from '@tanstack/react-query';
import { call, get } from '../client';

export const sheetQuery = (intake: string) =>
  queryOptions({
    queryKey: ['submissions', 'sheet', intake],
    queryFn: get<SheetShape>(`/sheets/${intake}`),
  });
export const intakeLinesQuery = queryOptions({
  queryKey: ['submissions', 'intake-lines'],
  queryFn: get<IntakeLine[]>('/intake-lines'),
});
export const intakeQuery = (id: string) =>
  queryOptions({ queryKey: ['intakes', id], queryFn: get<IntakeShape>(`/intakes/${id}`) });
export const profileQuery = (intake: string) =>
  queryOptions({
    queryKey: ['submissions', 'profile', intake],
    queryFn: get<ProfileShape>(`/intakes/${encodeURIComponent(intake)}/profile`),
    staleTime: 30_000,
  });
/** Made-up answers to what an intake asks; null where it asks nothing. */
export const exampleQuery = (intake: string) =>
  queryOptions({
    queryKey: ['intakes', 'example', intake],
    queryFn: get<{ payload: JsonObject | null }>(`/intakes/${encodeURIComponent(intake)}/example`),
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
