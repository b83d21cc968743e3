import type { FieldDefinition } from '../field/field-definition';
import type { FieldValue, FieldValues, RecordKind } from '../diff/record';
import { isRoleMailbox, mailboxOf } from '../reading/mailbox';

export const IDENTITY_KEY_KINDS = ['email', 'shared-email', 'mailbox', 'phone', 'domain', 'external-id'] as const;
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

/**
 * Something by which a record can be found again. E-mail, domain and external ids belong to one record of a kind at a time.
 * Phones may be shared, and so may mailboxes of an office or a family (`shared-email`). `mailbox` is an address without its
 * tag and points, where it has any.
 */
export interface IdentityKey {
  record: RecordKind;
  kind: IdentityKeyKind;
  value: string;
}

/** One identity key as text, for use as a map key and as the name of a lock. */
export function identityKeyText(key: IdentityKey): string {
  return `${key.record} ${key.kind} ${key.value}`;
}

/** The identity keys that a record's values give it, each once. Values have their normal form already. */
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

const EXCLUSIVE: ReadonlySet<IdentityKeyKind> = new Set(['email', 'domain', 'external-id']);

/** Whether a key may belong to one record of its kind only. */
export function isExclusive({ record, kind }: IdentityKey): boolean {
  return kind.startsWith('field:') || (EXCLUSIVE.has(kind) && record !== 'lead');
}

/** Whether several may have a key all the same, where people said so: as a couple has one address. */
export function isShareable({ record, kind }: IdentityKey): boolean {
  return record === 'contact' && kind === 'email';
}

function builtInKeys(record: RecordKind, values: FieldValues): IdentityKey[] {
  switch (record) {
    case 'contact':
      return [
        ...distinctKeys(textsOf(values.email, values.emails).flatMap((email) => emailKeys(record, email))),
        ...keysOfKind(record, 'phone', values.phone, values.phones),
        ...externalIds(record, values),
      ];
    case 'company':
      return [
        ...keysOfKind(record, 'domain', values.domain, values.domains),
        ...keysOfKind(record, 'phone', values.phone),
        ...externalIds(record, values),
      ];
    case 'lead':
      return [
        ...textsOf(values.email).flatMap((email) => emailKeys(record, email)),
        ...keysOfKind(record, 'phone', values.phone),
        ...externalIds(record, values),
      ];
    case 'deal':
      return externalIds(record, values);
  }
}

/** Addresses of one mailbox, each written in another way, give its key but once. */
function distinctKeys(keys: IdentityKey[]): IdentityKey[] {
  return keys.length > 2 ? [...new Map(keys.map((key) => [identityKeyText(key), key])).values()] : keys;
}

/** An address is a key, and its mailbox one more where that is written in another way; a mailbox that several read is neither. */
export function emailKeys(record: RecordKind, email: string): IdentityKey[] {
  if (record === 'contact' && isRoleMailbox(email)) return [{ record, kind: 'shared-email', value: email }];
  const mailbox = mailboxOf(email);
  const key: IdentityKey = { record, kind: 'email', value: email };
  return mailbox === email ? [key] : [key, { record, kind: 'mailbox', value: mailbox }];
}

/**
 * The further keys under which records of the same mailbox are found: the mailbox itself as an address, and as the mailbox
 * of an address written in another way.
 */
export function mailboxKeys(record: RecordKind, values: FieldValues): IdentityKey[] {
  return textsOf(values.email).flatMap((email) => {
    if (isRoleMailbox(email)) return [];
    const mailbox = mailboxOf(email);
    const other: IdentityKey = { record, kind: 'mailbox', value: mailbox };
    return mailbox === email ? [other] : [{ record, kind: 'email', value: mailbox }, other];
  });
}

function externalIds(record: RecordKind, values: FieldValues): IdentityKey[] {
  return keysOfKind(record, 'external-id', values.external_ids);
}

function keysOfKind(record: RecordKind, kind: IdentityKeyKind, ...found: (FieldValue | undefined)[]): IdentityKey[] {
  return textsOf(...found).map((value) => ({ record, kind, value }));
}

function textsOf(...found: (FieldValue | undefined)[]): string[] {
  const texts = found.flat().filter((value): value is string => typeof value === 'string' && value !== '');
  return texts.length > 1 ? [...new Set(texts)] : texts;
}
