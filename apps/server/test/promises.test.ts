import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { AnswerLine, Fairness, GivenLine, PipelineShape, RecordSheet, RecordShape, TaskShape } from '@haycart/api';
import type { AnswerPromise, OwnerRule, RouteDefinition } from '@haycart/core';
import { MissedPromises } from '../src/runs/promises/missed-promises.service';
import { RouterService } from '../src/runs/router.service';
import { addNorth } from './support/colleagues';
import { routeFrom } from './support/routes';
import { newDatabase, TestServer, TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
let person: Awaited<ReturnType<TestWorkspace['signIn']>>;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase(), { background: false });
});
afterAll(() => server.stop());

beforeEach(async () => {
  workspace = await TestWorkspace.make(server);
  person = await addNorth(workspace, ['ida-weir', 'bo-lund']);
});

const route = (owner: OwnerRule = { team: 'north' }): RouteDefinition => {
  const whole = routeFrom(workspace.endpoint);
  return { ...whole, writes: whole.writes.map((write) => ({ ...write, owner })) };
};
const promise = async (wish: AnswerPromise | null) =>
  expect((await person('PATCH', '/teams/north', { promise: wish })).status).toBe(200);
const send = async (...names: string[]) => {
  for (const name of names)
    await workspace.submit({ name, email: `${name.toLowerCase()}@${name.toLowerCase()}.example`, bays: 1 });
  await server.app.get(RouterService).drain();
};
const deals = async () => (await workspace.get<{ items: RecordShape[] }>('/deals')).items;
const waiting = (owner = '') => workspace.get<AnswerLine[]>(`/answers${owner && `?owner=${owner}`}`);
/** Every promise is over; what is due in working time would be so at some time or other. */
const timePasses = () =>
  workspace.query(
    `update assignment set at = at - interval '9 days', due_at = now() - interval '1 minute' where workspace_id = current_workspace() and touched_at is null and missed_at is null`,
  );
const looked = () => server.app.get(MissedPromises).lookAt(workspace.id);
const sheet = (id: string) => workspace.get<RecordSheet>(`/deals/${id}/sheet`);

describe('what is promised', () => {
  test('stands on the record and in lists until a person does something about it, and is of one record for each enquiry', async () => {
    await promise({ minutes: 60 });
    await workspace.publish(route());
    await send('Ada');
    const [deal] = await deals();
    expect(deal!.answer).toMatchObject({ person: 'bo-lund', touchedAt: null });
    expect(Date.parse(deal!.answer!.due)).toBeGreaterThanOrEqual(Date.parse(deal!.answer!.at) + 3_599_000);
    expect(await waiting('bo-lund')).toMatchObject([{ kind: 'deal', record: deal!.id, name: deal!.name }]);
    expect(await waiting('ida-weir')).toEqual([]);
    // Who takes it over has not answered; nor has a script.
    await person('PATCH', `/deals/${deal!.id}`, { values: { owner: 'ida-weir' } });
    await workspace.call('POST', `/deals/${deal!.id}/notes`, { text: 'Made by a script' });
    expect(await waiting('ida-weir')).toHaveLength(1);
    await person('POST', `/deals/${deal!.id}/notes`, { text: 'Called back' });
    expect(await waiting()).toEqual([]);
    expect((await deals())[0]!.answer).toBeUndefined();
    expect((await sheet(deal!.id)).record.answer).toMatchObject({ touchedBy: 'Robin Nye' });
  });

  test.each<[string, (deal: RecordShape) => Promise<unknown>]>([
    ['a change', ({ id }) => person('PATCH', `/deals/${id}`, { values: { message: 'Wants three' } })],
    [
      'a note on its contact',
      ({ links }) => person('POST', `/contacts/${links.contacts![0]!.id}/notes`, { text: 'Called' }),
    ],
    [
      'a task that is done',
      async ({ id }) => {
        const { body } = await person<TaskShape>('POST', `/deals/${id}/tasks`, { text: 'Call' });
        expect(await waiting()).toHaveLength(1);
        await person('POST', '/tasks/done', { ids: [body.id], done: true });
      },
    ],
    ['its end', ({ id }) => person('POST', `/deals/${id}/move`, { stage: 'won' })],
  ])('is kept by %s', async (_, act) => {
    await promise({ minutes: 60 });
    await workspace.publish(route());
    await send('Ada');
    await act((await deals())[0]!);
    expect(await waiting()).toEqual([]);
  });

  test('is what the pipeline says where the team says nothing, and nothing of what is brought in quietly', async () => {
    const [pipeline] = await workspace.get<PipelineShape[]>('/pipelines');
    const path = `/pipelines/${pipeline!.id}`;
    expect((await person<PipelineShape>('PATCH', path, { promise: { minutes: 30 } })).body.promise).toEqual({
      minutes: 30,
    });
    await workspace.publish(route({ person: 'ida-weir' }));
    await send('Ada');
    expect(await waiting('ida-weir')).toHaveLength(1);
    expect((await person<PipelineShape>('PATCH', path, { promise: null })).body.promise).toBeUndefined();
    await send('Cleo');
    expect(await waiting('ida-weir')).toHaveLength(1);
    await person('PATCH', path, { promise: { minutes: 30 } });
    await workspace.submit({ name: 'Dora', email: 'dora@dora.example', bays: 1 });
    await workspace.query(
      `update submission set quiet = true where workspace_id = current_workspace() and state = 'waiting'`,
    );
    await server.app.get(RouterService).drain();
    expect(await deals()).toHaveLength(3);
    expect(await waiting('ida-weir')).toHaveLength(1);
  });

  test.each([
    [{ minutes: 0 }],
    [{ minutes: 1.5 }],
    [{ minutes: 20_000 }],
    [{ minutes: 10, missed: { do: 'task', person: 'nobody' } }],
    [{ minutes: 10, missed: { do: 'task' } }],
    [{ minutes: 10, missed: { do: 'shout' } }],
  ])('is refused as %j', async (wish) => {
    expect((await person('PATCH', '/teams/north', { promise: wish })).status).toBe(422);
  });
});

describe('what is missed', () => {
  test('goes to the next of the team, once to each, and then somebody is told', async () => {
    await promise({ minutes: 60, missed: { do: 'next' } });
    await workspace.publish(route());
    await send('Ada');
    const [deal] = await deals();
    await looked();
    expect((await sheet(deal!.id)).record.owner).toBe('bo-lund');
    await timePasses();
    await looked();
    await looked();
    const given = await sheet(deal!.id);
    expect(given.record.owner).toBe('ida-weir');
    expect(given.record.answer).toMatchObject({ person: 'ida-weir', touchedAt: null });
    expect(given.tasks).toEqual([]);
    const [last] = await workspace.get<GivenLine[]>('/fairness/latest?team=north');
    expect(last).toMatchObject({ person: 'ida-weir', why: 'in turn in North, as Bo Lund did not answer in time' });
    await timePasses();
    await looked();
    await looked();
    expect((await sheet(deal!.id)).tasks).toMatchObject([
      { owner: 'ida-weir', by: 'the promise to answer', priority: 'high' },
    ]);
  });

  test('stays with whoever a person gave it to meanwhile, who is told', async () => {
    await promise({ minutes: 60, missed: { do: 'next' } });
    await workspace.publish(route());
    await send('Ada');
    const [deal] = await deals();
    await person('PATCH', `/deals/${deal!.id}`, { values: { owner: 'robin-nye' } });
    await timePasses();
    await looked();
    const { record, tasks } = await sheet(deal!.id);
    expect(record.owner).toBe('robin-nye');
    expect(tasks).toMatchObject([{ owner: 'robin-nye' }]);
  });

  test('is a task for whom the promise names, also once, and stays the owner’s', async () => {
    await promise({ minutes: 60, missed: { do: 'task', person: 'robin-nye' } });
    await workspace.publish(route());
    await send('Ada');
    await timePasses();
    await looked();
    await timePasses();
    await looked();
    const [deal] = await deals();
    const { tasks, record } = await sheet(deal!.id);
    expect(tasks).toMatchObject([{ owner: 'robin-nye', text: `Answer ${deal!.name}, which is late` }]);
    expect(record.owner).toBe('bo-lund');
    expect(await waiting('bo-lund')).toHaveLength(1);
  });

  test('is nothing where the record is gone or closed, and only shown where nothing is to follow', async () => {
    await promise({ minutes: 60, missed: { do: 'next' } });
    await workspace.publish(route());
    await send('Ada', 'Cleo');
    const all = await deals();
    await person('DELETE', `/deals/${all[0]!.id}`);
    await workspace.query(
      `update deal set status = 'lost' where workspace_id = current_workspace() and id = '${all[1]!.id}'`,
    );
    await timePasses();
    await looked();
    expect(await waiting()).toEqual([]);
    expect(await workspace.query('select 1 from task')).toEqual([]);
    await promise({ minutes: 60 });
    await send('Dora');
    await timePasses();
    await looked();
    expect(await waiting()).toHaveLength(1);
    expect(await workspace.query('select 1 from task')).toEqual([]);
  });

  test('is followed once, though several look at once', async () => {
    await promise({ minutes: 60, missed: { do: 'task', person: 'robin-nye' } });
    await workspace.publish(route());
    await send(...Array.from({ length: 12 }, (_, n) => `Ada${n}`));
    await timePasses();
    await Promise.all([looked(), looked(), looked()]);
    expect(await workspace.query('select 1 from task')).toHaveLength(12);
  });
});

describe('fairness', () => {
  const of = async () => (await workspace.get<Fairness>('/fairness')).teams;

  test('tells what each got against everybody’s shares of then, how soon they answered, and why', async () => {
    await promise({ minutes: 60 });
    await workspace.publish(route({ team: 'north', shares: { 'ida-weir': 2 } }));
    await send('Ada', 'Bea', 'Cleo');
    await person('PATCH', '/people/ida-weir', { away: [{ from: '2020-01-01', to: '2099-12-31' }] });
    await send('Dora');
    const bo = (await deals()).find(({ owner }) => owner === 'bo-lund')!;
    await person('POST', `/deals/${bo.id}/notes`, { text: 'Called' });
    await person('POST', `/deals/${bo.id}/move`, { stage: 'won' });
    const [team] = await of();
    expect(team).toMatchObject({ team: 'north' });
    const line = (key: string) => team!.people.find((one) => one.person === key)!;
    // Two of the first three for one who has two shares; the fourth for the only one who was there.
    expect(line('ida-weir')).toMatchObject({ received: 2, turns: 2, intended: 2, open: 2, won: 0, firstTouch: null });
    expect(line('bo-lund')).toMatchObject({
      received: 2,
      turns: 2,
      intended: 2,
      open: 1,
      won: 1,
      promised: 1,
      inTime: 1,
    });
    expect(line('bo-lund').firstTouch).toBeGreaterThanOrEqual(0);
    const why = (await workspace.get<GivenLine[]>('/fairness/latest')).map((one) => one.why);
    expect(why).toEqual(Array(4).fill('in turn in North, by shares'));
  });

  test('counts no more what was taken back', async () => {
    await workspace.publish(route());
    await send('Ada', 'Bea');
    const [run] = await workspace.query<{ id: string }>(
      'select id from run where workspace_id = current_workspace() limit 1',
    );
    expect((await person('POST', '/runs/take-back', { runs: [run!.id] })).status).toBe(200);
    const [team] = await of();
    expect(team!.people.reduce((sum, { received }) => sum + received, 0)).toBe(1);
  });
});
