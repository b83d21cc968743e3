import type { FieldDefinition } from '../destination/field-definition';
import type { FieldValue, FieldValues, RecordKind } from '../diff/record';

export const IDENTITY_KEY_KINDS = ['email', 'phone', 'domain'] as const;
/** A workspace's own unique field is a key too, named by the field: `field:site_code`. */
export type IdentityKeyKind = (typeof IDENTITY_KEY_KINDS)[number] | `field:${string}`;

/** The keys of the fields that no two records may hold the same value of. */
export type UniqueFields = Readonly<Partial<Record<RecordKind, readonly string[]>>>;

/** The workspace's own fields that are unique. */
export function uniqueFieldsOf(fields: readonly FieldDefinition[]): UniqueFields {
  const found: Partial<Record<RecordKind, string[]>> = {};
  for (const { record, key, unique } of fields) if (unique) (found[record] ??= []).push(key);
  return found;
}

/** Something by which a record can be found again. E-mail and domain belong to one record of a kind at a time; phones may be shared. */
export interface IdentityKey {
  record: RecordKind;
  kind: IdentityKeyKind;
  value: string;
}

/** One identity key as text, for use as a map key and as the name of a lock. */
export function identityKeyText(key: IdentityKey): string {
  return `${key.record} ${key.kind} ${key.value}`;
}

/** The identity keys that a record's values give it. Values have their normal form already. */
export function identityKeysOf(record: RecordKind, values: FieldValues, uniques: UniqueFields = {}): IdentityKey[] {
  const own = (uniques[record] ?? []).flatMap((key): IdentityKey[] => {
    const value = values[key];
    return value === undefined ? [] : [{ record, kind: `field:${key}`, value: uniqueText(value) }];
  });
  return own.length ? [...builtInKeys(record, values), ...own] : builtInKeys(record, values);
}

/** A value of a unique field as it is compared: capitals do not make another. */
export function uniqueText(value: FieldValue): string {
  return (typeof value === 'object' ? JSON.stringify(value) : String(value)).trim().toLowerCase();
}

/** Whether a key may belong to one record of its kind only. */
export function isExclusive({ record, kind }: IdentityKey): boolean {
  return kind.startsWith('field:') || (kind !== 'phone' && record !== 'lead');
}

function builtInKeys(record: RecordKind, values: FieldValues): IdentityKey[] {
  const of = (kind: IdentityKeyKind, ...found: (FieldValue | undefined)[]): IdentityKey[] => {
    const texts = found.flat().filter((value): value is string => typeof value === 'string' && value !== '');
    return [...new Set(texts)].map((value) => ({ record, kind, value }));
  };
  switch (record) {
    case 'contact':
      return [...of('email', values.email, values.emails), ...of('phone', values.phone, values.phones)];
    case 'company':
      return [...of('domain', values.domain), ...of('phone', values.phone)];
    case 'lead':
      return [...of('email', values.email), ...of('phone', values.phone)];
    case 'deal':
      return [];
  }
}
