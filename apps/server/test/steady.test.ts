import { afterAll, beforeAll, beforeEach, expect, jest, test } from '@jest/globals';
import type { SheetShape } from '@haycart/api';
import pg from 'pg';
import { LookAlikeWatch } from '../src/identity/look-alike-watch.service';
import { RecordsService } from '../src/records/records.service';
import { RouteBookService } from '../src/routes/route-book.service';
import { RouterService } from '../src/runs/router.service';
import { SheetsService } from '../src/sheets/sheets.service';
import { routeFrom } from './support/routes';
import { asOwner, newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase(), { background: false });
});
beforeEach(async () => {
  workspace = await TestWorkspace.make(server);
});
afterAll(() => server.stop());

test('a clock that is wrong delays nothing: what is compared are the database’s times', async () => {
  const real = Date.now;
  const ahead = jest.spyOn(Date, 'now').mockImplementation(() => real() + 3_600_000);
  await workspace.submit({ name: 'Ada' });
  ahead.mockRestore();
  expect(
    await workspace.query(
      `select due_at <= now() as due, abs(extract(epoch from received_at - now())) < 60 as now from submission`,
    ),
  ).toEqual([{ due: true, now: true }]);
});

test('a long queue of one workspace is routed in turn with the others', async () => {
  const other = await TestWorkspace.make(server);
  for (const one of [workspace, other]) {
    await one.publish();
    await one.call('PATCH', `/intakes/${one.endpoint}`, { perMinute: null });
  }
  const many = Array.from({ length: 450 }, (_, n) => ({ name: `Person ${n}`, email: `p${n}@firm${n}.example` }));
  await server.postJson(`/in/${workspace.endpoint}`, many);
  await other.submit({ name: 'Bo', email: 'bo@weir.example' });
  await server.app.get(RouterService).drain();
  const last = async (one: TestWorkspace) =>
    (await one.query<{ at: Date }>('select max(finished_at) as at from run'))[0]!.at.getTime();
  expect(await last(other)).toBeLessThan(await last(workspace));
});

test('the route book keeps nothing of a change that is not committed', async () => {
  const route = await workspace.publish();
  const books = server.app.get(RouteBookService);
  const state = () =>
    server.database.inWorkspace(
      workspace.id,
      async (tx) => (await books.open(tx)).routes.find(({ id }) => id === route)!.state,
    );
  expect(await state()).toBe('live');
  await server.database
    .inWorkspace(workspace.id, async (tx) => {
      await tx.statement('pause_it', `update route set state = 'paused' where id = $1`, [route]);
      await books.open(tx);
      throw new Error('undone');
    })
    .catch(() => {});
  await workspace.query(`update route set draft = draft`);
  await workspace.query(`update workspace set revision = revision + 1 where id = current_workspace()`);
  expect(await state()).toBe('live');
});

test('the watch for look-alikes skips no change of a transaction that takes long', async () => {
  const watch = server.app.get(LookAlikeWatch);
  await watch.look(workspace.id);
  const seen: string[] = [];
  const looking = jest
    .spyOn(server.app.get(RecordsService), 'pairsAround')
    .mockImplementation((_, { ids }) => Promise.resolve((seen.push(...ids), [])));
  const change = (id: string) =>
    `insert into record_change (workspace_id, id, record_kind, record_id, at, cause_kind, cause_id, diff)
     values (current_workspace(), '${id}', 'contact', '${id}', now(), 'person', '${id}', '{"created":{},"changed":{},"linked":[]}')`;
  const [early, late] = ['00000000-0000-7000-8000-000000000001', 'ffffffff-0000-7000-8000-000000000002'];
  let commit = () => {};
  const waits = new Promise<void>((resolve) => (commit = resolve));
  const begun = new Promise<Promise<unknown>>((resolve) => {
    const long = server.database.inWorkspace(workspace.id, async (tx) => {
      await tx.statement('early_change', change(early));
      resolve(Promise.resolve());
      await waits;
    });
    void long;
  });
  await begun;
  await workspace.query(change(late));
  await watch.look(workspace.id);
  commit();
  await until(
    async () => {
      await watch.look(workspace.id);
      return seen;
    },
    (ids) => ids.includes(early) && ids.includes(late),
  );
  looking.mockRestore();
  expect(seen.filter((id) => id === early)).toHaveLength(1);
});

test('a file whose reading fails each time rests with the reason, also when the server starts again', async () => {
  const working = await TestServer.start(server.databaseUrl);
  const admin = new pg.Client({ connectionString: asOwner(server.databaseUrl) });
  await admin.connect();
  await admin.query(`create function no_file() returns trigger language plpgsql as $$ begin
    if new.columns is distinct from old.columns then raise exception 'no' using errcode = 'XX000'; end if; return new; end $$`);
  await admin.query('create trigger no_file before update on sheet_file for each row execute function no_file()');
  const { intake } = await working.database.inWorkspace(workspace.id, (tx) =>
    working.app.get(SheetsService).bringIn(tx, { name: 'people.csv', bytes: Buffer.from('name\nAda') }, 'Robin Nye'),
  );
  const file = async () => (await workspace.get<SheetShape>(`/sheets/${intake.key}`)).files[0]!;
  // The pauses between the tries are the job library's; they are not waited for here.
  const hurry = () => admin.query('update graphile_worker._private_jobs set run_at = now() where locked_at is null');
  const told = await until(
    async () => {
      await hurry();
      return file();
    },
    ({ state }) => state !== 'reading',
  );
  expect([told.state, told.problem]).toEqual([
    'unreadable',
    'Reading it failed. It was tried 3 times, and failed each time. The rows that were read stay.',
  ]);
  await working.stop();
  const again = await TestServer.start(server.databaseUrl);
  expect(
    (await admin.query('select 1 from graphile_worker.jobs where task_identifier = $1', ['read-sheet'])).rows,
  ).toEqual([]);
  await again.stop();
  await admin.query('drop trigger no_file on sheet_file; drop function no_file()');
  await admin.end();
});

test('taking a file back that fails each time rests, and goes on when a person asks', async () => {
  const working = await TestServer.start(server.databaseUrl);
  const { intake, file: id } = await working.database.inWorkspace(workspace.id, (tx) =>
    working.app
      .get(SheetsService)
      .bringIn(tx, { name: 'p.csv', bytes: Buffer.from('name,email\nAda,a@weir.example') }, 'R'),
  );
  const file = async () => (await workspace.get<SheetShape>(`/sheets/${intake.key}`)).files[0]!;
  await until(file, ({ state }) => state === 'read');
  const route = await workspace.publish(routeFrom(intake.key));
  await workspace.call('POST', `/routes/${route}/catch-up`, {
    since: '2020-01-01T00:00:00Z',
    before: '2100-01-01T00:00:00Z',
  });
  await workspace.handled();
  const admin = new pg.Client({ connectionString: asOwner(server.databaseUrl) });
  await admin.connect();
  await admin.query(`create function no_back() returns trigger language plpgsql as $$ begin
    if new.taken_back ->> 'runs' > '0' then raise exception 'no' using errcode = 'XX000'; end if; return new; end $$`);
  await admin.query('create trigger no_back before update on sheet_file for each row execute function no_back()');
  const takeBack = () => workspace.call('POST', `/sheets/files/${id}/take-back`);
  expect((await takeBack()).status).toBe(202);
  await until(
    async () => {
      await admin.query('update graphile_worker._private_jobs set run_at = now() where locked_at is null');
      return file();
    },
    ({ takenBack }) => takenBack!.stopped,
  );
  await admin.query('drop trigger no_back on sheet_file; drop function no_back()');
  await admin.end();
  expect((await takeBack()).status).toBe(202);
  const { takenBack } = await until(file, (told) => told.takenBack!.done);
  expect(takenBack).toMatchObject({ stopped: false, runs: 1, removed: { contact: 1 } });
  await working.stop();
});
