import { describe, expect, test } from '@jest/globals';
import type { ReadyCheck } from '@haycart/core';
import type {
  DoneEdit,
  FieldMoveRehearsal,
  FieldShape,
  Page,
  ProblemBody,
  RecordShape,
  RouteShape,
  TypeChangeRehearsal,
} from '@haycart/api';
import { routeFrom } from './support/routes';
import { eachInWorkspace, type TestWorkspace, until } from './support/test-server';

let workspace: TestWorkspace;
let person: TestWorkspace['call'];

eachInWorkspace(async (made) => {
  ({ workspace } = made);
  person = await workspace.signIn();
});

const field = async (record: string, label: string, more: object = {}) =>
  (await person<FieldShape>('POST', '/fields', { record, label, type: 'text', ...more })).body;
const make = async (kind: string, values: object, links: string[] = []) =>
  (await person<{ id: string }>('POST', `/${kind}`, { values, links })).body.id;
const values = async (path: string) => (await workspace.get<RecordShape>(path)).values;
const post = <Answer>(path: string, body: object) => person<Answer & ProblemBody>('POST', path, body);

describe('another type', () => {
  test('shows what would not fit before, and changes nothing while values stand in the way', async () => {
    await field('contact', 'Size');
    for (const size of ['6', '7', 'large', 'LARGE']) await make('contacts', { full_name: size, size });
    const { body } = await post<TypeChangeRehearsal>('/fields/contact/size/type/rehearse', { type: 'whole-number' });
    expect(body).toMatchObject({
      records: 4,
      fit: 2,
      misfitRecords: 2,
      misfits: [
        { value: 'LARGE', records: 1 },
        { value: 'large', records: 1 },
      ],
    });
    expect((await post('/fields/contact/size/type', { type: 'whole-number' })).status).toBe(409);
    expect((await workspace.get<FieldShape[]>('/fields')).find(({ key }) => key === 'size')!.type).toBe('text');
  });

  test('converts the values, clears those that do not fit where that is said, and gives back none that would not fit', async () => {
    await field('contact', 'Size');
    const [six, large] = [await make('contacts', { size: '6' }), await make('contacts', { size: 'large' })];
    const wish = { type: 'whole-number', clearMisfits: true };
    const { body } = await post<DoneEdit>('/fields/contact/size/type', wish);
    expect([(await values(`/contacts/${six}`)).size, (await values(`/contacts/${large}`)).size]).toEqual([
      6,
      undefined,
    ]);
    expect((await person('PATCH', `/contacts/${six}`, { values: { size: 'x' } })).status).toBe(422);
    const back = await post<{ left: number }>(`/edits/${body.edit}/take-back`, {});
    expect(back.body).toMatchObject({ left: 2 });
    expect([(await values(`/contacts/${six}`)).size, (await values(`/contacts/${large}`)).size]).toEqual([
      6,
      undefined,
    ]);
  });

  test('of a text makes a list of what was typed', async () => {
    await field('contact', 'Heating');
    const id = await make('contacts', { heating: 'Frost-free' });
    await post('/fields/contact/heating/type', { type: 'one-of' });
    const made = (await workspace.get<FieldShape[]>('/fields')).find(({ key }) => key === 'heating')!;
    expect(made.options).toEqual([{ key: 'frost-free', label: 'Frost-free' }]);
    expect((await values(`/contacts/${id}`)).heating).toBe('frost-free');
    expect((await post('/fields/contact/email/type', { type: 'text' })).status).toBe(409);
  });
});

describe('a field on the wrong record', () => {
  test('is moved with its values to the records linked, and routes follow', async () => {
    await field('contact', 'Grown');
    const definition = routeFrom(workspace.endpoint);
    definition.writes[1]!.fills.push({ field: 'grown', value: { parts: [{ answer: 'grown' }] } });
    const route = await workspace.publish(definition);
    await workspace.submit({ name: 'Ada', email: 'ada@weir.example', grown: 'moss' });
    await until(
      () => workspace.get<Page<RecordShape>>('/deals'),
      ({ items }) => items.length === 1,
    );
    await make('contacts', { full_name: 'Alone', grown: 'fern' });
    // A route that was never published stands in nobody's way.
    const draft = { ...routeFrom(workspace.endpoint), name: 'Never published' };
    expect((await post('/routes', { definition: draft })).status).toBe(201);
    const { body } = await post<FieldMoveRehearsal>('/fields/contact/grown/move/rehearse', { to: 'deal' });
    expect(body).toMatchObject({ values: 2, moved: 1, nowhere: 1, routes: [{ follows: true }] });

    expect((await post<DoneEdit>('/fields/contact/grown/move', { to: 'deal' })).body).toMatchObject({ records: 1 });
    const [deal] = (await workspace.get<Page<RecordShape>>('/deals')).items;
    expect(deal!.values.grown).toBe('moss');
    const { published } = await workspace.get<RouteShape>(`/routes/${route}`);
    expect(published!.writes.map(({ fills }) => fills.some(({ field: key }) => key === 'grown'))).toEqual([
      false,
      false,
      true,
    ]);
    await workspace.submit({ name: 'Ida', email: 'ida@weir.example', grown: 'reed' });
    await until(
      () => workspace.get<Page<RecordShape>>('/deals'),
      ({ items }) => items.some(({ values: held }) => held.grown === 'reed'),
    );
  });

  test('stays while a route that feeds it would have nowhere to', async () => {
    await field('contact', 'Grown');
    const definition = routeFrom(workspace.endpoint);
    definition.writes[1]!.fills.push({ field: 'grown', value: { parts: [{ answer: 'grown' }] } });
    await workspace.publish({ ...definition, writes: definition.writes.slice(0, 2) });
    const { status, body } = await post('/fields/contact/grown/move', { to: 'deal' });
    expect([status, body.detail]).toEqual([409, expect.stringContaining('Enquiries')]);
    await field('deal', 'grown');
    expect((await post('/fields/contact/grown/move', { to: 'contact' })).status).toBe(409);
  });
});

describe('a unique field', () => {
  const unique = (on: boolean) => person<ProblemBody>('PATCH', '/fields/contact/code', { unique: on });

  test('keeps two records from holding the same, whoever writes them', async () => {
    await field('contact', 'Code', { unique: false });
    await make('contacts', { full_name: 'Ada', code: 'A1' });
    expect((await unique(true)).status).toBe(200);
    const taken = await person<ProblemBody>('POST', '/contacts', { values: { full_name: 'Ida', code: ' a1' } });
    expect([taken.status, taken.body.detail]).toEqual([409, expect.stringContaining('Ada')]);

    const definition = routeFrom(workspace.endpoint);
    definition.writes[1]!.fills.push({ field: 'code', value: { parts: [{ answer: 'code' }] } });
    await workspace.publish(definition);
    await workspace.submit({ name: 'Eda', email: 'eda@weir.example', code: 'A1' });
    const [run] = await until(
      () => workspace.query<{ outcome: string; summary: string }>('select outcome, summary from run'),
      ({ length }) => length === 1,
    );
    expect(run).toMatchObject({ outcome: 'failed', summary: expect.stringContaining('Code a1') });
    await unique(false);
    expect((await person('POST', '/contacts', { values: { code: 'A1' } })).status).toBe(201);
  });

  test('cannot be made of values that stand twice, and says which', async () => {
    await field('contact', 'Code');
    for (const code of ['A1', 'a1']) await make('contacts', { code });
    const { status, body } = await unique(true);
    expect([status, body.detail]).toEqual([409, expect.stringContaining('“A1” is on 2')]);
    expect((await person('PATCH', '/fields/deal/bays', { unique: true })).status).toBe(200);
  });
});

test('what a field keeps beside its type: a group, a help text, colours of options', async () => {
  const options = [{ label: 'Warm', colour: 'brick' }, { label: 'Cold' }];
  await field('contact', 'Heating', { type: 'one-of', options, group: 'House', help: 'As the survey says' });
  const { body } = await person<FieldShape>('PATCH', '/fields/contact/heating', {
    options: [
      { key: 'cold', label: 'Cold', colour: 'slate' },
      { key: 'warm', label: 'Warm' },
    ],
    group: 'Glasshouse',
  });
  expect(body).toMatchObject({
    group: 'Glasshouse',
    help: 'As the survey says',
    options: [
      { key: 'cold', label: 'Cold', colour: 'slate' },
      { key: 'warm', label: 'Warm' },
    ],
  });
});

test('a workspace is asked whether it is ready, and says what is not', async () => {
  const open = async () => {
    const checks = await workspace.get<ReadyCheck[]>('/set-up/readiness');
    return Object.fromEntries(checks.map(({ name, items }) => [name, items.map(({ text }) => text)]));
  };
  expect(await open()).toMatchObject({
    'submissions-arrive': ['No route is live yet'],
    'people-in-teams': ['Robin Nye is in no team'],
    'stages-reached': expect.arrayContaining([expect.stringContaining('Design')]),
  });
  await workspace.publish();
  await person('POST', '/teams', { name: 'Builds', people: ['robin-nye'] });
  await person('DELETE', '/fields/deal/bays');
  expect(await open()).toMatchObject({
    'submissions-arrive': [],
    'people-in-teams': [],
    'routes-in-order': [expect.stringContaining('bays')],
  });
});
