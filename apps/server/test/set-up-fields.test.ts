import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { FieldShape, FieldUse, Page, ProblemBody, RecordShape, RouteShape, SubmissionDetail } from '@haycart/api';
import { routeFrom } from './support/routes';
import { newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
});
afterAll(() => server.stop());
beforeEach(async () => {
  workspace = await TestWorkspace.make(server);
});

const make = <Answer = FieldShape>(body: unknown) => workspace.call<Answer>('POST', '/fields', body);
const change = (path: string, body: unknown) => workspace.call<FieldShape>('PATCH', `/fields/${path}`, body);
const uses = () => workspace.get<FieldUse[]>('/set-up/field-uses');
const GROWING = {
  record: 'contact',
  label: 'Growing for',
  type: 'one-of',
  options: [{ label: 'Moss', aliases: ['mosses'] }, { label: 'Fern' }],
};

async function arrive(payload: Record<string, string>): Promise<SubmissionDetail> {
  const id = await workspace.submit(payload);
  return until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state }) => state !== 'waiting',
  );
}

/** A route that also feeds a field of the contact. */
function feeding(field: string) {
  const definition = routeFrom(workspace.endpoint);
  definition.writes[1]!.fills.push({ field, value: { parts: [{ answer: 'growing' }] } });
  return definition;
}

describe('fields', () => {
  test('are made with keys of their own, one or many at once', async () => {
    const one = await make(GROWING);
    expect([one.status, one.body]).toMatchObject([
      201,
      { key: 'growing_for', options: [{ key: 'moss', label: 'Moss', aliases: ['mosses'] }, { key: 'fern' }] },
    ]);
    const many = await make<FieldShape[]>([
      { record: 'deal', label: 'Wanted by', type: 'date' },
      { record: 'deal', label: 'Ridge height', type: 'decimal', help: 'In metres' },
    ]);
    expect(many.body.map(({ key }) => key)).toEqual(['wanted_by', 'ridge_height']);
    expect((await workspace.get<FieldShape[]>('/fields')).map(({ key }) => key)).toEqual(
      expect.arrayContaining(['growing_for', 'wanted_by', 'ridge_height']),
    );
  });

  test.each<[string, unknown, string]>([
    ['a label that is taken', { record: 'deal', label: 'bays', type: 'text' }, '/label'],
    ['a type that there is not', { record: 'deal', label: 'A', type: 'colour' }, '/type'],
    ['a list without options', { record: 'deal', label: 'A', type: 'one-of' }, '/options'],
    [
      'two of one label in a list',
      [
        { record: 'deal', label: 'A', type: 'text' },
        { record: 'deal', label: 'a', type: 'date' },
      ],
      '/1/label',
    ],
    [
      'one without a label in a list',
      [
        { record: 'deal', label: 'A', type: 'text' },
        { record: 'deal', type: 'text' },
      ],
      '/1/label',
    ],
    [
      'an alias that means two things',
      { ...GROWING, options: [{ label: 'A' }, { label: 'B', aliases: ['a'] }] },
      '/options/1/aliases/0',
    ],
  ])('with %s are refused at the place, and none is made', async (_, body, at) => {
    const before = (await workspace.get<FieldShape[]>('/fields')).length;
    const { status, body: problem } = await make<ProblemBody>(body);
    expect([status, problem.errors?.map((error) => error.at)]).toEqual([422, expect.arrayContaining([at])]);
    expect(await workspace.get<FieldShape[]>('/fields')).toHaveLength(before);
  });

  test('of one kind are 500 at most, and that many can be made at once', async () => {
    const many = Array.from({ length: 480 }, (_, n) => ({ record: 'company', label: `Size ${n}`, type: 'decimal' }));
    expect((await make(many)).status).toBe(201);
    const more = Array.from({ length: 20 }, (_, n) => ({ record: 'company', label: `More ${n}`, type: 'text' }));
    expect((await make<ProblemBody>(more)).body.errors?.at(-1)?.code).toBe('too-many-fields');
  });

  test('change their labels, help and need, and keep their keys', async () => {
    await make(GROWING);
    const renamed = await change('contact/growing_for', { label: 'Grows', help: 'Mostly', required: true });
    expect(renamed.body).toMatchObject({ key: 'growing_for', label: 'Grows', help: 'Mostly', required: true });
    expect((await change('contact/last_name', { required: true, label: 'Surname' })).body).toMatchObject({
      label: 'Surname',
      required: true,
      builtIn: true,
    });
    expect((await change('contact/last_name', { retired: true })).status).toBe(409);
    expect((await change('company/name', { required: false })).status).toBe(409);
    expect((await change('contact/nothing', { label: 'A' })).status).toBe(404);
    expect((await change('contact/growing_for', { type: 'text' })).status).toBe(422);
  });
});

describe('the options of a list', () => {
  test('keep their keys when renamed; what is left out is retired, and means nothing to what comes in', async () => {
    await make(GROWING);
    await workspace.publish(feeding('growing_for'));
    expect((await arrive({ name: 'A', email: 'a@weir.example', growing: 'MOSSES' })).runs[0]!.outcome).toBe('written');
    const { body } = await change('contact/growing_for', {
      options: [{ key: 'fern', label: 'Ferns', aliases: ['fern'] }, { label: 'Moss and more' }],
    });
    expect(body.options).toEqual([
      { key: 'fern', label: 'Ferns', aliases: ['fern'] },
      { key: 'moss-and-more', label: 'Moss and more' },
      { key: 'moss', label: 'Moss', aliases: ['mosses'], retired: true },
    ]);
    await arrive({ name: 'B', email: 'b@weir.example', growing: 'mosses' });
    await arrive({ name: 'C', email: 'c@weir.example', growing: 'fern' });
    const { items } = await workspace.get<Page<RecordShape>>('/contacts?limit=10');
    expect(Object.fromEntries(items.map(({ name, values }) => [name, values.growing_for]))).toEqual({
      A: 'moss',
      B: undefined,
      C: 'fern',
    });
    const unknown = await workspace.call<ProblemBody>('PATCH', '/fields/contact/growing_for', {
      options: [{ key: 'no', label: 'No' }],
    });
    expect(unknown.body.errors?.[0]?.at).toBe('/options/0/key');
  });
});

describe('a field that is taken out of use', () => {
  test('keeps its values and its key, stops the routes that feed it with a reason, and comes back', async () => {
    await make(GROWING);
    const route = await workspace.publish(feeding('growing_for'));
    await arrive({ name: 'A', email: 'a@weir.example', growing: 'moss' });
    expect((await workspace.call('DELETE', '/fields/contact/growing_for')).status).toBe(200);
    expect((await workspace.get<FieldShape[]>('/fields')).some(({ key }) => key === 'growing_for')).toBe(false);
    expect((await workspace.get<RouteShape>(`/routes/${route}`)).problems.map(({ code }) => code)).toContain(
      'unknown-field',
    );
    const failed = await arrive({ name: 'B', email: 'b@weir.example', growing: 'moss' });
    expect(failed.runs[0]).toMatchObject({ outcome: 'failed', summary: expect.stringContaining('growing_for') });

    expect((await make(GROWING)).body.key).toBe('growing_for_2');
    await workspace.call('DELETE', '/fields/contact/growing_for_2');
    expect((await change('contact/growing_for', { retired: false })).body.retired).toBeUndefined();
    const { items } = await workspace.get<Page<RecordShape>>('/contacts?email=a@weir.example');
    expect(items[0]!.values.growing_for).toBe('moss');
  });
});

test('a field tells what feeds it, how full it is and when it was last filled', async () => {
  await make(GROWING);
  await workspace.publish(feeding('growing_for'));
  await arrive({ name: 'A', email: 'a@weir.example', growing: 'moss' });
  await arrive({ name: 'B', email: 'b@weir.example' });
  const all = await uses();
  const of = (record: string, key: string) => all.find((one) => one.record === record && one.key === key);
  expect(of('contact', 'growing_for')).toMatchObject({ records: 2, filled: 1, routes: [{ name: 'Enquiries' }] });
  expect(Date.parse(of('contact', 'growing_for')!.lastFilledAt!)).not.toBeNaN();
  expect(of('contact', 'job_title')).toMatchObject({ records: 2, filled: 0, lastFilledAt: null, routes: [] });
  expect(of('deal', 'value')).toMatchObject({ records: 2, filled: 0 });
});

describe('two people at the same moment', () => {
  const errors = ({ status, body }: { status: number; body: unknown }) => [
    status,
    (body as ProblemBody).errors?.[0]?.code ?? null,
  ];

  test('who make a field of one name make one, and the other is told', async () => {
    const wanted = { record: 'deal', label: 'Ridge height', type: 'decimal' };
    const answers = await Promise.all(Array.from({ length: 5 }, () => make<unknown>(wanted)));
    expect(answers.map(errors).sort()).toEqual([[201, null], ...Array.from({ length: 4 }, () => [422, 'label-taken'])]);
  });

  test('who rename two fields to one name rename one', async () => {
    await make([
      { record: 'deal', label: 'A', type: 'text' },
      { record: 'deal', label: 'B', type: 'text' },
    ]);
    const answers = await Promise.all(['deal/a', 'deal/b'].map((path) => change(path, { label: 'Ridge' })));
    expect(answers.map(errors).sort()).toEqual([
      [200, null],
      [422, 'label-taken'],
    ]);
  });

  test('who make a pipeline of one name make one, and stages of one name one', async () => {
    const pipeline = () => workspace.call<unknown>('POST', '/pipelines', { name: 'Care', record: 'deal' });
    expect((await Promise.all([pipeline(), pipeline()])).map(errors).sort()).toEqual([
      [201, null],
      [422, 'name-taken'],
    ]);
    const stage = () => workspace.call<unknown>('POST', '/pipelines/care/stages', { name: 'Called' });
    expect((await Promise.all([stage(), stage(), stage()])).map(errors).sort()).toEqual([
      [201, null],
      [422, 'name-taken'],
      [422, 'name-taken'],
    ]);
  });

  test('who change different things of one stage both have their way', async () => {
    const at = '/pipelines/new-builds/stages/enquiry';
    await Promise.all([
      workspace.call('PATCH', at, { probability: 20 }),
      workspace.call('PATCH', at, { stuckAfter: 9 }),
      workspace.call('PATCH', at, { name: 'Asked' }),
    ]);
    const [pipeline] = await workspace.get<{ stages: object[] }[]>('/pipelines');
    expect(pipeline!.stages[0]).toEqual({
      key: 'enquiry',
      name: 'Asked',
      state: 'open',
      probability: 20,
      stuckAfter: 9,
    });
  });

  test('who change different things of one field both have their way', async () => {
    await make(GROWING);
    await Promise.all([
      change('contact/growing_for', { required: true }),
      change('contact/growing_for', { help: 'What they grow most of' }),
      change('contact/growing_for', { label: 'Grows' }),
    ]);
    const fields = await workspace.get<FieldShape[]>('/fields');
    expect(fields.find(({ key }) => key === 'growing_for')).toMatchObject({
      required: true,
      help: 'What they grow most of',
      label: 'Grows',
    });
  });
});
