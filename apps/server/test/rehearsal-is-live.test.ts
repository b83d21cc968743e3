import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { comparePlans, FINISHERS, type Plan, type RouteDefinition } from '@haycart/core';
import type { Rehearsal, RouteShape, RunShape, SubmissionDetail } from '@haycart/api';
import fc from 'fast-check';
import { DestinationService } from '../src/destination/destination.service';
import { routeFrom } from './support/routes';
import { newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
  workspace = await TestWorkspace.make(server);
});
afterAll(() => server.stop());

const name = fc.constantFrom('Ada Weir', 'EDA LOCK', 'van der Meer, Joost', '王小明', '', ' ');
const email = fc.constantFrom('ada@weir.example', 'Eda@Lock.example', 'not an address', '');
const payload = fc.record(
  {
    name,
    email,
    company: fc.constantFrom('Weir Ltd', '', 'Lock & Sons'),
    phone: fc.constantFrom('07700 900318', '+31 6 12345678', 'call me', ''),
    bays: fc.constantFrom('4', 4, 'four', '', null),
    answers: fc.constantFrom<object[]>([], [{ id: 'q1', title: 'Job title', value: 'Head' }]),
  },
  { requiredKeys: ['email'] },
);
const uses = fc.uniqueArray(
  fc.constantFrom(...FINISHERS.filter(({ parameters }) => parameters.safeParse({}).success).map((one) => one.name)),
  { maxLength: 3 },
);
const route = fc.record({
  uses,
  overwrite: fc.constantFrom('always', 'if-blank', 'never'),
  ifEmpty: fc.constantFrom('leave', 'clear', 'fail'),
  whenMatched: fc.constantFrom('update', 'fill-blanks', 'leave'),
  again: fc.constantFrom('update', 'new', 'leave'),
  onlyWhen: fc.option(fc.constantFrom('filled', 'blank'), { nil: undefined }),
});
type Choice = typeof route extends fc.Arbitrary<infer T> ? T : never;

function routeOf({ uses: names, overwrite, ifEmpty, whenMatched, again, onlyWhen }: Choice): RouteDefinition {
  const definition = routeFrom(workspace.endpoint);
  const [, person, sale] = definition.writes;
  person!.whenMatched = whenMatched as 'update';
  person!.fills[0] = {
    field: 'full_name',
    value: { parts: [{ answer: 'name' }], finishers: names.map((use) => ({ use })) },
    overwrite: overwrite as 'always',
    ifEmpty: ifEmpty as 'leave',
  };
  person!.fills.push({ field: 'job_title', value: { parts: [{ answer: 'answers.job_title' }] } });
  sale!.place!.again = again as 'update';
  return onlyWhen ? { ...definition, onlyWhen: { of: { answer: 'company' }, test: onlyWhen } } : definition;
}

/** A plan without what only a live one has: its ids and its time. */
const outcomeOf = ({ outcome, reason, writes }: Pick<Plan, 'outcome' | 'reason' | 'writes'>) => ({
  outcome,
  reason,
  writes: writes.map(({ as, did, match, fields, place }) => ({
    as,
    did,
    by: match.by,
    fields: fields.map(({ field, after, offered, did: done, why }) => [field, after, offered, done, why]),
    place: place && [place.stage, place.did],
  })),
});

test('what a rehearsal shows is what the live run then does, for any route and submission', async () => {
  const destination = await server.database.inWorkspace(workspace.id, (tx) =>
    server.app.get(DestinationService).load(tx),
  );
  const made = await workspace.call<RouteShape>('POST', '/routes', { definition: routeFrom(workspace.endpoint) });
  const at = `/routes/${made.body.id}`;
  for (const [choice, sent] of fc.sample(fc.tuple(route, payload), 40)) {
    const definition = routeOf(choice);
    await workspace.call('PUT', `${at}/draft`, definition);
    expect((await workspace.call('POST', `${at}/publish`, {})).status).toBe(200);
    const { body: shown } = await workspace.call<Rehearsal>('POST', `${at}/rehearse`, { payload: sent });
    const id = await workspace.submit(sent as Parameters<TestWorkspace['submit']>[0]);
    const { runs } = await until(
      () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
      ({ state }) => state !== 'waiting',
    );
    const { plan } = await workspace.get<RunShape>(`/runs/${runs[0]!.id}`);
    expect(outcomeOf(plan!)).toEqual(outcomeOf(shown));
    // Written or not, the two are alike to the comparison of versions, too.
    if (plan!.outcome !== 'write') expect(comparePlans(shown, plan!, destination)).toEqual([]);
  }
});

test('what is planned elsewhere is planned against the very destination that the server plans against', async () => {
  await workspace.query(`insert into team (workspace_id, key, name) values (current_workspace(), 'north', 'North')`);
  await workspace.query(`update workspace set revision = revision + 1 where id = current_workspace()`);
  const own = await server.database.inWorkspace(workspace.id, (tx) => server.app.get(DestinationService).load(tx));
  expect(await workspace.get('/destination')).toEqual(JSON.parse(JSON.stringify(own)));
  expect(own).toMatchObject({
    teams: { north: { people: [] } },
    mailboxes: expect.anything(),
    merging: expect.anything(),
  });
});
