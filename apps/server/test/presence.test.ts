import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { PresenceShape } from '@haycart/api';
import { PeopleService } from '../src/workspaces/people.service';
import { newDatabase, TestServer, TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
let robin: TestWorkspace['call'];
let ida: (method: string, path: string) => Promise<{ status: number; body: PresenceShape }>;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
  workspace = await TestWorkspace.make(server);
  robin = await workspace.signIn();
  const email = `ida-${workspace.key}@quillfern.example`;
  await server.database.inWorkspace(workspace.id, (tx) =>
    server.app.get(PeopleService).add(tx, { name: 'Ida Marsh', email, password: 'a long password' }),
  );
  const signedIn = await server.postJson('/api/v1/session', { email, password: 'a long password' });
  const cookie = signedIn.headers.get('set-cookie')!.split(';')[0]!;
  ida = async (method, path) => {
    const answer = await fetch(`${server.base}/api/v1${path}`, { method, headers: { cookie } });
    return {
      status: answer.status,
      body: answer.status === 204 ? { others: [] } : ((await answer.json()) as PresenceShape),
    };
  };
});
afterAll(() => server.stop());

test('people who have one route’s sheet open hear of each other, until one leaves', async () => {
  const [one, other] = [await workspace.publish(), await workspace.publish()];
  const here = async (route: string) => (await robin<PresenceShape>('POST', `/routes/${route}/here`)).body.others;
  expect(await here(one)).toEqual([]);
  expect((await ida('POST', `/routes/${one}/here`)).body.others).toEqual(['Robin Nye']);
  expect([await here(one), await here(other)]).toEqual([['Ida Marsh'], []]);
  expect((await ida('DELETE', `/routes/${one}/here`)).status).toBe(204);
  expect(await here(one)).toEqual([]);
});

test('a script is nobody, and nobody is at a route that is not there', async () => {
  const route = await workspace.publish();
  expect((await workspace.call('POST', `/routes/${route}/here`)).status).toBe(403);
  expect((await robin('POST', '/routes/nowhere/here')).status).toBe(404);
  expect((await robin('POST', `/routes/${workspace.id}/here`)).status).toBe(404);
  expect((await robin('DELETE', '/routes/nowhere/here')).status).toBe(404);
});
