import { expect, test } from '@jest/globals';
import { ROUTE_SAMPLES, type RouteSheetShape } from '@haycart/api';
import { eachInWorkspace, type TestWorkspace, until } from './support/test-server';

let workspace: TestWorkspace;

eachInWorkspace((made) => ({ workspace } = made));

test('the page of a route comes in one answer, which says what each part’s own address says', async () => {
  const id = await workspace.publish();
  await workspace.submit({ name: 'Ada Weir', email: 'ada@weir.example' });
  await workspace.handled();
  // What recognition learns from the first records is part of the destination.
  await until(
    () => workspace.query<{ n: number }>(`select count(*)::int as n from look_alike_scan where state = 'done'`),
    ([row]) => row!.n === 3,
  );
  const { body, status } = await workspace.call<RouteSheetShape>('GET', `/routes/${id}/sheet`);
  expect(status).toBe(200);
  const { intake } = body.samples!;
  expect(intake).toBe(body.route.draft.from[0]);
  const own = async (path: string) => (await workspace.call('GET', path)).body;
  expect(body).toEqual({
    route: await own(`/routes/${id}`),
    intakes: await own('/intake-lines'),
    destination: await own('/destination'),
    definitions: await own('/route-definitions'),
    cases: await own(`/routes/${id}/cases`),
    samples: {
      intake,
      latest: await own(`/submissions?intake=${intake}&limit=${ROUTE_SAMPLES}`),
      profile: await own(`/intakes/${intake}/profile`),
    },
  });
  expect(body.samples!.latest.items).toHaveLength(1);
});

test('a route that takes from nothing has no samples, and one that is not there has no page', async () => {
  const { id, draft } = (await workspace.call<RouteSheetShape>('GET', `/routes/${await workspace.publish()}/sheet`))
    .body.route;
  await workspace.call('PUT', `/routes/${id}/draft`, { ...draft, from: [] });
  expect((await workspace.call<RouteSheetShape>('GET', `/routes/${id}/sheet`)).body.samples).toBeNull();
  expect((await workspace.call('GET', '/routes/nowhere/sheet')).status).toBe(404);
  expect((await workspace.call('GET', `/routes/${workspace.id}/sheet`)).status).toBe(404);
});
