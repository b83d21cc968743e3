import { describe, expect, test } from '@jest/globals';
import type { Destination } from '../destination/destination';
import type { FieldDefinition } from '../field/field-definition';
import { KnownRecords } from '../identity/known-records';
import type { KnownRecord } from '../diff/known-record';
import { lookupsFor } from '../route/planning/lookups';
import { destination, known } from '../testing/example';
import { closedLead, planQualify, qualifyingRoute } from './qualify';

const BAYS: FieldDefinition = {
  record: 'lead',
  key: 'bays',
  label: 'Bays',
  type: 'whole-number',
  builtIn: false,
  required: false,
};
const where: Destination = {
  ...destination,
  fields: [...destination.fields, BAYS],
  pipelines: [
    ...destination.pipelines,
    {
      key: 'enquiries',
      name: 'Enquiries',
      record: 'lead',
      stages: [
        { key: 'new', name: 'New', state: 'open' },
        { key: 'taken', name: 'Taken on', state: 'won' },
        { key: 'dropped', name: 'Dropped', state: 'lost' },
      ],
    },
  ],
};
const lead: KnownRecord = {
  id: 'lead',
  kind: 'lead',
  createdAt: '2026-03-01T00:00:00.000Z',
  writtenAt: {},
  values: {
    name: 'Maren de Oduya',
    email: 'm.oduya@fennwick.example',
    company_name: 'Fennwick Academy',
    message: 'Six bays, please.',
    source: 'fair',
    bays: 6,
    status: 'open',
    pipeline: 'enquiries',
    stage: 'new',
    owner: 'robin-nye',
    tags: ['press'],
  },
};
const AT = '2026-03-14T12:00:00.000Z';
const newIds = { firm: 'new firm', person: 'new person', sale: 'new sale' };
const qualify = (records = known(), of = lead) =>
  planQualify(of, { pipeline: 'new-builds', stage: 'design', at: AT, newIds }, records, where);

describe('qualifying a lead', () => {
  test('makes a company, a contact and a deal that point to each other, and the deal back to the lead', () => {
    const { diff } = qualify();
    expect(diff.created['new person']!.values).toMatchObject({
      first_name: 'Maren de',
      last_name: 'Oduya',
      full_name: 'Maren de Oduya',
      source: 'fair',
    });
    expect(diff.created['new firm']!.values).toMatchObject({ name: 'Fennwick Academy', domain: 'fennwick.example' });
    expect(diff.created['new sale']!.values).toMatchObject({
      name: 'Fennwick Academy, Maren de Oduya',
      stage: 'design',
      stage_since: AT,
      message: 'Six bays, please.',
      bays: 6,
      owner: 'robin-nye',
      tags: ['press'],
    });
    expect(diff.linked).toEqual(
      expect.arrayContaining([
        { from: 'new person', to: 'new firm' },
        { from: 'new sale', to: 'new person' },
        { from: 'new sale', to: 'lead' },
        { from: 'lead', to: 'new person' },
      ]),
    );
    expect(diff.changed.lead!.fields).toMatchObject({
      status: { before: 'open', after: 'qualified' },
      stage: { after: 'taken' },
    });
  });

  test('recognises who is known already, fills blanks only, and makes no second one', () => {
    const maren = {
      id: 'maren',
      kind: 'contact' as const,
      values: { email: 'm.oduya@fennwick.example', full_name: 'M. Oduya' },
    };
    const { plan, diff } = qualify(known(maren));
    expect(plan.writes.find(({ as }) => as === 'person')).toMatchObject({ id: 'maren', did: 'change' });
    expect(diff.changed.maren!.fields.full_name).toBeUndefined();
    expect(diff.created['new person']).toBeUndefined();
  });

  test('asks the database for no more than its rules look at', () => {
    const { route, submission } = qualifyingRoute(lead, { pipeline: 'new-builds', stage: 'design' }, where);
    expect(lookupsFor(route, submission, where).keys.map(({ record, kind }) => `${record} ${kind}`)).toEqual([
      'company domain',
      'contact email',
      'contact mailbox',
    ]);
  });

  test('changes nothing, the lead least of all, when what is needed is missing', () => {
    const { email: _, ...values } = lead.values;
    const { plan, diff } = qualify(new KnownRecords(), { ...lead, values });
    expect(plan).toMatchObject({ outcome: 'fail', reason: { code: 'required-blank' } });
    expect(diff.changed).toEqual({});
  });

  test('makes no company of a free mailbox and no name', () => {
    const { company_name: _, ...values } = lead.values;
    const { diff } = qualify(known(), { ...lead, values: { ...values, email: 'maren@gmail.com' } });
    expect(Object.keys(diff.created).sort()).toEqual(['new person', 'new sale']);
  });
});

test('a lead that is set aside says why, and stands where its pipeline puts such', () => {
  expect(closedLead(lead, 'lost', AT, where, 'Too far away')).toMatchObject({
    status: 'set-aside',
    stage: 'dropped',
    stage_since: AT,
    reason: 'Too far away',
  });
  expect(closedLead({ values: { name: 'X' } }, 'lost', AT, where, 'Spam')).toEqual({
    name: 'X',
    status: 'set-aside',
    reason: 'Spam',
  });
});
