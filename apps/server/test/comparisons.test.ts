import { describe, expect, test } from '@jest/globals';
import type { RouteDefinition } from '@haycart/core';
import type {
  CaseResult,
  ComparisonShape,
  Page,
  ProblemBody,
  RecordShape,
  RouteCaseShape,
  RouteShape,
  RouteVersionLine,
} from '@haycart/api';
import { ComparisonsService } from '../src/runs/comparisons.service';
import { routeFrom } from './support/routes';
import { eachInWorkspace, type TestServer, type TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
let route: string;

eachInWorkspace(async (made) => {
  ({ server, workspace } = made);
  route = await workspace.publish();
});

const send = (name: string, more: object = {}) =>
  workspace.submit({ name, email: `${name}@weir.example`, company: 'Weir', bays: 3, ...more });
/** The draft with the name of the deal another, and only for some. */
function changed(more: Partial<RouteDefinition> = {}): RouteDefinition {
  const definition = routeFrom(workspace.endpoint);
  definition.writes[2]!.fills[0]!.value.parts[0] = { text: 'Roof for' };
  return { ...definition, ...more };
}
const saveDraft = (definition: RouteDefinition) => workspace.call('PUT', `/routes/${route}/draft`, definition);
const publish = (more: object = {}) =>
  workspace.call<{ version: number } & ProblemBody>('POST', `/routes/${route}/publish`, more);

async function compared(wish: object = {}): Promise<ComparisonShape> {
  const { status, body } = await workspace.call<ComparisonShape>('POST', `/routes/${route}/comparisons`, wish);
  expect({ status, body }).toMatchObject({ status: 202, body: { state: 'working' } });
  return until(
    () => workspace.get<ComparisonShape>(`/routes/${route}/comparisons/${body.id}`),
    ({ state }) => state !== 'working',
  );
}

describe('rehearsing many', () => {
  test('tells how many would go which way, what differs and how, and writes nothing', async () => {
    for (const name of ['ada', 'eda', 'ida']) await send(name);
    await workspace.handled();
    const contacts = await workspace.get<Page<RecordShape>>('/contacts');
    await saveDraft(changed({ onlyWhen: { of: { answer: 'name' }, test: 'is-not', value: 'ida' } }));
    const found = await compared();
    expect(found).toMatchObject({
      state: 'done',
      total: 3,
      looked: 3,
      differ: 3,
      before: { name: 'version 1', outcomes: { write: 3, skip: 0 } },
      after: { name: 'the draft', outcomes: { write: 2, skip: 1 } },
      groups: [
        {
          text: 'The deal’s Name is another',
          count: 2,
          examples: [{ before: 'Glass for Eda', after: 'Roof for Eda' }, { who: 'ada' }],
        },
        { text: 'Written before, left out now', count: 1, examples: [{ who: 'ida' }] },
      ],
    });
    expect(await workspace.get<Page<RecordShape>>('/contacts')).toEqual(contacts);
  });

  test('compares any two versions, over a time, and the latest of it', async () => {
    for (const name of ['ada', 'eda']) await send(name);
    await workspace.handled();
    await saveDraft(changed());
    await publish();
    expect(await compared({ before: 1, after: 2 })).toMatchObject({ differ: 2, after: { name: 'version 2' } });
    expect(await compared({ before: 2, after: 2 })).toMatchObject({ differ: 0, groups: [] });
    expect(await compared({ before: 1, last: 1 })).toMatchObject({ total: 1, looked: 1 });
    expect(await compared({ until: '2020-01-01T00:00:00Z' })).toMatchObject({ total: 0, state: 'done' });
  });

  test('only counts where there is no version yet', async () => {
    const { body } = await workspace.call<RouteShape>('POST', '/routes', { definition: routeFrom(workspace.endpoint) });
    await send('ada');
    route = body.id;
    expect(await compared()).toMatchObject({ before: null, after: { outcomes: { write: 1 } }, differ: 0 });
  });

  test('can be cancelled, and then stops', async () => {
    const begun = await workspace.call<ComparisonShape>('POST', `/routes/${route}/comparisons`, {});
    await until(
      () => workspace.get<ComparisonShape>(`/routes/${route}/comparisons/${begun.body.id}`),
      ({ state }) => state === 'done',
    );
    await workspace.query(`update route_comparison set state = 'working'`);
    const at = `/routes/${route}/comparisons/${begun.body.id}`;
    expect((await workspace.call<ComparisonShape>('POST', `${at}/cancel`)).body.state).toBe('cancelled');
    await send('ada');
    await server.app.get(ComparisonsService).work(workspace.id, begun.body.id);
    expect(await workspace.get<ComparisonShape>(at)).toMatchObject({ state: 'cancelled', looked: 0 });
  });

  test.each([
    [{ before: 9 }, 404],
    [{ last: 0 }, 422],
    [{ since: 'Tuesday' }, 422],
  ])('%j is refused', async (wish, status) =>
    expect((await workspace.call('POST', `/routes/${route}/comparisons`, wish)).status).toBe(status),
  );
});

describe('saved cases', () => {
  const save = async (name: string, sample: object) =>
    (await workspace.call<RouteCaseShape>('POST', `/routes/${route}/cases`, { name, ...sample })).body;
  const check = async () => (await workspace.call<CaseResult[]>('POST', `/routes/${route}/cases/check`, {})).body;
  const ADA = { payload: { name: 'Ada Weir', email: 'ada@weir.example', company: 'Weir', bays: 2 } };

  test('come out as agreed until the draft changes what becomes of them', async () => {
    await save('A school', ADA);
    expect(await check()).toMatchObject([{ name: 'A school', differences: [] }]);
    await saveDraft(changed());
    expect((await check())[0]!.differences).toEqual([
      {
        kind: 'sale field name',
        text: 'The deal’s Name is another',
        before: 'Glass for Ada Weir',
        after: 'Roof for Ada Weir',
      },
    ]);
  });

  test('stand in the way of publishing, unless somebody publishes knowingly', async () => {
    const { id } = await save('A school', ADA);
    await saveDraft(changed());
    expect((await publish()).body).toMatchObject({
      status: 409,
      code: 'cases-differ',
      detail: expect.stringContaining('“A school”'),
      errors: [{ at: `/cases/${id}`, message: 'The deal’s Name is another' }],
    });
    expect((await publish({ knowingly: true })).body).toEqual({ version: 2 });
    await workspace.call('POST', `/routes/${route}/cases/${id}/agree`);
    expect((await publish()).body).toEqual({ version: 3 });
  });

  test('know the records that were known then, whatever became of them', async () => {
    await send('ada');
    await workspace.handled();
    const [contact] = (await workspace.get<Page<RecordShape>>('/contacts')).items;
    await save('Ada again', { payload: { name: 'Ada', email: 'ada@weir.example', company: 'Weir', bays: 9 } });
    await workspace.call('PATCH', `/contacts/${contact!.id}`, { values: { email: 'other@weir.example' } });
    await send('ada');
    await workspace.handled();
    expect((await check())[0]!.differences).toEqual([]);
  });

  test('hold what is posted, and are told when it says something else', async () => {
    const posting = (path: string) => ({
      ...routeFrom(workspace.endpoint),
      followUps: [{ do: 'post', to: `https://hooks.example/${path}` }],
    });
    await saveDraft(posting('one'));
    await save('A school', ADA);
    expect(await check()).toMatchObject([{ differences: [] }]);
    await saveDraft(posting('two'));
    expect((await check())[0]!.differences.map(({ text }) => text)).toEqual([
      'Post to hooks.example is not sent any more',
      'Post to hooks.example, which was not sent before',
    ]);
  });

  test('are listed and taken away; a sample that there is not is refused', async () => {
    const { id } = await save('A school', ADA);
    expect(await workspace.get<RouteCaseShape[]>(`/routes/${route}/cases`)).toMatchObject([{ id, outcome: 'write' }]);
    expect((await workspace.call('DELETE', `/routes/${route}/cases/${id}`)).status).toBe(204);
    expect((await workspace.call('DELETE', `/routes/${route}/cases/${id}`)).status).toBe(404);
    expect((await workspace.call('POST', `/routes/${route}/cases`, { name: 'x' })).status).toBe(422);
    expect((await workspace.call('POST', `/routes/${route}/cases`, { name: '', ...ADA })).status).toBe(422);
  });
});

test('the versions of a route say who, when and why, and what each said', async () => {
  await saveDraft(changed());
  await publish({ note: 'Roofs' });
  const versions = await workspace.get<RouteVersionLine[]>(`/routes/${route}/versions`);
  expect(versions.map(({ version, note }) => [version, note])).toEqual([
    [2, 'Roofs'],
    [1, null],
  ]);
  expect(versions[1]!.definition.writes[2]!.fills[0]!.value.parts[0]).toEqual({ text: 'Glass for' });
  expect((await workspace.call('GET', '/routes/nowhere/versions')).status).toBe(404);
});

test('a draft that somebody else saved meanwhile is not overwritten', async () => {
  const put = async (revision: string | null, name: string) => {
    const response = await fetch(`${server.base}/api/v1/routes/${route}/draft`, {
      method: 'PUT',
      headers: {
        authorization: `Bearer ${workspace.token}`,
        'content-type': 'application/json',
        ...(revision === null ? {} : { 'if-match': revision }),
      },
      body: JSON.stringify({ ...routeFrom(workspace.endpoint), name }),
    });
    return { status: response.status, body: (await response.json()) as RouteShape & ProblemBody };
  };
  const { revision } = await workspace.get<RouteShape>(`/routes/${route}`);
  expect(await put(`"${revision}"`, 'One')).toMatchObject({
    status: 200,
    body: { revision: revision + 1, draftSavedBy: 'token test' },
  });
  expect(await put(String(revision), 'Other')).toMatchObject({
    status: 409,
    body: { code: 'changed-meanwhile', detail: expect.stringContaining('token test') },
  });
  expect(await put(null, 'Third')).toMatchObject({ status: 200, body: { revision: revision + 2 } });
  expect((await put('soon', 'Fourth')).status).toBe(422);
  expect((await workspace.get<RouteShape>(`/routes/${route}`)).name).toBe('Third');
});
