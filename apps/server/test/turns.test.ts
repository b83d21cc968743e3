import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { KnownShape, Rehearsal } from '@haycart/api';
import type { OwnerRule, RouteDefinition } from '@haycart/core';
import { RouterService } from '../src/runs/router.service';
import { addNorth } from './support/colleagues';
import { routeFrom } from './support/routes';
import { newDatabase, TestServer, TestWorkspace } from './support/test-server';

let server: TestServer;
/** A second process on the same database. */
let other: TestServer;
let workspace: TestWorkspace;
let route: RouteDefinition;

beforeAll(async () => {
  const databaseUrl = await newDatabase();
  server = await TestServer.start(databaseUrl, { background: false });
  other = await TestServer.start(databaseUrl, { background: false });
});
afterAll(async () => {
  await other.stop();
  await server.stop();
});

beforeEach(async () => {
  workspace = await TestWorkspace.make(server);
  await addNorth(workspace);
  route = routeFrom(workspace.endpoint);
  route = { ...route, writes: route.writes.map((write) => ({ ...write, owner: { team: 'north' } })) };
});

const send = (from: number, to: number) =>
  Promise.all(
    Array.from({ length: to - from }, (_, n) =>
      workspace.submit({ name: `Ada ${from + n}`, email: `ada${from + n}@weir${from + n}.example`, bays: 1 }),
    ),
  );
const drained = () => Promise.all([server, other].map(({ app }) => app.get(RouterService).drain()));
const shares = () =>
  workspace.query<{ owner: string; n: number }>(
    'select owner, count(*)::int as n from contact where workspace_id = current_workspace() group by 1 order by 1',
  );
const turns = async () => (await workspace.query<{ value: number }>('select value::int from counter'))[0]?.value;

describe('the turns of a team', () => {
  test('are exact, though two processes route at once', async () => {
    await workspace.publish(route);
    await send(0, 90);
    await drained();
    await drained();
    expect(await shares()).toEqual(['bo-lund', 'ida-weir', 'robin-nye'].map((owner) => ({ owner, n: 30 })));
    expect(await turns()).toBe(90);
  });

  test('are told by a rehearsal, which takes none', async () => {
    await workspace.publish(route);
    await send(0, 1);
    await drained();
    const payload = { name: 'Cleo', email: 'cleo@weir.example' };
    const rehearse = async () => {
      const { body } = await workspace.call<Rehearsal>('POST', '/rehearse', { definition: route, payload });
      return body.writes.map(({ fields }) => fields.find(({ field }) => field === 'owner')?.after);
    };
    expect((await rehearse()).filter(Boolean)).toContain('ida-weir');
    expect(await rehearse()).toEqual(await rehearse());
    const lookups = { keys: [], deals: false, counters: ['turn north', 'turn nobody'] };
    const { body } = await workspace.call<KnownShape>('POST', '/rehearse/known', lookups);
    expect(body.counters).toEqual({ 'turn north': 1 });
    expect(await turns()).toBe(1);
  });

  /** The route with an owner for the deal alone. */
  const owned = (owner: OwnerRule): RouteDefinition => ({
    ...route,
    writes: route.writes.map(({ owner: _, ...write }) => (write.as === 'sale' ? { ...write, owner } : write)),
  });
  const dealsEach = () =>
    workspace.query<{ owner: string; n: number }>(
      'select owner, count(*)::int as n from deal where workspace_id = current_workspace() group by 1 order by 1',
    );

  test('go to whoever looks after the fewest open deals, and to nobody with as many as are enough', async () => {
    const person = await workspace.signIn();
    expect((await person('PATCH', '/people/bo-lund', { capacity: 4 })).status).toBe(200);
    const first = await workspace.publish(owned({ person: 'ida-weir' }));
    await send(0, 3);
    await drained();
    await workspace.call('PUT', `/routes/${first}/draft`, owned({ team: 'north', by: 'load', capacity: true }));
    await workspace.call('POST', `/routes/${first}/publish`, {});
    await send(3, 9);
    await drained();
    await drained();
    // Three each: those who had none get all of them.
    expect(await dealsEach()).toEqual(['bo-lund', 'ida-weir', 'robin-nye'].map((owner) => ({ owner, n: 3 })));
    await send(9, 15);
    await drained();
    await drained();
    expect(await dealsEach()).toEqual([
      { owner: 'bo-lund', n: 4 },
      expect.objectContaining({ owner: 'ida-weir' }),
      expect.objectContaining({ owner: 'robin-nye' }),
    ]);
    const shown = await workspace.call<KnownShape>('POST', '/rehearse/known', {
      keys: [],
      deals: false,
      counters: ['load bo-lund', 'load nobody'],
    });
    expect(shown.body.counters).toEqual({ 'load bo-lund': 4 });
  });

  test('go to whoever has the fewest open tasks, and to nobody who got enough for the day, though two processes route', async () => {
    const person = await workspace.signIn();
    await workspace.publish(owned({ team: 'north', by: 'tasks', perDay: true }));
    await send(0, 1);
    await drained();
    const [first] = await workspace.query<{ id: string }>(
      'select id from deal where workspace_id = current_workspace()',
    );
    for (const owner of ['bo-lund', 'ida-weir'])
      expect((await person('POST', `/deals/${first!.id}/tasks`, { text: 'Call', owner })).status).toBe(201);
    await person('PATCH', '/people/robin-nye', { perDay: 4 });
    await send(1, 9);
    await drained();
    await drained();
    const each = new Map((await dealsEach()).map(({ owner, n }) => [owner, n]));
    // Nobody is told of tasks that come with what is given, so that Robin, who has none, gets all that is enough.
    expect(each.get('robin-nye')).toBeLessThanOrEqual(4);
    expect([...each.values()].reduce((sum, n) => sum + n, 0)).toBe(9);
    expect(Number(each.get('bo-lund')) + Number(each.get('ida-weir'))).toBeGreaterThanOrEqual(5);
  });

  test('go to whoever’s open deals are worth least, those in other currencies by the rate of the day', async () => {
    const person = await workspace.signIn();
    const worth = async (owner: string, value: string) => {
      const values = { name: `Of ${owner}`, owner, value };
      const added = await person('POST', '/deals', { values, pipeline: 'new-builds', stage: 'enquiry' });
      expect(added).toMatchObject({ status: 201 });
    };
    await worth('bo-lund', '£ 1,000');
    await worth('ida-weir', '€ 1.000');
    await worth('robin-nye', '£ 900');
    await workspace.publish(owned({ team: 'north', by: 'worth' }));
    const known = async () => {
      const counters = ['worth bo-lund', 'worth ida-weir', 'worth robin-nye'];
      const { body } = await workspace.call<KnownShape>('POST', '/rehearse/known', {
        keys: [],
        deals: false,
        counters,
      });
      return body.counters;
    };
    // Without a rate an amount counts as nothing; with one as what it is.
    expect(await known()).toEqual({ 'worth bo-lund': 1_000_00, 'worth ida-weir': 0, 'worth robin-nye': 900_00 });
    await person('PUT', '/exchange-rates', { rates: [{ currency: 'EUR', from: '2020-01-01', rate: '0.85' }] });
    expect(await known()).toMatchObject({ 'worth ida-weir': 850_00 });
    await send(0, 1);
    await drained();
    expect(await dealsEach()).toContainEqual({ owner: 'ida-weir', n: 2 });
  });

  test('pass over who is away, and go by shares', async () => {
    const person = await workspace.signIn();
    // Days enough that it does not matter when the test runs.
    await person('PATCH', '/people/bo-lund', { away: [{ from: '2020-01-01', to: '2099-12-31' }] });
    await workspace.publish(owned({ team: 'north', shares: { 'ida-weir': 2 } }));
    await send(0, 9);
    await drained();
    await drained();
    expect(await dealsEach()).toEqual([
      { owner: 'ida-weir', n: 6 },
      { owner: 'robin-nye', n: 3 },
    ]);
  });

  test('are taken by none whose run wrote nothing', async () => {
    await workspace.publish({ ...route, onlyWhen: { of: { answer: 'email' }, test: 'blank' } });
    await send(0, 3);
    await drained();
    expect(await turns()).toBe(0);
  });
});
