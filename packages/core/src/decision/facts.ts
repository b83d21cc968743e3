import type { FieldValues, RecordKind } from '../diff/record';
import type { FieldDefinition } from '../field/field-definition';
import type { KnownRecords } from '../identity/known-records';

/** What is known of a record beside its fields, which tables and conditions may ask for. */
const FACTS: readonly FieldDefinition[] = [
  ...(['contact', 'company', 'lead', 'deal'] as const).map((record) =>
    fact(record, 'hc_known', 'Known before', 'yes-no'),
  ),
  fact('contact', 'hc_open_deals', 'Open deals', 'whole-number'),
];

function fact(record: RecordKind, key: string, label: string, type: FieldDefinition['type']): FieldDefinition {
  return { record, key, label, type, builtIn: true, required: false, kept: true };
}

/** The facts that can be asked of a kind of record, as fields that nothing feeds. */
export function factsOf(record: RecordKind): FieldDefinition[] {
  return FACTS.filter((one) => one.record === record);
}

export function factOf(record: RecordKind, key: string): FieldDefinition | undefined {
  return FACTS.find((one) => one.record === record && one.key === key);
}

/** Whether a fact takes the deals of contacts to know. */
export const DEALS_FACT = 'hc_open_deals';

/** The facts of a record, before the run writes anything. @param id Of the record that was recognised; `null` for a new one. */
export function factsAbout(record: RecordKind, id: string | null, known: KnownRecords): FieldValues {
  if (record !== 'contact') return { hc_known: id !== null };
  const deals = id === null ? [] : known.pointingTo(id).filter(({ kind }) => kind === 'deal');
  return { hc_known: id !== null, hc_open_deals: deals.filter(({ values }) => values.status === 'open').length };
}
