import { afterEach, expect, test } from '@jest/globals';
import type { RouteDefinition } from '@haycart/core';
import { addNorth } from './support/colleagues';
import { routeFrom } from './support/routes';
import { freePort, killProcesses, startProcess } from './support/server-process';
import { newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

afterEach(() => killProcesses());

test('three hundred go to three people a hundred each, though two servers route them and one is killed in the middle', async () => {
  const databaseUrl = await newDatabase();
  const web = await TestServer.start(databaseUrl, { background: false });
  const workspace = await TestWorkspace.make(web);
  await addNorth(workspace);
  const whole = routeFrom(workspace.endpoint);
  const route: RouteDefinition = {
    ...whole,
    writes: whole.writes.map((write) => (write.as === 'sale' ? { ...write, owner: { team: 'north' } } : write)),
  };
  await workspace.publish(route);
  await workspace.call('PATCH', `/intakes/${workspace.endpoint}`, { perMinute: null });
  const written = async () => (await workspace.query<{ n: number }>('select count(*)::int as n from deal'))[0]!.n;
  const send = (from: number, to: number) =>
    Promise.all(
      Array.from({ length: to - from }, (_, n) =>
        workspace.submit({ name: `Ada ${from + n}`, email: `ada@weir${from + n}.example`, bays: 1 }),
      ),
    );
  const killed = await startProcess(databaseUrl, await freePort());
  await startProcess(databaseUrl, await freePort());
  const rain = (async () => {
    for (let from = 0; from < 300; from += 20) await send(from, from + 20);
  })();
  await until(written, (count) => count > 60);
  killed.kill('SIGKILL');
  await rain;
  await workspace.handled();
  await until(written, (count) => count === 300);
  const each = await workspace.query<{ owner: string; n: number }>(
    'select owner, count(*)::int as n from deal group by 1 order by 1',
  );
  expect(each).toEqual(['bo-lund', 'ida-weir', 'robin-nye'].map((owner) => ({ owner, n: 100 })));
  const [given] = await workspace.query<{ n: number; turns: number }>(
    `select count(*)::int as n, (select value::int from counter where name = 'turn north') as turns from assignment where workspace_id = current_workspace()`,
  );
  expect(given).toEqual({ n: 300, turns: 300 });
  await web.stop();
});
