import type { FieldValue, FieldValues, RecordKind } from '../../diff/record';
import { companyNameForm, type CompanyNameForm } from '../company-name-form';
import { companyDomain } from '../../reading/domain';
import { remembered } from '../../remembered';
import { isRoleMailbox, mailboxOf } from '../../reading/mailbox';
import { personNameForm, type NameForm } from '../person-name-form';

/** What a record is linked to, as far as it tells who or what it is. */
export interface Around {
  companies?: readonly { id: string; values: FieldValues }[];
  /** The ids of a deal’s contacts. */
  contacts?: readonly string[];
  /** ISO 8601. */
  createdAt?: string;
}

/** A record as it is compared: everything in its normal form, worked out once for however many comparisons. */
export interface ComparedRecord {
  kind: RecordKind;
  name: NameForm | null;
  firmName: CompanyNameForm | null;
  /** Mailboxes of one person. */
  mailboxes: readonly string[];
  /** Mailboxes that several people read. */
  sharedMailboxes: readonly string[];
  phones: readonly string[];
  companies: { ids: readonly string[]; domains: readonly string[]; names: readonly CompanyNameForm[] };
  domain: string | null;
  country: string | null;
  job: readonly string[];
  contacts: readonly string[];
  value: { amount: number; currency: string } | null;
  pipeline: string | null;
  begun: string | null;
}

const NOTHING: Omit<ComparedRecord, 'kind'> = {
  name: null,
  firmName: null,
  mailboxes: [],
  sharedMailboxes: [],
  phones: [],
  companies: { ids: [], domains: [], names: [] },
  domain: null,
  country: null,
  job: [],
  contacts: [],
  value: null,
  pipeline: null,
  begun: null,
};

/** The fields that a record is compared by, of people and companies. */
export const COMPARED_VALUES: ReadonlySet<string> = new Set(
  'full_name first_name last_name name email emails phone phones country job_title company_name domain'.split(' '),
);

/** The form in which a record is compared with others of its kind. */
export function comparedForm(kind: RecordKind, values: FieldValues, around: Around = {}): ComparedRecord {
  const emails = texts(values.email, values.emails);
  const people = {
    name: personNameForm(values),
    mailboxes: unique(emails.filter((email) => !isRoleMailbox(email)).map((email) => mailboxOf(email))),
    sharedMailboxes: unique(emails.filter(isRoleMailbox)),
    phones: unique(texts(values.phone, values.phones)),
    country: texts(values.country)[0]?.toLowerCase() ?? null,
  };
  switch (kind) {
    case 'contact':
      return {
        ...NOTHING,
        kind,
        ...people,
        companies: companiesOf(emails, around, []),
        job: texts(values.job_title).flatMap(wordsOfJob),
      };
    case 'lead':
      return { ...NOTHING, kind, ...people, companies: companiesOf(emails, around, texts(values.company_name)) };
    case 'company':
      return {
        ...NOTHING,
        kind,
        firmName: companyNameForm(texts(values.name)[0] ?? ''),
        domain: texts(values.domain)[0] ?? null,
        phones: people.phones,
        country: people.country,
      };
    case 'deal':
      return {
        ...NOTHING,
        kind,
        firmName: companyNameForm(texts(values.name)[0] ?? ''),
        companies: companiesOf([], around, []),
        contacts: around.contacts ?? [],
        value: typeof values.value === 'object' && 'amount' in values.value ? values.value : null,
        pipeline: texts(values.pipeline)[0] ?? null,
        begun: around.createdAt ?? null,
      };
  }
}

const wordsOfJob = remembered((title): readonly string[] =>
  title.slice(0, 300).toLowerCase().split(/\W+/).filter(Boolean),
);

function companiesOf(
  emails: readonly string[],
  { companies = [] }: Around,
  named: readonly string[],
): ComparedRecord['companies'] {
  const names = [...companies.flatMap(({ values }) => texts(values.name)), ...named];
  return {
    ids: companies.map(({ id }) => id),
    domains: unique(
      [...companies.flatMap(({ values }) => texts(values.domain)), ...emails.map(companyDomain)].filter(
        (domain) => domain !== null,
      ),
    ),
    names: names.flatMap((name) => companyNameForm(name) ?? []),
  };
}

function texts(...values: (FieldValue | undefined)[]): string[] {
  const found: string[] = [];
  for (const value of values)
    for (const one of Array.isArray(value) ? value : [value]) if (typeof one === 'string' && one) found.push(one);
  return found;
}

function unique(items: readonly string[]): string[] {
  return items.length > 1 ? [...new Set(items)] : [...items];
}
