import { expect, test } from '@jest/globals';
import type { Page, ProblemBody, RecordShape, SubmissionDetail, SubmissionShape } from '@haycart/api';
import { RoutesService } from '../src/routes/routes.service';
import { routeFrom } from './support/routes';
import { eachInWorkspace, type TestServer, type TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

eachInWorkspace((made) => ({ server, workspace } = made));

const EVER = { since: '2020-01-01T00:00:00Z', before: '2100-01-01T00:00:00Z' };
const send = (name: string) => workspace.submit({ name, email: `${name}@weir.example`, company: 'Weir' });
const total = async (kind: string) => (await workspace.get<Page<RecordShape>>(`/${kind}`)).total;
const catchUp = (route: string, period: object = EVER) =>
  workspace.call<{ queued: number } & ProblemBody>('POST', `/routes/${route}/catch-up`, period);
const missed = async (route: string, period: object = EVER) =>
  (await workspace.call<{ missed: number }>('POST', `/routes/${route}/catch-up/count`, period)).body.missed;
const runs = async (outcome: string) =>
  (await workspace.get<Page<SubmissionShape>>(`/submissions?outcome=${outcome}`)).total;

test('a route catches up on what came before it was there, and runs nothing twice', async () => {
  for (const name of ['ada', 'eda', 'ida']) await send(name);
  await workspace.handled();
  const route = await workspace.publish();
  expect([await total('contacts'), await missed(route)]).toEqual([0, 3]);
  expect(await missed(route, { ...EVER, before: '2020-01-02T00:00:00Z' })).toBe(0);
  expect(await catchUp(route)).toMatchObject({ status: 202, body: { queued: 3 } });
  await workspace.handled();
  expect([await total('contacts'), await total('deals'), await missed(route)]).toEqual([3, 3, 0]);
  expect((await catchUp(route)).body.queued).toBe(0);
});

test('catching up of one route does not run another, which came later too', async () => {
  await send('ada');
  await workspace.handled();
  const contactsOnly = {
    ...routeFrom(workspace.endpoint),
    name: 'Contacts',
    writes: [routeFrom().writes[1]!].map((write) => ({ ...write, links: [] })),
  };
  const first = await workspace.publish(contactsOnly);
  const second = await workspace.publish();
  await catchUp(first);
  await workspace.handled();
  expect([await total('contacts'), await total('deals')]).toEqual([1, 0]);
  expect(await missed(second)).toBe(1);
});

test('a paused or unpublished route says so', async () => {
  const route = await workspace.publish();
  await workspace.call('POST', `/routes/${route}/pause`);
  expect(await catchUp(route)).toMatchObject({ status: 409 });
  const { body } = await workspace.call<{ id: string }>('POST', '/routes', {
    definition: routeFrom(workspace.endpoint),
  });
  expect(await catchUp(body.id)).toMatchObject({ status: 409 });
  expect(await catchUp(route, { since: 'Tuesday', before: 'x' })).toMatchObject({ status: 422 });
});

test('all that failed since a time is run again with the version that runs then, and by that route alone', async () => {
  const definition = routeFrom(workspace.endpoint);
  definition.writes[1]!.fills.push({ field: 'job_title', value: { parts: [{ answer: 'role' }] }, ifEmpty: 'fail' });
  const route = await workspace.publish(definition);
  for (const name of ['ada', 'eda']) await send(name);
  await workspace.handled();
  expect(await runs('failed')).toBe(2);
  await workspace.publish({ ...routeFrom(workspace.endpoint), name: 'Another' });
  definition.writes[1]!.fills.pop();
  await workspace.call('PUT', `/routes/${route}/draft`, definition);
  await workspace.call('POST', `/routes/${route}/publish`, {});
  const { body } = await workspace.call<{ queued: number }>('POST', '/submissions/run-again', {
    filter: { outcome: 'failed', route, since: '2020-01-01T00:00:00Z' },
  });
  expect(body.queued).toBe(2);
  await workspace.handled();
  expect([await runs('failed'), await total('deals')]).toEqual([0, 2]);
  const { items } = await workspace.get<Page<SubmissionShape>>('/submissions');
  expect(items.map(({ runs: done }) => done.map(({ route: by }) => by.name))).toEqual([['Enquiries'], ['Enquiries']]);
  expect((await workspace.call('POST', '/submissions/run-again', {})).status).toBe(422);
});

test('what waited may be left out when a route is resumed, and be caught up on later', async () => {
  const route = await workspace.publish();
  await workspace.call('POST', `/routes/${route}/pause`);
  await send('ada');
  await workspace.handled();
  expect(await runs('held')).toBe(1);
  await workspace.call('POST', `/routes/${route}/resume`, { waiting: 'leave-out' });
  await send('eda');
  await workspace.handled();
  expect([await runs('held'), await runs('skipped'), await total('contacts'), await missed(route)]).toEqual([
    0, 1, 1, 1,
  ]);
  await catchUp(route);
  await workspace.handled();
  expect([await runs('skipped'), await total('contacts'), await missed(route)]).toEqual([0, 2, 0]);
  expect((await workspace.call('POST', `/routes/${route}/resume`, { waiting: 'forget' })).status).toBe(422);
});

test('two publishes at once are two versions, one after the other', async () => {
  const route = await workspace.publish();
  const publish = () => workspace.call<{ version: number }>('POST', `/routes/${route}/publish`, {});
  const answers = await Promise.all([publish(), publish(), publish()]);
  expect(answers.map(({ status, body }) => [status, body.version]).sort()).toEqual([
    [200, 2],
    [200, 3],
    [200, 4],
  ]);
  const versions = await workspace.get<{ version: number }[]>(`/routes/${route}/versions`);
  expect(versions.map(({ version }) => version)).toEqual([4, 3, 2, 1]);
});

test('whoever holds a route to change it keeps no submission from being written through it', async () => {
  const id = await workspace.publish();
  const submission = await server.database.inWorkspace(workspace.id, async (tx) => {
    await server.app.get(RoutesService).one(tx, id);
    const sent = await workspace.submit({ name: 'Ada Weir', email: 'ada@weir.example' });
    return until(
      () => workspace.get<SubmissionDetail>(`/submissions/${sent}`),
      ({ state }) => state !== 'waiting',
    );
  });
  expect(submission.runs).toMatchObject([{ outcome: 'written' }]);
});
