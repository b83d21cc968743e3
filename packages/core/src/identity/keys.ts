import type { FieldValue, FieldValues, RecordKind } from '../diff/record';

export const IDENTITY_KEY_KINDS = ['email', 'phone', 'domain'] as const;
export type IdentityKeyKind = (typeof IDENTITY_KEY_KINDS)[number];

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
export function identityKeysOf(record: RecordKind, values: FieldValues): IdentityKey[] {
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
