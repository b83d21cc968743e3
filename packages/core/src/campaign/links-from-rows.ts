import { parse } from 'csv-parse/browser/esm/sync';
import { CAMPAIGN_PARAMETERS, type CampaignParameter } from '../source/visit';
import type { LinkParameters } from './campaign';
import { LINK_LIMITS } from './link-rules';
import { hasLineOver } from './longest-line';

/** A link to be created: its page and parameters. */
export interface LinkWish {
  page: string;
  parameters: LinkParameters;
}

/** Enough for 500 links with long parameters, in characters. */
const LONGEST = 1_000_000;
const LONGEST_LINE = 5_000;

/** The order of columns when there is no heading row. */
const ORDER: readonly Column[] = ['page', 'utm_source', 'utm_medium', 'utm_content', 'utm_term'];
type Column = 'page' | CampaignParameter;
const HEADINGS: Readonly<Record<string, Column>> = {
  page: 'page',
  url: 'page',
  link: 'page',
  address: 'page',
  source: 'utm_source',
  medium: 'utm_medium',
  campaign: 'utm_campaign',
  term: 'utm_term',
  content: 'utm_content',
  ...Object.fromEntries(CAMPAIGN_PARAMETERS.map((name) => [name, name])),
};

/** Reads pasted or typed rows, one link in each. Returns a sentence when they cannot be read or are too many. */
export function linksFromRows(text: string): LinkWish[] | string {
  if (text.length > LONGEST) return 'This is more text than rows of links are.';
  if (hasLineOver(text, LONGEST_LINE)) return 'A row is longer than a link can be.';
  const delimiter = text.includes('\t') ? '\t' : text.includes(';') ? ';' : ',';
  let rows: string[][];
  try {
    rows = parse(text, { delimiter, relax_column_count: true, relax_quotes: true, skip_empty_lines: true, trim: true });
  } catch (problem) {
    return `The rows cannot be read: ${problem instanceof Error ? problem.message : String(problem)}`;
  }
  const named = rows[0]?.map((cell) => HEADINGS[cell.toLowerCase()]) ?? [];
  const hasHeading = named.includes('page');
  const columns = hasHeading ? named : ORDER;
  const filled = rows.slice(hasHeading ? 1 : 0).filter((row) => row.some((cell) => cell !== ''));
  if (filled.length > LINK_LIMITS.links) return `At most ${LINK_LIMITS.links} links are made at once.`;
  return filled.map((row) => {
    const said = Object.fromEntries(columns.flatMap((name, index) => (name && row[index] ? [[name, row[index]]] : [])));
    const { page = '', ...parameters } = said as Record<string, string>;
    return { page, parameters };
  });
}
