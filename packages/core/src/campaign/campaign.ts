import type { CampaignParameter } from '../source/visit';

/** A marketing campaign, with the parameters of its links. */
export interface Campaign {
  name: string;
  /** What links to it say, as they say it: `utm_campaign`. No two campaigns have the same. */
  code: string;
  /** What its links say where they say nothing else: `utm_source` and `utm_medium`. Its costs count there. */
  source?: string | undefined;
  medium?: string | undefined;
  /** Other values of `utm_campaign` that count as this campaign. */
  spellings?: readonly string[] | undefined;
  /** ISO 8601 days, both of them in it. */
  starts?: string | undefined;
  ends?: string | undefined;
}

/** The campaign parameters of a link. */
export type LinkParameters = Partial<Record<CampaignParameter, string>>;

/** The label of each campaign parameter. */
export const PARAMETER_LABELS: Readonly<Record<CampaignParameter, string>> = {
  utm_source: 'Source',
  utm_medium: 'Medium',
  utm_campaign: 'Campaign',
  utm_term: 'Term',
  utm_content: 'Content',
};
