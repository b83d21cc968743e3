import { error, type Problem } from '../problem';
import { CAMPAIGN_PARAMETERS, type CampaignParameter } from '../source/visit';
import { PARAMETER_LABELS, type LinkParameters } from './campaign';

/** Rules for the campaign parameters of links. */
export interface LinkRules {
  /** The parameters that every link must have. */
  required: CampaignParameter[];
  lowerCase: boolean;
  /** The character that replaces a space; blank when spaces are allowed. */
  space: '' | '-' | '_';
  /** The allowed values of each parameter; any value when none are listed. */
  words: Partial<Record<CampaignParameter, string[]>>;
}

export const USUAL_LINK_RULES: LinkRules = {
  required: ['utm_source', 'utm_medium', 'utm_campaign'],
  lowerCase: true,
  space: '-',
  words: {},
};

export const LINK_LIMITS = { words: 500, wordLength: 200, links: 500, address: 2_000 } as const;

/** The problems of a link's parameters. `at` is the parameter, as a JSON Pointer (RFC 6901). */
export function checkLink(link: LinkParameters, rules: LinkRules): Problem[] {
  return CAMPAIGN_PARAMETERS.flatMap((parameter) => {
    const text = link[parameter]?.trim() ?? '';
    const why = text === '' ? missing(parameter, rules) : wrongWord(text, parameter, rules);
    return why ? [error(text === '' ? 'missing' : 'wrong-value', why, `/${parameter}`)] : [];
  });
}

/** Rewrites a text to follow the rules for capitals and spaces. */
export function asRulesWant(text: string, { lowerCase, space }: LinkRules): string {
  const plain = text.trim().replace(/\s+/gu, ' ');
  const spaced = space === '' ? plain : plain.replaceAll(' ', space);
  return lowerCase ? spaced.toLowerCase() : spaced;
}

function missing(parameter: CampaignParameter, { required }: LinkRules): string | null {
  return required.includes(parameter) ? `${PARAMETER_LABELS[parameter]} is missing.` : null;
}

function wrongWord(text: string, parameter: CampaignParameter, rules: LinkRules): string | null {
  const label = PARAMETER_LABELS[parameter];
  const words = rules.words[parameter] ?? [];
  const wanted = asRulesWant(text, rules);
  if (words.length && !words.includes(text)) {
    const meant = words.find((word) => word.toLowerCase() === wanted.toLowerCase());
    return meant ? `${label} “${text}” is written “${meant}”.` : `${label} “${text}” is none of the allowed words.`;
  }
  if (words.length || wanted === text) return null;
  return `${label} “${text}” is written “${wanted}”.`;
}
