import type { ChannelRule, ChannelRules } from '../source/channel-rules';
import { SEARCH_SITES, SOCIAL_SITES } from './known-sites';

const is = (...value: string[]) => ({ test: 'is', value });
const startsWith = (...value: string[]) => ({ test: 'starts-with', value });
const FILLED = { test: 'filled' };

const RULES: ChannelRule[] = [
  { when: { sheet: FILLED }, channel: 'file', note: 'Rows of a file: nobody visited' },
  {
    when: { utm_medium: is('cpc', 'ppc', 'cpm', 'cpv', 'display', 'banner', 'retargeting') },
    channel: 'paid',
    note: 'What a link says of itself goes first',
  },
  { when: { utm_medium: startsWith('paid') }, channel: 'paid' },
  { when: { utm_medium: is('email', 'e-mail', 'newsletter') }, channel: 'e-mail' },
  { when: { utm_medium: startsWith('social') }, channel: 'social' },
  { when: { utm_medium: is('sm') }, channel: 'social' },
  { when: { utm_medium: is('organic', 'search') }, channel: 'search' },
  { when: { utm_medium: is('referral', 'partner', 'affiliate') }, channel: 'referral' },
  { when: { utm_source: FILLED }, channel: 'campaign' },
  { when: { utm_campaign: FILLED }, channel: 'campaign' },
  { when: { site: startsWith(...SEARCH_SITES) }, channel: 'search', note: 'Then the site that referred' },
  { when: { site: is(...SOCIAL_SITES) }, channel: 'social' },
  { when: { site: FILLED }, channel: 'referral' },
];

/** The rules of a workspace without rules of its own. */
export const USUAL_RULES: ChannelRules = { rules: RULES, names: [] };

/** The channel when no rule fits. */
export const OTHERWISE = 'direct';
