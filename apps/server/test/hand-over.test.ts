import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import type { DoneEdit, GivenLine, HandOverPlan, RecordShape, RecordSheet, TaskShape } from '@haycart/api';
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
  person = await addNorth(workspace);
  const whole = routeFrom(workspace.endpoint);
  await workspace.publish({
    ...whole,
    writes: whole.writes.map((write) => ({
      ...write,
      ...(write.as === 'sale' ? { owner: { person: 'ida-weir' } } : {}),
    })),
  });
  for (const name of ['Ada', 'Bea', 'Cleo', 'Dora', 'Eve'])
    await workspace.submit({ name, email: `${name}@${name}.example`, bays: 1 });
  await server.app.get(RouterService).drain();
});

const AT = '/people/ida-weir/hand-over';
const deals = async () => (await workspace.get<{ items: RecordShape[] }>('/deals')).items;
const owners = async () => (await deals()).map(({ owner }) => owner).sort();
const rehearse = async (wish: object) => (await person<HandOverPlan>('POST', `${AT}/rehearse`, wish)).body.people;

test('what somebody leaves is shown first, goes to others in turn with what is to be done, and comes back', async () => {
  const [first, second] = await deals();
  const { body: task } = await person<TaskShape>('POST', `/deals/${first!.id}/tasks`, {
    text: 'Call',
    owner: 'ida-weir',
  });
  await person('POST', `/deals/${second!.id}/move`, { stage: 'won' });
  const shown = await rehearse({ team: 'north' });
  // Whoever gets the deal gets its task as well.
  expect(shown).toMatchObject([
    { leads: 0, deals: 2, tasks: 1 },
    { leads: 0, deals: 2, tasks: 0 },
  ]);
  expect(shown.map((one) => one.person).sort()).toEqual(['bo-lund', 'robin-nye']);
  expect(await rehearse({ team: 'north' })).toEqual(shown);
  expect(await owners()).toEqual(Array(5).fill('ida-weir'));
  const { body: done } = await person<DoneEdit>('POST', AT, { team: 'north' });
  expect(done).toMatchObject({ records: 4, text: 'Gave what Ida Weir looked after to others' });
  // What is won stays who won it.
  expect(await owners()).toEqual(['bo-lund', 'bo-lund', 'ida-weir', 'robin-nye', 'robin-nye']);
  const sheet = await workspace.get<RecordSheet>(`/deals/${first!.id}/sheet`);
  expect(sheet.tasks).toMatchObject([{ id: task.id, owner: sheet.record.owner }]);
  const given = await workspace.get<GivenLine[]>('/fairness/latest?team=north');
  expect(given.map(({ why }) => why)).toEqual(Array(4).fill('in turn in North, as Ida Weir gave it up'));
  expect(
    (await workspace.query<{ value: number }>(`select value::int from counter where name = 'turn north'`))[0],
  ).toEqual({
    value: 4,
  });
  await person('POST', `/edits/${done.edit}/take-back`);
  expect(await owners()).toEqual(Array(5).fill('ida-weir'));
});

test('it fills up whoever has the least, or goes to one', async () => {
  expect(await rehearse({ team: 'north', by: 'load' })).toMatchObject([{ deals: 3 }, { deals: 2 }]);
  expect(await rehearse({ person: 'bo-lund' })).toEqual([{ person: 'bo-lund', leads: 0, deals: 5, tasks: 0 }]);
});

test('what nobody can take stays', async () => {
  expect(await rehearse({ team: 'gone' })).toEqual([{ person: null, leads: 0, deals: 5, tasks: 0 }]);
  const { body } = await person<DoneEdit>('POST', AT, { team: 'gone' });
  expect(body.edit).toBeNull();
  expect(await owners()).toEqual(Array(5).fill('ida-weir'));
});

test.each([[{}], [{ person: 'bo-lund', team: 'north' }], [{ team: 'north', by: 'luck' }]])(
  '%j is refused',
  async (wish) => {
    expect((await person('POST', AT, wish)).status).toBe(422);
  },
);
