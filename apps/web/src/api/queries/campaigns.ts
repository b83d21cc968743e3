import type { CampaignCost, CampaignLink, CampaignShape } from '@haycart/api';
import type { LinkRules } from '@haycart/core';
import { queryOptions } from '@tanstack/react-query';
import { get } from '../client';

/** The register of campaigns. */
export const campaignsQuery = queryOptions({
  queryKey: ['sources', 'campaigns'],
  queryFn: get<CampaignShape[]>('/campaigns'),
});
export const campaignLinksQuery = (key: string) =>
  queryOptions({
    queryKey: ['sources', 'campaigns', key, 'links'],
    queryFn: get<CampaignLink[]>(`/campaigns/${encodeURIComponent(key)}/links`),
  });
export const campaignCostsQuery = (key: string) =>
  queryOptions({
    queryKey: ['sources', 'campaigns', key, 'costs'],
    queryFn: get<CampaignCost[]>(`/campaigns/${encodeURIComponent(key)}/costs`),
  });
/** How the parameters of links are written. */
export const linkRulesQuery = queryOptions({
  queryKey: ['sources', 'link-rules'],
  queryFn: get<LinkRules>('/link-rules'),
});
