import type { RecordCondition, RecordKind } from '@haycart/core';
import type { SourcesNarrowing } from '../api/queries';
import { useAddress } from '../state/use-address';

/** Records by whose fields a report can be narrowed. */
export const NARROWED_KINDS = ['deal', 'contact', 'company'] as const satisfies RecordKind[];
export type NarrowedKind = (typeof NARROWED_KINDS)[number];

/** What the reports are narrowed to, as it stands in the address. */
export interface ReportNarrowing {
  /** The key of an intake; blank for all. */
  intake: string;
  filters: Partial<Record<NarrowedKind, RecordCondition>>;
  /** The same for the server. */
  wish: SourcesNarrowing;
  setIntake: (key: string | null) => void;
  setFilter: (kind: NarrowedKind, filter: RecordCondition | undefined) => void;
}

export function useNarrowing(): ReportNarrowing {
  const [params, set] = useAddress();
  const intake = params.get('intake') ?? '';
  const read = (kind: NarrowedKind) => parsed(params.get(`${kind}Filter`));
  const filters = Object.fromEntries(NARROWED_KINDS.flatMap((kind) => (read(kind) ? [[kind, read(kind)]] : [])));
  const text = (kind: NarrowedKind) => (filters[kind] ? JSON.stringify(filters[kind]) : undefined);
  return {
    intake,
    filters,
    wish: {
      intake: intake || undefined,
      dealFilter: text('deal'),
      contactFilter: text('contact'),
      companyFilter: text('company'),
    },
    setIntake: (key) => set('intake', key),
    setFilter: (kind, filter) => set(`${kind}Filter`, filter ? JSON.stringify(filter) : null),
  };
}

function parsed(text: string | null): RecordCondition | undefined {
  try {
    const filter: unknown = text ? JSON.parse(text) : undefined;
    return typeof filter === 'object' && filter !== null ? (filter as RecordCondition) : undefined;
  } catch {
    return undefined;
  }
}
