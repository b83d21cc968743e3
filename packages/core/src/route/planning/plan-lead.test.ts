import { expect, test } from '@jest/globals';
import type { Destination } from '../../destination/destination';
import { answer, destination, fill, known, plan, routeOf, submission, text } from '../../testing/example';
import type { Write } from '../../definition/route-definition';

const where: Destination = {
  ...destination,
  pipelines: [
    ...destination.pipelines,
    {
      key: 'enquiries',
      name: 'Enquiries',
      record: 'lead',
      stages: [
        { key: 'new', name: 'New', state: 'open' },
        { key: 'called', name: 'Called', state: 'open' },
        { key: 'taken', name: 'Taken on', state: 'won' },
      ],
    },
  ],
};
const enquiry: Write = {
  as: 'enquiry',
  record: 'lead',
  place: { pipeline: text('enquiries'), stage: text('new'), again: 'update' },
  fills: [fill('name', answer('name')), fill('email', answer('email', 'email')), fill('message', answer('message'))],
};
const { place: _, ...unplaced } = enquiry;
const maren = { name: 'Maren', email: 'maren@fennwick.example', message: 'Hello' };
const before = (status: string) =>
  known({ id: 'old', kind: 'lead', values: { ...maren, status, pipeline: 'enquiries', stage: 'called' } });

test('an enquiry becomes a lead in its pipeline', () => {
  const { diff } = plan(routeOf(enquiry), submission(maren), known(), where);
  expect(Object.values(diff.created)).toEqual([
    {
      kind: 'lead',
      values: { ...maren, pipeline: 'enquiries', stage: 'new', status: 'open', stage_since: expect.any(String) },
    },
  ]);
});

test('a second enquiry of the same address updates the open lead, and does not drag it backwards', () => {
  const { writes, diff } = plan(routeOf(enquiry), submission({ ...maren, message: 'Again' }), before('open'), where);
  expect(writes[0]).toMatchObject({ id: 'old', did: 'change', match: { by: 'open-lead' }, place: { did: 'stays' } });
  expect(diff.changed.old!.fields).toEqual({ message: { before: 'Hello', after: 'Again' } });
});

test('once a lead is qualified or set aside, another enquiry is another lead', () => {
  for (const status of ['qualified', 'set-aside'])
    expect(plan(routeOf(enquiry), submission(maren), before(status), where).writes[0]!.did).toBe('create');
});

test('a lead that stands in no pipeline is open', () => {
  const { diff } = plan(routeOf(unplaced), submission(maren), known(), where);
  expect(Object.values(diff.created)[0]!.values).toEqual({ ...maren, status: 'open' });
});
