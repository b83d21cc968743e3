import type { SavedView } from '@haycart/api';
import {
  readSort,
  writeSort,
  type ListSort,
  type ListView,
  type RecordCondition,
  type RecordKind,
} from '@haycart/core';
import { setPart, useAddress } from '../state/use-address';

/** The columns that a list begins with. */
const FIRST: Record<RecordKind, string[]> = {
  contact: ['number', 'full_name', 'email', 'phone', 'company', 'source', 'owner', 'updated_at'],
  company: ['number', 'name', 'domain', 'country', 'source', 'contacts', 'deals', 'updated_at'],
  lead: ['number', 'name', 'email', 'company_name', 'stage', 'status', 'owner', 'updated_at'],
  deal: ['number', 'name', 'contacts', 'pipeline', 'stage', 'value', 'owner', 'source', 'updated_at'],
};
const LATEST: ListSort = { field: 'updated_at', down: true };

/** How a list is looked at, read from its address, where all of it stands. */
export interface ListState {
  q: string;
  view: ListView;
  /** The kept view that it began from. */
  from: SavedView | undefined;
  /** Whether it is looked at otherwise than that view says. */
  differs: boolean;
  /** The key of the intake that the records came through; blank for all. */
  through: string;
  leaveThrough: () => void;
  setQ: (q: string) => void;
  change: (change: Partial<ListView>) => void;
  /** Looks as a kept view says, or as lists begin. */
  choose: (view: SavedView | null) => void;
}

export function useListState(kind: RecordKind, views: readonly SavedView[]): ListState {
  const [params, set, put] = useAddress();
  const from = views.find(({ id, record }) => id === params.get('view') && record === kind);
  const base: ListView = from?.view ?? { columns: FIRST[kind].map((field) => ({ field })) };
  const own = readView(params);
  const view: ListView = { ...base, ...own };
  if (own.filter === null) delete view.filter;
  if (own.group === null) delete view.group;
  return {
    q: params.get('q') ?? '',
    through: params.get('through') ?? '',
    leaveThrough: () => set('through', null),
    view: view as ListView,
    from,
    differs: ['filter', 'columns', 'sort', 'group'].some((name) => params.has(name)),
    setQ: (q) => set('q', q),
    change: (change) => put((next) => writeView(next, change)),
    choose: (chosen) =>
      put((next) => {
        for (const name of ['filter', 'columns', 'sort', 'group', 'q']) next.delete(name);
        setPart(next, 'view', chosen?.id ?? null);
      }),
  };
}

type OwnView = Partial<Omit<ListView, 'filter' | 'group'>> & {
  filter?: RecordCondition | null;
  group?: string | null;
};

function readView(params: URLSearchParams): OwnView & { filter?: RecordCondition; group?: string } {
  const own: OwnView = {};
  const columns = params.get('columns');
  if (columns)
    own.columns = columns.split(',').map((text) => {
      const [field = '', width] = text.split(':');
      return width ? { field, width: Number(width) } : { field };
    });
  const filter = params.get('filter');
  if (filter !== null) own.filter = parsed(filter);
  const sort = params.get('sort');
  if (sort) own.sort = readSort(sort);
  const group = params.get('group');
  if (group !== null) own.group = group || null;
  return own as OwnView & { filter?: RecordCondition; group?: string };
}

function parsed(text: string): RecordCondition | null {
  try {
    return text ? (JSON.parse(text) as RecordCondition) : null;
  } catch {
    return null;
  }
}

function writeView(params: URLSearchParams, change: Partial<ListView>): void {
  if ('filter' in change) params.set('filter', change.filter ? JSON.stringify(change.filter) : '');
  if ('group' in change) params.set('group', change.group ?? '');
  if (change.sort) params.set('sort', writeSort(change.sort));
  if (change.columns)
    params.set('columns', change.columns.map(({ field, width }) => (width ? `${field}:${width}` : field)).join(','));
}

/** The sort after one chose a head: the other way round where it was sorted by it already. */
export function nextSort(now: ListSort | undefined, field: string): ListSort {
  const { field: before, down } = now ?? LATEST;
  return before === field ? { field, down: !down } : { field, down: field.endsWith('_at') };
}

export function sortOf(view: ListView): ListSort {
  return view.sort ?? LATEST;
}
