import { expect, test } from '@jest/globals';
import type {
  PersonLinkShape,
  PersonShape,
  ProblemBody,
  SavedView,
  SessionShape,
  TeamShape,
  WorkspaceShape,
} from '@haycart/api';
import { eachInWorkspace, type TestServer, type TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
let robin: TestWorkspace['call'];

eachInWorkspace(async (made) => {
  ({ server, workspace } = made);
  robin = await workspace.signIn();
});

const ida = () => ({ name: 'Ida Weir', email: `ida-${workspace.key}@weir.example` });
const change = (key: string, body: object) => robin<PersonShape & ProblemBody>('PATCH', `/people/${key}`, body);

test('a person has regions, languages, hours, a time zone, a capacity and days away', async () => {
  const details = {
    regions: ['NL', 'DE'],
    languages: ['nl'],
    timeZone: 'Europe/Amsterdam',
    hours: { mon: { from: '09:00', to: '17:00' } },
    capacity: 40,
    away: [{ from: '2026-12-24', to: '2027-01-02' }],
  };
  expect((await change('robin-nye', details)).body).toMatchObject(details);
  expect(await workspace.get<PersonShape[]>('/people')).toMatchObject([{ key: 'robin-nye', ...details }]);
});

test.each([
  [{ timeZone: 'Mars/Olympus' }, '/timeZone'],
  [{ regions: ['Holland'] }, '/regions/0'],
  [{ hours: { mon: { from: '17:00', to: '09:00' } } }, '/hours/mon'],
  [{ capacity: -1 }, '/capacity'],
  [{ away: [{ from: '2026-12-24', to: '2026-12-01' }] }, '/away/0'],
])('%j is refused with its place', async (body, at) => {
  const { status, body: problem } = await change('robin-nye', body);
  expect([status, problem.errors![0]!.at]).toEqual([422, at]);
});

test('whoever is not active is signed out at once and cannot sign in, but keeps their records', async () => {
  const { body } = await robin<{ link: PersonLinkShape }>('POST', '/people', ida());
  await server.postJson(`/api/v1/session/link/${body.link.address.split('/').pop()}`, { password: 'a long password' });
  expect((await robin('POST', '/contacts', { values: { full_name: 'X', owner: 'ida-weir' } })).status).toBe(201);
  const signIn = () => server.postJson('/api/v1/session', { email: ida().email, password: 'a long password' });
  const cookie = (await signIn()).headers.get('set-cookie')!.split(';')[0]!;
  const ask = () => fetch(`${server.base}/api/v1/session`, { headers: { cookie } });
  expect((await ask()).status).toBe(200);
  await change('ida-weir', { active: false });
  expect([(await ask()).status, (await signIn()).status]).toEqual([401, 401]);
  expect((await robin('POST', '/contacts', { values: { owner: 'ida-weir' } })).status).toBe(422);
  expect((await change('robin-nye', { active: false })).status).toBe(409);
});

test('two people of one name have two keys', async () => {
  await robin('POST', '/people', ida());
  const { body } = await robin<PersonShape>('POST', '/people', { ...ida(), email: `other-${ida().email}` });
  expect(body.key).toBe('ida-weir-2');
});

test('teams are made, changed and removed; their people stay', async () => {
  await robin('POST', '/people', ida());
  const { body } = await robin<TeamShape>('POST', '/teams', { name: 'Builds North', people: ['ida-weir'] });
  expect(body).toEqual({ key: 'builds-north', name: 'Builds North', people: ['ida-weir'], promise: null });
  expect((await robin('POST', '/teams', { name: 'builds north' })).status).toBe(422);
  expect((await robin('PATCH', '/teams/builds-north', { people: ['nobody'] })).status).toBe(422);
  await robin('PATCH', '/teams/builds-north', { name: 'North', people: ['ida-weir', 'robin-nye'] });
  expect(await workspace.get<TeamShape[]>('/teams')).toEqual([
    { key: 'builds-north', name: 'North', people: ['ida-weir', 'robin-nye'], promise: null },
  ]);
  expect((await robin('DELETE', '/teams/builds-north')).status).toBe(204);
  expect((await workspace.get<PersonShape[]>('/people')).map(({ teams }) => teams)).toEqual([[], []]);
});

test('a workspace chooses its word for a deal, what enquiries become, and its rates', async () => {
  const { body } = await robin<WorkspaceShape>('PATCH', '/workspace', {
    dealWord: 'opportunity',
    leadHandling: 'leads',
  });
  expect(body).toMatchObject({ dealWord: 'opportunity', leadHandling: 'leads' });
  expect((await robin<SessionShape>('GET', '/session')).body.workspace).toMatchObject({ dealWord: 'opportunity' });
  expect((await robin('PATCH', '/workspace', { dealWord: 'sale' })).status).toBe(422);
  const rates = [{ currency: 'EUR', from: '2026-01-01', rate: '0.8532' }];
  expect((await robin('PUT', '/exchange-rates', { rates })).body).toEqual(rates);
  const { status, body: problem } = await robin<ProblemBody>('PUT', '/exchange-rates', { rates: [...rates, ...rates] });
  expect([status, problem.errors![0]!.at]).toEqual([422, '/rates/1/from']);
  expect(await workspace.get('/exchange-rates')).toEqual(rates);
});

test('views are one’s own or everybody’s, and name only what is there', async () => {
  await robin('POST', '/people', ida());
  const view = { columns: [{ field: 'email', width: 200 }], sort: { field: 'full_name', down: true } };
  const own = { record: 'contact', name: 'Mine', view, shared: false };
  const { body } = await robin<SavedView>('POST', '/views', own);
  await robin('POST', '/views', { ...own, name: 'Ours', shared: true });
  expect((await robin<SavedView[]>('GET', '/views')).body.map(({ name }) => name)).toEqual(['Mine', 'Ours']);
  expect((await workspace.get<SavedView[]>('/views')).map(({ name }) => name)).toEqual(['Ours']);
  expect((await workspace.call('DELETE', `/views/${body.id}`)).status).toBe(404);
  const wrong = await robin<ProblemBody>('PATCH', `/views/${body.id}`, { view: { columns: [{ field: 'colour' }] } });
  expect([wrong.status, wrong.body.errors![0]!.at]).toEqual([422, '/view/columns/0']);
  expect((await robin<SavedView>('PATCH', `/views/${body.id}`, { shared: true })).body.shared).toBe(true);
});
