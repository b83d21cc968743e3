import { expect, test } from '@jest/globals';
import type { DecisionList, BandFigures, IntakeLine, RouteLine } from '@haycart/api';
import { Database } from '../src/platform/database/database';
import { foldCounts } from '../src/platform/database/fold-counts';
import { RunCounts } from '../src/counts/run-counts.service';
import { SubmissionInbox } from '../src/submissions/inbox/submission-inbox.service';
import { SubmissionSearch } from '../src/submissions/search/submission-search.service';
import { routeFrom } from './support/routes';
import { eachInWorkspace, type TestServer, type TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

eachInWorkspace((made) => ({ server, workspace } = made));

const counted = (filter = '') => workspace.get<Record<string, number>>(`/submission-outcomes${filter}`);
/** The same, told one by one. */
const enumerated = async (where = 'true') =>
  Object.fromEntries(
    (
      await workspace.query<{ outcome: string; n: number }>(
        `select coalesce(r.outcome, s.state) as outcome, count(*)::int as n from submission s
         left join run r on r.submission_id = s.id where ${where} group by 1`,
      )
    ).map(({ outcome, n }) => [outcome, n]),
  );
const fold = () =>
  server.app.get(Database).inWorkspace(workspace.id, async (tx) => {
    await foldCounts(tx, 'run_count', ['intake_id', 'route_id', 'outcome'], 'runs');
    await foldCounts(tx, 'arrival_count', ['intake_id'], 'arrivals');
  });

/** Some written, some failed, some left out, and some that nothing takes. */
async function everyOutcome(): Promise<string> {
  await workspace.submit({ name: 'Nobody takes this' });
  await workspace.handled();
  const definition = routeFrom(workspace.endpoint);
  definition.onlyWhen = { of: { answer: 'name' }, test: 'is-not', value: 'Out' };
  definition.writes[1]!.fills[0]!.ifEmpty = 'fail';
  const route = await workspace.publish(definition);
  for (const name of ['Ada', 'Bo', 'Cleo', 'Out', ''])
    await workspace.submit({ name, email: name && `${name.toLowerCase()}@weir.example`, company: 'Weir' });
  await workspace.handled();
  return route;
}

test('what is kept of outcomes is what one would count, whatever becomes of runs and however rows are folded', async () => {
  const route = await everyOutcome();
  const agree = async () => {
    expect(await counted()).toEqual(await enumerated());
    expect(await counted(`?intake=${workspace.endpoint}`)).toEqual(await enumerated());
    expect(await counted(`?route=${route}`)).toEqual(await enumerated('r.id is not null'));
    expect(await counted(`?since=${new Date(Date.now() - 86_400_000).toISOString()}`)).toEqual(await enumerated());
    expect(await counted(`?since=${new Date(Date.now() + 1_000).toISOString()}`)).toEqual({});
    expect(await counted('?intake=nothing')).toEqual({});
  };
  expect(await counted()).toMatchObject({ written: 3, unrouted: 1 });
  await agree();
  await fold();
  await agree();
  const runs = await workspace.query<{ id: string }>(
    `select id from run where outcome = 'written' order by id limit 2`,
  );
  const back = await workspace.call<{ edit: string }>('POST', '/runs/take-back', { runs: runs.map(({ id }) => id) });
  expect((await counted())['taken-back']).toBe(2);
  await agree();
  await fold();
  await workspace.call('POST', `/edits/${back.body.edit}/take-back`);
  await agree();
  const [failed] = await workspace.query<{ id: string }>(
    `select submission_id as id from run where outcome <> 'written' limit 1`,
  );
  await workspace.call('POST', `/submissions/${failed!.id}/run-again`);
  await workspace.handled();
  await fold();
  await agree();
  expect((await workspace.query('select 1 from run_count where not folded')).length).toBe(0);
});

test('whole days are added up and the first is counted, to the second', async () => {
  await everyOutcome();
  const [intake] = await workspace.query<{ id: string }>(`select id from intake where key = '${workspace.endpoint}'`);
  for (const hours of [30, 70, 71.9, 200])
    await server.app.get(SubmissionInbox).keep({
      workspaceId: workspace.id,
      intakeId: intake!.id,
      receivedAt: new Date(Date.now() - hours * 3_600_000),
      format: 'json',
      visit: {},
      body: Buffer.from(`{"name":"Eda","email":"eda${hours}@weir.example"}`),
    });
  await workspace.handled();
  const since = (interval: string) =>
    workspace.query<{ at: Date }>(`select now() - interval '${interval}' as at`).then(([row]) => row!.at.toISOString());
  for (const interval of ['9 days', '4 days', '71 hours', '1 day', '1 hour']) {
    const from = await since(interval);
    expect([interval, await counted(`?since=${from}`)]).toEqual([
      interval,
      await enumerated(`s.received_at >= '${from}'`),
    ]);
  }
});

test('intakes and routes tell the same numbers, before and after what arrived is read', async () => {
  const route = await everyOutcome();
  const line = async () =>
    (await workspace.get<IntakeLine[]>('/intake-lines')).find(({ key }) => key === workspace.endpoint)!;
  const told = async () => {
    const { submissions, month, failed } = await line();
    return [submissions, month.at(-1), failed];
  };
  const before = await told();
  expect(before.slice(0, 2)).toEqual([6, 6]);
  const search = server.app.get(SubmissionSearch);
  await server.database.inWorkspace(workspace.id, (tx) => search.read(tx));
  expect(await told()).toEqual(before);
  await fold();
  expect(await told()).toEqual(before);
  const routes = await workspace.get<RouteLine[]>('/routes');
  const since = new Date(Date.now() - 86_400_000);
  const kept = await server.database.inWorkspace(workspace.id, (tx) => server.app.get(RunCounts).byRoute(tx, since));
  expect(routes.find(({ id }) => id === route)!.runs).toMatchObject({
    written: kept.find(({ outcome }) => outcome === 'written')!.count,
  });
});

test('how much waits to be decided is as many lines as there are', async () => {
  await everyOutcome();
  const lines = (await workspace.get<DecisionList>('/decisions')).items;
  expect((await workspace.get<BandFigures>('/band')).toDecide).toBe(lines.length);
  expect(lines.length).toBeGreaterThan(0);
});
