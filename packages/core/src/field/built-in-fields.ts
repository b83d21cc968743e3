import { RECORD_KINDS, type RecordKind } from '../diff/record';
import type { FieldDefinition, FieldType } from './field-definition';

type Row = [key: string, label: string, type: FieldType, extra?: Partial<FieldDefinition>];

const KEPT = { kept: true } as const;
const BY_HAND = { kept: true, byHand: true } as const;
const NEEDED = { required: true } as const;

const ROWS: Record<RecordKind, Row[]> = {
  contact: [
    ['first_name', 'First name', 'text'],
    ['last_name', 'Last name', 'text'],
    ['full_name', 'Full name', 'text'],
    ['email', 'E-mail', 'email'],
    ['emails', 'All e-mails', 'several-of', BY_HAND],
    ['phone', 'Phone', 'phone'],
    ['phones', 'All phones', 'several-of', BY_HAND],
    ['job_title', 'Job title', 'text'],
    ['country', 'Country', 'text'],
    ['source', 'First source', 'text'],
    ['external_ids', 'External IDs', 'several-of'],
    ['owner', 'Owner', 'person', BY_HAND],
    ['tags', 'Tags', 'several-of', BY_HAND],
    ['lists', 'Lists', 'several-of', BY_HAND],
  ],
  company: [
    ['name', 'Name', 'text', NEEDED],
    ['domain', 'Domain', 'text'],
    ['domains', 'All domains', 'several-of', BY_HAND],
    ['website', 'Website', 'web'],
    ['phone', 'Phone', 'phone'],
    ['country', 'Country', 'text'],
    ['source', 'First source', 'text'],
    ['external_ids', 'External IDs', 'several-of'],
    ['owner', 'Owner', 'person', BY_HAND],
    ['tags', 'Tags', 'several-of', BY_HAND],
  ],
  lead: [
    ['name', 'Name', 'text', NEEDED],
    ['email', 'E-mail', 'email'],
    ['phone', 'Phone', 'phone'],
    ['company_name', 'Company', 'text'],
    ['message', 'Message', 'long-text'],
    ['source', 'First source', 'text'],
    ['pipeline', 'Pipeline', 'text', KEPT],
    ['stage', 'Stage', 'text', KEPT],
    ['status', 'Status', 'text', KEPT],
    ['stage_since', 'In this stage since', 'date-time', KEPT],
    ['reason', 'Set aside because', 'text', KEPT],
    ['external_ids', 'External IDs', 'several-of'],
    ['owner', 'Owner', 'person', BY_HAND],
    ['tags', 'Tags', 'several-of', BY_HAND],
  ],
  deal: [
    ['name', 'Name', 'text', NEEDED],
    ['value', 'Value', 'money'],
    ['message', 'Message', 'long-text'],
    ['source', 'Source', 'text'],
    ['pipeline', 'Pipeline', 'text', KEPT],
    ['stage', 'Stage', 'text', KEPT],
    ['status', 'Status', 'text', KEPT],
    ['stage_since', 'In this stage since', 'date-time', KEPT],
    ['closed_at', 'Closed', 'date-time', KEPT],
    ['reason', 'Closed because', 'text', KEPT],
    ['external_ids', 'External IDs', 'several-of'],
    ['owner', 'Owner', 'person', BY_HAND],
    ['tags', 'Tags', 'several-of', BY_HAND],
  ],
};

/** The fields that every workspace has. A workspace may make more of them required. */
export const BUILT_IN_FIELDS: readonly FieldDefinition[] = RECORD_KINDS.flatMap((record) =>
  ROWS[record].map(([key, label, type, extra]) => ({
    record,
    key,
    label,
    type,
    builtIn: true,
    required: false,
    ...extra,
  })),
);
