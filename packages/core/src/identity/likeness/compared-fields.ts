import type { RecordKind } from '../../diff/record';
import type { Agreement } from './agreement';
import { compareCountries, compareEmails, comparePhones } from './compare-contacts';
import {
  compareAmounts,
  compareBeginnings,
  compareCompanies,
  compareContacts,
  compareDomains,
  compareFirmNames,
  compareJobs,
  comparePipelines,
} from './compare-firms';
import { compareNames } from './compare-names';
import type { ComparedRecord } from './compared';

/** Something in which records of a kind are compared. */
export interface ComparedField {
  field: string;
  label: string;
}

const PERSON: ComparedField[] = [
  { field: 'given', label: 'Given name' },
  { field: 'family', label: 'Family name' },
  { field: 'email', label: 'E-mail' },
  { field: 'phone', label: 'Phone' },
  { field: 'company', label: 'Company' },
];

/** In what records of each kind are compared, in the order in which patterns hold them. */
export const COMPARED_FIELDS: Record<RecordKind, readonly ComparedField[]> = {
  contact: [...PERSON, { field: 'country', label: 'Country' }, { field: 'job', label: 'Job title' }],
  lead: PERSON,
  company: [
    { field: 'name', label: 'Name' },
    { field: 'domain', label: 'Domain' },
    { field: 'phone', label: 'Phone' },
    { field: 'country', label: 'Country' },
  ],
  deal: [
    { field: 'name', label: 'Name' },
    { field: 'contact', label: 'Contact' },
    { field: 'company', label: 'Company' },
    { field: 'value', label: 'Value' },
    { field: 'begun', label: 'Begun' },
    { field: 'pipeline', label: 'Pipeline' },
  ],
};

/**
 * How far two records of one kind agree, in the order of `COMPARED_FIELDS`.
 *
 * @param company How two people agree in their companies, where that is not to be told from what is known of them.
 */
export function agreements(one: ComparedRecord, other: ComparedRecord, company?: Agreement): Agreement[] {
  switch (one.kind) {
    case 'contact':
      return [...personAgreements(one, other, company), compareCountries(one, other), compareJobs(one, other)];
    case 'lead':
      return personAgreements(one, other, company);
    case 'company':
      return [
        compareFirmNames(one.firmName, other.firmName),
        compareDomains(one, other),
        comparePhones(one, other),
        compareCountries(one, other),
      ];
    case 'deal':
      return [
        compareFirmNames(one.firmName, other.firmName),
        compareContacts(one, other),
        compareCompanies(one, other),
        compareAmounts(one, other),
        compareBeginnings(one, other),
        comparePipelines(one, other),
      ];
  }
}

function personAgreements(
  one: ComparedRecord,
  other: ComparedRecord,
  company = compareCompanies(one, other),
): Agreement[] {
  const { given, family } = compareNames(one.name, other.name);
  const phone = comparePhones(one, other);
  return [given, family, compareEmails(one, other, { phone, company }), phone, company];
}
