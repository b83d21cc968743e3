import { describe, expect, jest, test } from '@jest/globals';
import type {
  DoneEdit,
  HistoryEntry,
  LabelUse,
  MembershipLine,
  Page,
  ProblemBody,
  RecordShape,
  RecordSheet,
  SubmissionDetail,
  TaskLine,
} from '@haycart/api';
import pg from 'pg';
import { Jobs } from '../src/platform/jobs/jobs';
import { routeFrom } from './support/routes';
import { eachInWorkspace, type TestServer, type TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
let person: TestWorkspace['call'];

eachInWorkspace(async (made) => {
  ({ server, workspace } = made);
  person = await workspace.signIn();
});

type Made = DoneEdit & { id: string };
async function make(kind: string, values: object, links: string[] = []): Promise<string> {
  const { status, body } = await person<Made>('POST', `/${kind}`, { values, links });
  expect({ status, body }).toMatchObject({ status: 201 });
  return body.id;
}
const edit = (path: string, body: object) => person<DoneEdit & ProblemBody>('PATCH', path, body);
const record = (path: string) => workspace.get<RecordShape>(path);
const takeBack = (id: string | null) => person<DoneEdit & { left: number }>('POST', `/edits/${id}/take-back`);
const total = async (kind: string) => (await workspace.get<Page<RecordShape>>(`/${kind}`)).total;

describe('an edit', () => {
  test('is a diff with its author, and can be taken back', async () => {
    const id = await make('contacts', { first_name: 'Ada', last_name: 'Weir' });
    const { body } = await edit(`/contacts/${id}`, { values: { last_name: 'Lock', phone: '020 7946 0018' } });
    expect((await record(`/contacts/${id}`)).values).toMatchObject({ full_name: 'Ada Lock', phone: '+442079460018' });
    const [latest] = await workspace.get<HistoryEntry[]>(`/contacts/${id}/history`);
    expect(latest).toMatchObject({
      cause: { kind: 'person', label: 'Robin Nye', edit: { takenBack: false } },
      values: expect.arrayContaining([expect.objectContaining({ field: 'last_name', before: 'Weir', after: 'Lock' })]),
    });
    expect((await takeBack(body.edit)).body).toMatchObject({ records: 1, left: 0 });
    expect((await record(`/contacts/${id}`)).values).toEqual({
      first_name: 'Ada',
      last_name: 'Weir',
      full_name: 'Ada Weir',
    });
    expect((await takeBack(body.edit)).status).toBe(409);
  });

  test('is taken back without touching what was changed since', async () => {
    const id = await make('contacts', { first_name: 'Ada', country: 'GB' });
    const { body } = await edit(`/contacts/${id}`, { values: { first_name: 'Eda', country: 'NL' } });
    await edit(`/contacts/${id}`, { values: { country: 'DE' } });
    expect((await takeBack(body.edit)).body).toMatchObject({ left: 1 });
    expect((await record(`/contacts/${id}`)).values).toMatchObject({ first_name: 'Ada', country: 'DE' });
  });

  test('does not silently win: who changed the field meanwhile is told, and nothing is overwritten', async () => {
    const id = await make('contacts', { first_name: 'Ada' });
    const both = await Promise.all(
      ['Ida', 'Eda'].map((name) =>
        edit(`/contacts/${id}`, { values: { first_name: name }, was: { first_name: 'Ada' } }),
      ),
    );
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    const { body } = both.find(({ status }) => status === 409)!;
    const { first_name: now } = (await record(`/contacts/${id}`)).values;
    expect(body).toMatchObject({
      code: 'changed-meanwhile',
      detail: expect.stringContaining('Robin Nye'),
      errors: [{ at: '/values/first_name', message: expect.stringContaining(`“${String(now)}”`) }],
    });
  });

  test.each<[object, string]>([
    [{ values: { email: 'nobody' } }, '/values/email'],
    [{ values: { colour: 'red' } }, '/values/colour'],
    [{ values: { emails: ['a@weir.example', 7] } }, '/values/emails'],
    [{ values: { owner: 'nobody' } }, '/values/owner'],
    [{ add: { lists: ['no-list'] } }, '/add/lists'],
  ])('with %j is refused at %s', async (change, at) => {
    const id = await make('contacts', { first_name: 'Ada' });
    const { status, body } = await edit(`/contacts/${id}`, change);
    expect([status, body.errors?.[0]?.at]).toEqual([422, at]);
    expect((await record(`/contacts/${id}`)).values.first_name).toBe('Ada');
  });

  test('cannot give two contacts one address, whichever of their addresses it is', async () => {
    await make('contacts', { full_name: 'Ada Weir', emails: ['ada@weir.example', 'a@home.example'] });
    const other = await make('contacts', { full_name: 'Ida' });
    const { status, body } = await edit(`/contacts/${other}`, { values: { email: 'A@home.example' } });
    expect([status, body.detail]).toEqual([409, expect.stringContaining('Ada Weir')]);
  });

  test('of many at once is all or nothing, and one act', async () => {
    await workspace.call('POST', '/tags', { name: 'Press' });
    const ids = await Promise.all(['Ada', 'Ida', 'Eda'].map((full_name) => make('contacts', { full_name })));
    const many = (body: object) => person<DoneEdit & ProblemBody>('POST', '/contacts/edit', body);
    expect((await many({ ids, edit: { values: { phone: 'x' } } })).status).toBe(422);
    const query = { filter: JSON.stringify({ of: { field: 'full_name' }, test: 'contains', value: 'da' }) };
    const done = await many({ query, edit: { add: { tags: ['press'] }, values: { owner: 'robin-nye' } } });
    expect(done.body).toMatchObject({ records: 3 });
    for (const id of ids)
      expect(await record(`/contacts/${id}`)).toMatchObject({ tags: ['press'], owner: 'robin-nye' });
    await takeBack(done.body.edit);
    for (const id of ids) expect(await record(`/contacts/${id}`)).toMatchObject({ tags: [], owner: null });
    expect((await many({ edit: {} })).status).toBe(422);
    expect((await many({ ids: [...ids, '00000000-0000-7000-8000-000000000000'], edit: { values: {} } })).status).toBe(
      404,
    );
  });
});

describe('a deletion', () => {
  test('takes the record with its links, and gives it back whole: number, links, addresses, notes', async () => {
    const company = await make('companies', { name: 'Weir Ltd' });
    const id = await make('contacts', { full_name: 'Ada Weir', email: 'ada@weir.example' }, [company]);
    await person('POST', `/contacts/${id}/notes`, { text: 'Called.' });
    const before = await record(`/contacts/${id}`);
    const { body } = await person<DoneEdit>('DELETE', `/contacts/${id}`);
    expect((await workspace.call('GET', `/contacts/${id}`)).status).toBe(404);
    expect((await record(`/companies/${company}`)).links).toEqual({});
    await takeBack(body.edit);
    const after = await record(`/contacts/${id}`);
    expect({ ...after, updatedAt: '' }).toEqual({ ...before, updatedAt: '' });
    expect((await workspace.get<RecordSheet>(`/contacts/${id}/sheet`)).notes).toMatchObject([{ text: 'Called.' }]);
    expect(
      (await edit(`/contacts/${await make('contacts', {})}`, { values: { email: 'ada@weir.example' } })).status,
    ).toBe(409);
  });

  test('cannot be taken back while somebody else has the address, and says who', async () => {
    const id = await make('contacts', { full_name: 'Ada', email: 'ada@weir.example' });
    const { body } = await person<DoneEdit>('DELETE', `/contacts/${id}`);
    await make('contacts', { full_name: 'New Ada', email: 'ada@weir.example' });
    const back = await person<ProblemBody>('POST', `/edits/${body.edit}/take-back`);
    expect([back.status, back.body.detail]).toEqual([409, expect.stringContaining('New Ada')]);
    expect(await total('contacts')).toBe(1);
  });

  test('of many is one act', async () => {
    for (const full_name of ['Ada', 'Ida']) await make('contacts', { full_name });
    const { body } = await person<DoneEdit>('POST', '/contacts/delete', { query: {} });
    expect(await total('contacts')).toBe(0);
    await takeBack(body.edit);
    expect(await total('contacts')).toBe(2);
  });

  test('of what a second enquiry then makes again keeps both stories apart', async () => {
    await workspace.publish();
    const payload = { name: 'Ada', email: 'ada@weir.example', company: 'Weir' };
    await workspace.submit(payload);
    await until(
      () => total('deals'),
      (count) => count === 1,
    );
    await person('POST', '/contacts/delete', { query: {} });
    await workspace.submit(payload);
    await until(
      () => total('deals'),
      (count) => count === 2,
    );
    expect(await total('contacts')).toBe(1);
  });
});

test('what a person typed stays over what arrives later, where a route says so, until they take it back', async () => {
  const definition = routeFrom(workspace.endpoint);
  definition.writes[1]!.fills.find(({ field }) => field === 'phone')!.overwrite = 'unless-typed';
  await workspace.publish(definition);
  const phoneAfter = async (phone: string) => {
    const id = await workspace.submit({ name: 'Ada Weir', email: 'ada@weir.example', phone });
    const { runs } = await until(
      () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
      ({ state }) => state !== 'waiting',
    );
    expect(runs.map(({ outcome }) => outcome)).toEqual(['written']);
    const [contact] = (await workspace.get<Page<RecordShape>>('/contacts')).items;
    return contact!;
  };
  const { id } = await phoneAfter('07700 900318');
  expect((await phoneAfter('07700 900319')).values.phone).toBe('+447700900319');
  const { body } = await edit(`/contacts/${id}`, { values: { phone: '07700 900444' } });
  expect((await phoneAfter('07700 900320')).values.phone).toBe('+447700900444');
  await takeBack(body.edit);
  expect((await phoneAfter('07700 900321')).values.phone).toBe('+447700900321');
});

test('what a person made is unmade again, as long as nobody has changed it', async () => {
  const { body } = await person<Made>('POST', '/companies', { values: { name: 'Weir' } });
  await takeBack(body.edit);
  expect(await total('companies')).toBe(0);
  const { body: other } = await person<Made>('POST', '/companies', { values: { name: 'Weir' } });
  await edit(`/companies/${other.id}`, { values: { country: 'GB' } });
  expect((await takeBack(other.edit)).body).toMatchObject({ records: 0, left: 1 });
  expect(await total('companies')).toBe(1);
});

describe('links', () => {
  const link = (path: string, change: object) => person<DoneEdit & ProblemBody>('POST', `${path}/links`, change);

  test('are made, undone and taken back', async () => {
    const [company, id] = [await make('companies', { name: 'Weir' }), await make('contacts', { full_name: 'Ada' })];
    const { body } = await link(`/contacts/${id}`, { add: [company] });
    expect((await record(`/contacts/${id}`)).links.company).toMatchObject([{ name: 'Weir' }]);
    await takeBack(body.edit);
    expect((await record(`/contacts/${id}`)).links).toEqual({});
    expect((await link(`/contacts/${id}`, { add: ['nothing'] })).status).toBe(422);
  });

  test('never let a company stand above itself', async () => {
    const [top, middle, low] = [
      await make('companies', { name: 'Top' }),
      await make('companies', { name: 'Middle' }),
      await make('companies', { name: 'Low' }),
    ];
    await link(`/companies/${middle}`, { add: [top] });
    await link(`/companies/${low}`, { add: [middle] });
    expect((await link(`/companies/${top}`, { add: [low] })).status).toBe(409);
    expect((await link(`/companies/${top}`, { add: [top] })).status).toBe(409);
    await link(`/companies/${low}`, { add: [top] });
    expect((await record(`/companies/${low}`)).links.company).toMatchObject([{ name: 'Top' }]);
  });
});

test('notes, tasks, files and consent stand on the record’s page', async () => {
  const id = await make('contacts', { full_name: 'Ada' });
  const on = `/contacts/${id}`;
  const note = await person<{ id: string }>('POST', `${on}/notes`, { text: 'Called' });
  await person('PATCH', `${on}/notes/${note.body.id}`, { text: 'Called twice' });
  const task = await person<{ id: string }>('POST', `${on}/tasks`, {
    text: 'Call again',
    owner: 'robin-nye',
    due: '2026-12-01',
  });
  expect(await workspace.get<Page<TaskLine>>('/tasks?owner=robin-nye')).toMatchObject({
    items: [{ name: 'Ada', due: '2026-12-01' }],
  });
  await person('PATCH', `${on}/tasks/${task.body.id}`, { done: true });
  const file = await workspace.attach<{ id: string }>(`${on}/files`, '../plan.html', '<script>alert(1)</script>');
  for (const state of ['given', 'withdrawn'])
    await person('POST', `${on}/consents`, { channel: 'email', state, words: 'You may write', place: 'by phone' });
  const sheet = await workspace.get<RecordSheet>(`${on}/sheet`);
  expect(sheet).toMatchObject({
    notes: [{ text: 'Called twice', by: 'Robin Nye', changedAt: expect.any(String) }],
    tasks: [{ text: 'Call again', doneBy: 'Robin Nye' }],
    files: [{ name: 'plan.html', size: 25 }],
    consents: [{ state: 'withdrawn' }, { state: 'given', words: 'You may write' }],
  });
  expect(await workspace.get('/tasks')).toMatchObject({ items: [] });
  const served = await fetch(`${server.base}/api/v1${on}/files/${file.body.id}`, {
    headers: { authorization: `Bearer ${workspace.token}` },
  });
  expect(served.headers.get('content-disposition')).toMatch(/^attachment/);
  expect(served.headers.get('content-security-policy')).toContain('sandbox');
  for (const [what, one] of [
    ['notes', note.body.id],
    ['files', file.body.id],
    ['consents', sheet.consents[0]!.id],
  ] as const)
    expect((await person('DELETE', `${on}/${what}/${one}`)).status).toBe(what === 'consents' ? 404 : 204);
  expect((await person('POST', `${on}/tasks`, { text: 'x', owner: 'nobody' })).status).toBe(422);
  expect((await person('POST', `${on}/tasks`, { text: 'x', due: '2026-02-30' })).status).toBe(422);
  expect((await person('POST', `/contacts/${note.body.id}/notes`, { text: 'x' })).status).toBe(404);
});

describe('labels', () => {
  const labels = (kind: string) => workspace.get<LabelUse[]>(`/${kind}`);
  const add = (kind: string, name: string) => person<LabelUse & ProblemBody>('POST', `/${kind}`, { name });

  test('are renamed without their key, merged everywhere, and given back', async () => {
    for (const name of ['Press', 'Journalists']) await add('tags', name);
    expect((await add('tags', 'PRESS')).status).toBe(422);
    const id = await make('companies', { name: 'Weir', tags: ['press', 'journalists'] });
    const contact = await make('contacts', { full_name: 'Ada', tags: ['journalists'] });
    await person('PATCH', '/tags/press', { name: 'Media', colour: 'plum' });
    const { body } = await person<DoneEdit>('POST', '/tags/journalists/merge', { into: 'press' });
    expect(await labels('tags')).toEqual([{ key: 'press', name: 'Media', colour: 'plum', records: 2 }]);
    expect([(await record(`/companies/${id}`)).tags, (await record(`/contacts/${contact}`)).tags]).toEqual([
      ['press'],
      ['press'],
    ]);
    await takeBack(body.edit);
    expect((await record(`/companies/${id}`)).tags).toEqual(['press', 'journalists']);
    expect(await labels('tags')).toMatchObject([
      { name: 'Journalists', records: 2 },
      { name: 'Media', records: 1 },
    ]);
    expect((await person('POST', '/tags/press/merge', { into: 'press' })).status).toBe(409);
  });

  test('that were deleted do not come back beside another of their name', async () => {
    await add('tags', 'Press');
    const id = await make('companies', { name: 'Weir', tags: ['press'] });
    const { body } = await person<DoneEdit>('DELETE', '/tags/press');
    expect((await add('tags', 'Press')).body.key).toBe('press-2');
    expect((await person<ProblemBody>('POST', `/edits/${body.edit}/take-back`)).body).toMatchObject({
      detail: 'There is a tag “Press” already.',
    });
    await person('DELETE', '/tags/press-2');
    await takeBack(body.edit);
    expect((await record(`/companies/${id}`)).tags).toEqual(['press']);
  });

  test('of a list keep who came and went', async () => {
    await add('lists', 'Readers');
    const id = await make('contacts', { full_name: 'Ada', lists: ['readers'] });
    await edit(`/contacts/${id}`, { remove: { lists: ['readers'] } });
    await edit(`/contacts/${id}`, { add: { lists: ['readers'] } });
    const lines = await workspace.get<MembershipLine[]>('/lists/readers/memberships');
    expect(lines).toMatchObject([
      { name: 'Ada', leftAt: null },
      { name: 'Ada', leftAt: expect.any(String) },
    ]);
    await person('DELETE', '/lists/readers');
    expect((await record(`/contacts/${id}`)).values.lists).toBeUndefined();
    expect(await labels('lists')).toEqual([]);
  });
});

test('a record’s page takes two round trips to the database, however much stands on it', async () => {
  const company = await make('companies', { name: 'Weir' });
  const id = await make('contacts', { full_name: 'Ada' }, [company]);
  for (const text of ['One', 'Two']) await person('POST', `/contacts/${id}/notes`, { text });
  const open = () => workspace.get<RecordSheet>(`/contacts/${id}/sheet`);
  // What else goes on in the server asks the database too, and changes what is kept of the workspace.
  await server.app.get(Jobs).onModuleDestroy();
  await open();
  const asked = jest.spyOn(pg.Client.prototype, 'query');
  try {
    const sheet = await open();
    expect([sheet.notes.length, sheet.record.links.company?.length]).toEqual([2, 1]);
    const names = asked.mock.calls.map(([query]) => (query as unknown as { name?: string }).name ?? 'unnamed');
    // Workers look for what waits and what is to be sent meanwhile.
    expect(names.filter((name) => !name.startsWith('gate_workspaces_'))).toEqual(['gate_api_token', 'contact_sheet']);
  } finally {
    asked.mockRestore();
  }
});
