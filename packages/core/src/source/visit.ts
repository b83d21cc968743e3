import { LIMITS } from '../limits';
import { isJsonObject, type JsonValue } from '../json';
import { storableText } from '../text';
import { ORIGIN_NAMES } from './origin';

/** The campaign parameters that are kept, as web analytics names them. */
export const CAMPAIGN_PARAMETERS = ['utm_source', 'utm_medium', 'utm_campaign', 'utm_term', 'utm_content'] as const;
export type CampaignParameter = (typeof CAMPAIGN_PARAMETERS)[number];

/**
 * What surrounded a submission, apart from its time. Everything is optional: a server-to-server post has almost none of it.
 */
export type Visit = Partial<
  Record<CampaignParameter | 'page' | 'referrer' | 'userAgent' | 'formVersion' | 'language', string>
>;

/** The names of `{visit}` parts that are recorded as they came: of the visit, and of the origin. */
export const VISIT_NAMES = [
  'page',
  'referrer',
  'userAgent',
  'formVersion',
  'language',
  ...ORIGIN_NAMES,
  ...CAMPAIGN_PARAMETERS,
] as const;

/** The most characters of one part of the visit that are kept; addresses can be abused to carry anything. */
const LONGEST = LIMITS.visitPart.most;

/**
 * Reads the visit from where it may come, the first that knows a part winning: what a script handed over (`_visit`, an
 * object or its JSON text), the address that was posted to, and the headers.
 */
export function readVisit(sources: {
  handedOver?: JsonValue | undefined;
  query?: URLSearchParams | undefined;
  headers?: { referer?: string | undefined; userAgent?: string | undefined };
}): Visit {
  const handed = handedOverVisit(sources.handedOver);
  const visit: Visit = {};
  const keep = (name: keyof Visit, ...values: (string | null | undefined)[]) => {
    const value = values.find((candidate) => typeof candidate === 'string' && candidate.trim() !== '');
    if (value) visit[name] = storableText(value.trim()).slice(0, LONGEST);
  };
  keep('page', handed.page, sources.query?.get('page'), sources.headers?.referer);
  keep('referrer', handed.referrer, sources.query?.get('referrer'));
  for (const name of CAMPAIGN_PARAMETERS) keep(name, handed[name], sources.query?.get(name));
  keep('userAgent', sources.headers?.userAgent);
  keep('language', handed.language);
  keep('formVersion', handed.formVersion);
  return visit;
}

function handedOverVisit(value: JsonValue | undefined): Record<string, string | undefined> {
  let visit = value;
  if (typeof visit === 'string') {
    try {
      visit = JSON.parse(visit) as JsonValue;
    } catch {
      return {};
    }
  }
  if (!isJsonObject(visit)) return {};
  return Object.fromEntries(
    Object.entries(visit).map(([name, text]) => [name, typeof text === 'string' ? text : undefined]),
  );
}
