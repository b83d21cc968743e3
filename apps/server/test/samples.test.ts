import { expect, test } from '@jest/globals';
import type { KnownShape, ProblemBody, Rehearsal, SubmissionDetail } from '@haycart/api';
import { KnownRecords, rehearse, type Destination, type JsonObject, type RouteDefinition } from '@haycart/core';
import { DestinationService } from '../src/destination/destination.service';
import { routeFrom } from './support/routes';
import { eachInWorkspace, type TestServer, type TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

eachInWorkspace((made) => ({ server, workspace } = made));

const routed = async (payload: JsonObject) => {
  const id = await workspace.submit(payload);
  return until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state }) => state !== 'waiting',
  );
};
const sample = async (query: string) =>
  (await workspace.get<{ submission: string | null }>(`/intakes/${workspace.endpoint}/sample?${query}`)).submission;

test('the most complete sample, the latest that failed, and one that holds a value are found', async () => {
  const definition = routeFrom(workspace.endpoint);
  definition.writes[1]!.fills[2]!.ifEmpty = 'fail';
  const route = await workspace.publish(definition);
  const bare = await routed({ email: 'ada@weir.example', name: 'Ada', note: '' });
  const whole = await routed({
    email: 'bo@weir.example',
    name: 'Bo',
    phone: '07700 900318',
    grow: { what: 'Tree ferns' },
  });
  const other = await routed({ email: 'cleo@weir.example', name: 'Cleo', phone: '07700 900319' });
  expect(await sample('kind=complete')).toBe(whole.id);
  expect(await sample(`kind=failing&route=${route}`)).toBe(bare.id);
  expect(await sample('kind=holding&text=TREE')).toBe(whole.id);
  expect(await sample('kind=holding&text=weir.example')).toBe(other.id);
  expect(await sample('kind=holding&text=orchids')).toBeNull();
});

test.each(['kind=any', 'kind=holding', 'kind=holding&text=%20', 'kind=failing', 'kind=failing&route=x'])(
  'a sample is not looked for by %s',
  async (query) => {
    expect((await workspace.call('GET', `/intakes/${workspace.endpoint}/sample?${query}`)).status).toBe(422);
  },
);

test('what is known by some keys is enough to plan elsewhere what the server plans', async () => {
  const definition = routeFrom(workspace.endpoint);
  const id = await workspace.publish(definition);
  await routed({ email: 'ada@weir-glass.example', name: 'Ada', company: 'Weir', bays: 3 });
  const payload = { email: 'ADA@weir-glass.example', name: 'ada', company: 'Weir Glass', bays: 5 };
  const lookups = {
    keys: [
      { record: 'company', kind: 'domain', value: 'weir-glass.example' },
      { record: 'contact', kind: 'email', value: 'ada@weir-glass.example' },
    ],
    deals: true,
  };
  const { body: known } = await workspace.call<KnownShape>('POST', '/rehearse/known', lookups);
  expect(known.records.map(({ kind }) => kind).sort()).toEqual(['company', 'contact', 'deal']);
  const { body: shown } = await workspace.call<Rehearsal>('POST', `/routes/${id}/rehearse`, { payload });
  const planned = await elsewhere(definition, known, payload);
  expect({ ...planned, touches: [] }).toEqual({ ...shown, names: undefined, touches: [] });
  expect(Object.values(known.names)).toContain('contact 1 Ada');
});

async function elsewhere(definition: RouteDefinition, { records, links }: KnownShape, payload: JsonObject) {
  const destination = await server.database.inWorkspace(workspace.id, (tx): Promise<Destination> =>
    server.app.get(DestinationService).load(tx),
  );
  const receivedAt = new Date().toISOString();
  const submission = { id: 'rehearsal', intake: workspace.endpoint, receivedAt, payload, visit: {} };
  return rehearse(definition, submission, new KnownRecords(records, links), {
    destination,
    intakes: [{ key: workspace.endpoint, name: 'Dealers' }],
  });
}

test('nothing is known by keys that are none', async () => {
  const call = (body: unknown) => workspace.call<KnownShape & ProblemBody>('POST', '/rehearse/known', body);
  expect(
    (await call({ keys: [{ record: 'contact', kind: 'email', value: 'nobody@weir.example' }], deals: true })).body,
  ).toEqual({
    records: [],
    links: [],
    counters: {},
    names: {},
  });
  expect((await call({ keys: [{ record: 'table', kind: 'email', value: 'x' }], deals: true })).status).toBe(422);
  expect((await call({ keys: 'all', deals: true })).status).toBe(422);
});
