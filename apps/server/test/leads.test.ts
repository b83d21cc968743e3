import { expect, test } from '@jest/globals';
import type {
  DoneEdit,
  HistoryEntry,
  Page,
  PipelineGrid,
  ProblemBody,
  QualifyRehearsal,
  RecordShape,
} from '@haycart/api';
import { eachInWorkspace, type TestWorkspace, until } from './support/test-server';

let workspace: TestWorkspace;
let person: TestWorkspace['call'];

eachInWorkspace(async (made) => {
  ({ workspace } = made);
  person = await workspace.signIn();
  const stages = [
    { name: 'New', state: 'open' },
    { name: 'Called', state: 'open' },
    { name: 'Taken on', state: 'won' },
    { name: 'Dropped', state: 'lost' },
  ];
  expect((await person('POST', '/pipelines', { name: 'Enquiries', record: 'lead', stages })).status).toBe(201);
});

const VALUES = {
  name: 'Ada Weir',
  email: 'ada@weir.example',
  company_name: 'Weir Ltd',
  message: 'Two bays.',
  owner: 'robin-nye',
};
const WISH = { pipeline: 'new-builds', stage: 'design' };
async function lead(values: object = VALUES): Promise<string> {
  return (await person<{ id: string }>('POST', '/leads', { values })).body.id;
}
const items = async (kind: string) => (await workspace.get<Page<RecordShape>>(`/${kind}`)).items;
const qualify = (id: string, wish: object = WISH) =>
  person<DoneEdit & { deal: string } & ProblemBody>('POST', `/leads/${id}/qualify`, wish);

test('a lead is shown what qualifying would do, which then is what it does', async () => {
  const id = await lead();
  const { body: shown } = await person<QualifyRehearsal>('POST', `/leads/${id}/qualify/rehearse`, WISH);
  expect(shown.writes.map(({ record, did }) => [record, did])).toEqual([
    ['company', 'create'],
    ['contact', 'create'],
    ['deal', 'create'],
  ]);
  expect(await items('contacts')).toEqual([]);

  const { body } = await qualify(id);
  const deal = await workspace.get<RecordShape>(`/deals/${body.deal}`);
  expect(deal).toMatchObject({
    name: 'Weir Ltd, Ada Weir',
    owner: 'robin-nye',
    values: { stage: 'design', message: 'Two bays.' },
    links: { leads: [{ id }], contacts: [{ name: 'Ada Weir' }], company: [{ name: 'Weir Ltd' }] },
  });
  expect(await workspace.get<RecordShape>(`/leads/${id}`)).toMatchObject({
    values: { status: 'qualified', stage: 'taken-on' },
    links: { deals: [{ id: body.deal }] },
  });
  expect((await workspace.get<HistoryEntry[]>(`/leads/${id}/history`)).length).toBe(2);
  expect((await qualify(id)).status).toBe(409);
});

test('qualifying recognises who is there, and can be taken back as one act', async () => {
  const { body: made } = await person<{ id: string }>('POST', '/contacts', { values: { email: 'ada@weir.example' } });
  const id = await lead();
  const { body } = await qualify(id);
  expect((await items('contacts')).map((contact) => [contact.id, contact.name])).toEqual([[made.id, 'Ada Weir']]);
  await person('POST', `/edits/${body.edit}/take-back`);
  expect(await items('deals')).toEqual([]);
  expect(await items('companies')).toEqual([]);
  expect((await workspace.get<RecordShape>(`/contacts/${made.id}`)).values).toEqual({
    email: 'ada@weir.example',
    emails: ['ada@weir.example'],
  });
  expect((await workspace.get<RecordShape>(`/leads/${id}`)).values).toMatchObject({ status: 'open', stage: 'new' });
});

test('two people qualifying one lead at once make one deal', async () => {
  const id = await lead();
  const both = await Promise.all([qualify(id), qualify(id)]);
  expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
  expect(await items('deals')).toHaveLength(1);
});

test('a lead is set aside with a reason, and opened again', async () => {
  const id = await lead();
  expect((await person('POST', `/leads/${id}/set-aside`, {})).status).toBe(422);
  await person('POST', `/leads/${id}/set-aside`, { reason: 'Too far away' });
  expect((await workspace.get<RecordShape>(`/leads/${id}`)).values).toMatchObject({
    status: 'set-aside',
    stage: 'dropped',
    reason: 'Too far away',
  });
  expect((await qualify(id)).status).toBe(409);
  await person('POST', `/leads/${id}/reopen`);
  const { values } = await workspace.get<RecordShape>(`/leads/${id}`);
  expect(values).toMatchObject({ status: 'open', stage: 'new' });
  expect(values.reason).toBeUndefined();
});

test.each([
  ['a stage that is not there', { ...WISH, stage: 'nowhere' }],
  ['a pipeline for leads', { pipeline: 'enquiries', stage: 'new' }],
])('qualifying into %s writes nothing and says why', async (_, wish) => {
  const id = await lead();
  const { status, body } = await qualify(id, wish);
  expect([status, body.detail]).toEqual([422, expect.stringMatching(/\.$/)]);
  expect(await items('contacts')).toEqual([]);
});

test('a lead moves through its own pipeline, and ends there only by being qualified or set aside', async () => {
  const id = await lead();
  const move = (stage: string) => person<RecordShape>('POST', `/leads/${id}/move`, { stage });
  expect((await move('called')).body.values.stage).toBe('called');
  expect([(await move('taken-on')).status, (await move('dropped')).status]).toEqual([409, 409]);
  const grid = await workspace.get<PipelineGrid>('/pipelines/enquiries/grid');
  expect(grid.rows.map(({ stage, count }) => [stage, count])).toEqual([
    ['new', 0],
    ['called', 1],
  ]);
});

test('a route makes leads, one for each address while it is open', async () => {
  const answer = (key: string) => ({ parts: [{ answer: key }] });
  const place = {
    pipeline: { parts: [{ text: 'enquiries' }] },
    stage: { parts: [{ text: 'new' }] },
    again: 'update' as const,
  };
  await workspace.publish({
    format: 'haycart.route/1',
    name: 'Leads',
    from: [workspace.endpoint],
    writes: [
      {
        as: 'enquiry',
        record: 'lead',
        place,
        fills: [
          { field: 'name', value: answer('name') },
          { field: 'email', value: answer('email') },
          { field: 'message', value: answer('message') },
        ],
      },
    ],
  });
  await workspace.submit({ name: 'Ada', email: 'ada@weir.example', message: 'One' });
  await until(
    () => items('leads'),
    ({ length }) => length === 1,
  );
  await workspace.submit({ name: 'Ada', email: 'ada@weir.example', message: 'Two' });
  await until(
    () => items('leads'),
    ([one]) => one!.values.message === 'Two',
  );
  expect(await items('leads')).toHaveLength(1);
});
