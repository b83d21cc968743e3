import { expect, test } from '@jest/globals';
import { eachInWorkspace, type TestServer, type TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
eachInWorkspace((made) => ({ server, workspace } = made));

const COUNT = 'select count(*)::int as n from submission';

test('at one moment nothing is seen of what comes meanwhile, nor of another workspace', async () => {
  await workspace.submit({ name: 'Ada' });
  const counts = await server.database.atOneMoment(workspace.id, async (tx) => {
    const before = await tx.statement<{ n: number }>('count_before', COUNT);
    await workspace.submit({ name: 'Bo' });
    return [before, await tx.statement<{ n: number }>('count_after', COUNT)];
  });
  expect(counts).toEqual([[{ n: 1 }], [{ n: 1 }]]);
  expect(await workspace.query(COUNT)).toEqual([{ n: 2 }]);
});

test('at one moment nothing can be written', async () => {
  const written = server.database.atOneMoment(workspace.id, (tx) =>
    tx.statement('write_nothing', 'delete from submission', []),
  );
  await expect(written).rejects.toThrow('read-only transaction');
});
