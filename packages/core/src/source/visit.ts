import { LIMITS } from '../limits';
import { isJsonObject, type JsonObject, type JsonValue } from '../json';
import { countryNamed } from '../reading/country-name';
import { storableText } from '../text';
import { clickIn } from './click';
import { readEarlierVisits } from './earlier-visit';
import { ORIGIN_NAMES } from './origin';
import { readParameter } from './parameter';

/** The campaign parameters that are kept, as web analytics names them. */
export const CAMPAIGN_PARAMETERS = ['utm_source', 'utm_medium', 'utm_campaign', 'utm_term', 'utm_content'] as const;
export type CampaignParameter = (typeof CAMPAIGN_PARAMETERS)[number];

/**
 * What surrounded a submission, apart from its time. Everything is optional: a server-to-server post has almost none of it.
 * `page` is where the form is, `landing` where the visitor came in, if that is another page.
 * `click` is the name of a click parameter and `clickId` its value; `masked` names the parts, apart by spaces, that held an
 * e-mail address.
 */
export type Visit = Partial<
  Record<
    | CampaignParameter
    | 'page'
    | 'landing'
    | 'referrer'
    | 'click'
    | 'clickId'
    | 'masked'
    | 'userAgent'
    | 'formVersion'
    | 'language'
    | 'country',
    string
  >
> & {
  /** Earlier visits, the earliest first. */
  earlier?: EarlierVisit[];
};
/** An earlier visit, as the landing script stored it. */
export interface EarlierVisit {
  /** A UUID given by the landing script. The same visit keeps its id when it is handed over again. */
  id: string;
  /** ISO 8601, by the visitor's clock. */
  at: string;
  visit: Visit;
}

/** The parts of a visit that are texts. */
type VisitText = Exclude<keyof Visit, 'earlier'>;

/** The names of `{visit}` parts that are recorded as they came: of the visit, and of the origin. */
export const VISIT_NAMES = [
  'page',
  'landing',
  'referrer',
  'click',
  'clickId',
  'userAgent',
  'formVersion',
  'language',
  'country',
  ...ORIGIN_NAMES,
  ...CAMPAIGN_PARAMETERS,
] as const;

type HandedOver = Partial<Record<VisitText, string>> & { earlier?: JsonValue };

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
  const keep = (name: VisitText, ...values: (string | null | undefined)[]) => {
    const value = values.find((candidate) => typeof candidate === 'string' && candidate.trim() !== '');
    // The cut may split a surrogate pair.
    if (value) visit[name] = storableText(storableText(value.trim()).slice(0, LONGEST));
  };
  const masked: string[] = [];
  /** Keeps a link parameter, decoded and with e-mail addresses masked. */
  const keepParameter = (name: VisitText, ...values: (string | null | undefined)[]) => {
    keep(name, ...values);
    const read = visit[name] && readParameter(visit[name]);
    if (!read) return;
    // Decoding can produce characters that the database does not store.
    visit[name] = storableText(read.text);
    if (read.masked) masked.push(name);
  };
  keep('page', handed.page, sources.query?.get('page'), sources.headers?.referer);
  keep('landing', handed.landing, sources.query?.get('landing'));
  keep('referrer', handed.referrer, sources.query?.get('referrer'));
  for (const name of CAMPAIGN_PARAMETERS) keepParameter(name, handed[name], sources.query?.get(name));
  const click = clickIn(handed.click ? [[handed.click, handed.clickId]] : (sources.query?.entries() ?? []));
  keep('click', click?.name);
  keepParameter('clickId', click?.id);
  keep('userAgent', sources.headers?.userAgent);
  keep('language', handed.language);
  keep('country', handed.country && countryNamed(handed.country));
  keep('formVersion', handed.formVersion);
  if (masked.length) visit.masked = masked.join(' ');
  const earlier = readEarlierVisits(handed.earlier, readBefore);
  if (earlier.length) visit.earlier = earlier;
  return visit;
}

/** What tells where somebody came from before; nothing came before that. */
function readBefore(handedOver: JsonValue): Visit {
  const { earlier: _, ...rest } = handedOver as JsonObject;
  return readVisit({ handedOver: rest });
}

function handedOverVisit(value: JsonValue | undefined): HandedOver {
  let visit = value;
  if (typeof visit === 'string') {
    try {
      visit = JSON.parse(visit) as JsonValue;
    } catch {
      return {};
    }
  }
  if (!isJsonObject(visit)) return {};
  const { earlier, ...rest } = visit;
  const texts = Object.entries(rest).map(([name, text]) => [name, typeof text === 'string' ? text : undefined]);
  return { ...(Object.fromEntries(texts) as Record<string, string | undefined>), earlier } as HandedOver;
}
