import type { RunOutcome } from '@haycart/api';
import type { Values } from '../platform/database/values';
import { cursorTime } from '../platform/paging';
import type { ListCursor } from '../platform/list-cursor';
import { searchQuery } from './search/submission-search.service';

/** By what a list of submissions is sorted; the other way round with `-` before it. */
export const SUBMISSION_SORTS = ['received', '-received', 'who', '-who', 'email', '-email'] as const;
export type SubmissionSort = (typeof SUBMISSION_SORTS)[number];

/** What a list of submissions is narrowed to, and its order. */
export interface SubmissionFilter {
  intake?: string;
  outcome?: RunOutcome | 'waiting' | 'unrouted' | 'set-aside' | 'cancelled';
  since?: Date;
  route?: string;
  /** What somebody typed: words of any answer, an address, a number, an id. */
  search?: string;
  sort?: SubmissionSort;
}

/** A filter, with the ids of what its search finds where those are few. */
export interface KnownFilter extends SubmissionFilter {
  found?: readonly string[];
}

/** Whether a list is made of the words that are read a moment after a submission came. */
export function needsSearch({ search, sort }: SubmissionFilter): boolean {
  return Boolean(search) || (sort !== undefined && !sort.endsWith('received'));
}

/**
 * `from … where …` of the submissions `s` that a filter leaves, with `$1` as the workspace: a clause for each thing that is
 * asked, so that each uses its index.
 */
export function filtered(filter: KnownFilter, values: Values): string {
  const { intake, since, search, found } = filter;
  const from = needsSearch({ ...filter, search: found ? undefined : search })
    ? 'from submission s join submission_search k on k.workspace_id = s.workspace_id and k.submission_id = s.id'
    : 'from submission s';
  const clauses = ['s.workspace_id = $1', ...outcomeClauses(filter, values)];
  if (intake)
    clauses.push(
      `s.intake_id = (select id from intake where workspace_id = $1 and key = ${values.add(intake, 'text')})`,
    );
  if (since) clauses.push(`s.received_at >= ${values.add(since, 'timestamptz')}`);
  if (found) clauses.push(`s.id = any(${values.add(found, 'uuid[]')})`);
  else if (search) {
    const query = searchQuery(search);
    clauses.push(query === null ? 'false' : `k.workspace_id = $1 and k.words @@ ${values.add(query, 'tsquery')}`);
  }
  return `${from} where ${clauses.join(' and ')}`;
}

/** Whether nothing is asked but a search. */
export function isSearchAlone({ search, intake, since, route, outcome }: SubmissionFilter): boolean {
  return Boolean(search) && !intake && !since && !route && !outcome;
}

function outcomeClauses({ outcome, route }: SubmissionFilter, values: Values): string[] {
  const runs = (clause: string) =>
    `exists (select 1 from run r where r.workspace_id = $1 and r.submission_id = s.id${clause})`;
  const ofRoute = route ? ` and r.route_id = ${values.add(route, 'uuid')}` : '';
  switch (outcome) {
    case undefined:
      return route ? [runs(ofRoute)] : [];
    case 'waiting':
    case 'set-aside':
    case 'cancelled':
    case 'unrouted':
      return [`s.state = '${outcome}'`, ...(route ? [runs(ofRoute)] : [])];
    default:
      return [runs(`${ofRoute} and r.outcome = ${values.add(outcome, 'text')}`)];
  }
}

/** What a list is sorted by, as SQL; how a cursor tells it; and whether the greatest stands first. */
export function submissionOrder(sort: SubmissionSort = '-received') {
  const down = sort.startsWith('-');
  const key = sort.replace('-', '');
  if (key === 'received') return { by: 's.received_at', type: 'timestamptz', at: cursorTime, down };
  return { by: `k.${key}`, type: 'text', at: (by: string) => by, down };
}

/** The clause that begins a page after the row that a cursor names. */
export function placed(sort: SubmissionSort | undefined, after: ListCursor | null, values: Values): string {
  if (!after) return '';
  const { by, type, down } = submissionOrder(sort);
  return `and (${by}, s.id) ${down ? '<' : '>'} (${values.add(after.value ?? '', type)}, ${values.add(after.id, 'uuid')})`;
}
