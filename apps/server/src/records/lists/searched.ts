import type { RecordKind } from '@haycart/core';

/** An empty text for a blank; `coalesce` counts as leaky, and would keep the index from being used. */
const text = (column: string) => `(case when r.${column} is null then '' else r.${column} end)`;

const SEARCHED: Record<RecordKind, string> = {
  contact: `lower(${text('full_name')} || ' ' || ${text('email')})`,
  company: `lower(r.name || ' ' || ${text('domain')})`,
  lead: `lower(r.name || ' ' || ${text('email')})`,
  deal: 'lower(r.name)',
};

/** What the search of a kind looks into, as SQL on the row `r`; the trigram index holds the same. */
export function searched(kind: RecordKind): string {
  return SEARCHED[kind];
}
