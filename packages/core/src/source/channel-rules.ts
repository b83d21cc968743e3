/** The facts of a visit that channel rules can test, in column order. */
export const WAY_PARTS = [
  'utm_source',
  'utm_medium',
  'utm_campaign',
  'utm_term',
  'utm_content',
  'site',
  'click',
  'page',
  'landing',
  'sheet',
  'said',
  'device',
  'country',
] as const;
export type WayPart = (typeof WAY_PARTS)[number];

/**
 * How a visit came: campaign parameters, the host name of the referring site, the name of a click parameter, the page of the
 * form and the page where the visitor came in, both without their queries, the sheet, what the person said, the kind of
 * device, and the country where a site told it. `within` is set when the referring page belongs to the same site.
 */
export type Way = Partial<Record<WayPart | 'intake' | 'within', string>>;

/** One rule. When all its tests are met, it sets the channel, and if given the source name and medium. */
export interface ChannelRule {
  when: Partial<Record<WayPart, { test: string; value?: unknown }>>;
  channel: string;
  source?: string | undefined;
  medium?: string | undefined;
  note?: string | undefined;
}

/** Spellings that count as one source. */
export interface JoinedNames {
  name: string;
  spellings: string[];
}

/** The channel rules of a workspace; the first that fits decides. */
export interface ChannelRules {
  rules: ChannelRule[];
  names: JoinedNames[];
  /** Spellings that look like a name and are another source. */
  apart?: JoinedNames[] | undefined;
}

/** The source settings of an intake. */
export interface IntakeSource {
  /** The source used when the visit tells none. */
  constant?: { channel?: string; source?: string; medium?: string; campaign?: string } | undefined;
  /** Whether `constant` replaces what the visit tells. */
  always?: boolean | undefined;
  /** The keys of answers that contain parts of the source. */
  answers?: Partial<Record<SourceAnswer, string>> | undefined;
}

export const SOURCE_ANSWERS = ['said', 'utm_source', 'utm_medium', 'utm_campaign'] as const;
export type SourceAnswer = (typeof SOURCE_ANSWERS)[number];
