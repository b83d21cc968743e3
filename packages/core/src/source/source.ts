/** The name of a channel: one of the usual ones, or the workspace's own. */
export type Channel = string;

/** The channels of the usual rules. */
export const USUAL_CHANNELS = ['campaign', 'paid', 'e-mail', 'social', 'search', 'referral', 'file', 'direct'] as const;

/** Where a touch came from. */
export interface Source {
  channel: Channel;
  /** The name people use: `spring-newsletter`, a search engine's or referring site's domain, or `direct`. */
  source: string;
  medium: string | null;
  campaign: string | null;
}

/** A record that a submission touched: where that came from, when, and on which page. */
export interface Touch extends Source {
  record: string;
  /** Without what stands after its path. */
  page: string | null;
  at: string;
  /** The id of the earlier visit that it is about; the submission's own when not said. */
  earlier?: string;
}
