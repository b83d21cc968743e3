import { beforeEach, describe, expect, test } from '@jest/globals';
import type { ComparisonShape, RouteShape, RunShape, SubmissionShape, ValueSetShape } from '@haycart/api';
import type { DecisionTable, RouteDefinition } from '@haycart/core';
import { routeFrom } from './support/routes';
import { eachInWorkspace, until, type TestWorkspace } from './support/test-server';

let workspace: TestWorkspace;
eachInWorkspace((made) => (workspace = made.workspace));

const table = (more: Partial<DecisionTable> = {}): DecisionTable => ({
  name: 'Who',
  inputs: [
    { of: { answer: 'country' }, label: 'Country' },
    { of: { answer: 'bays' }, label: 'Bays', as: 'number' },
  ],
  outputs: [
    { name: 'stage', type: 'stage' },
    { name: 'owner', type: 'owner' },
  ],
  rows: [
    {
      when: [
        { test: 'in-set', value: 'north' },
        { test: 'at-least', value: 8 },
      ],
      then: { stage: 'design', owner: { person: 'robin-nye' } },
    },
    { when: [{ test: 'in-set', value: 'north' }, null], then: { stage: 'enquiry', owner: { team: 'desk' } } },
  ],
  otherwise: { stage: 'enquiry' },
  ...more,
});
const deciding = (...tables: DecisionTable[]): RouteDefinition => {
  const route = routeFrom(workspace.endpoint);
  const writes = route.writes.map((write) =>
    write.as === 'sale'
      ? {
          ...write,
          place: { ...write.place!, stage: { parts: [{ decision: 'Who', output: 'stage' }] } },
          owner: { decision: 'Who', output: 'owner' },
        }
      : write,
  );
  return { ...route, decisions: tables, writes };
};
let sent = 0;
const send = (country: string, bays: number) => {
  sent += 1;
  return workspace.submit({ name: `Ada ${sent}`, email: `ada@weir${sent}.example`, country, bays });
};
const deals = () =>
  workspace.query<{ stage: string; owner: string | null }>(
    'select stage, owner from deal where workspace_id = current_workspace() order by created_at, id',
  );
const runOf = async (submission: string) => {
  const { runs } = await workspace.get<SubmissionShape & { runs: { id: string }[] }>(`/submissions/${submission}`);
  return workspace.get<RunShape>(`/runs/${runs[0]!.id}`);
};

beforeEach(async () => {
  sent = 0;
  const person = await workspace.signIn();
  for (const name of ['Ida Weir', 'Bo Lund'])
    await person('POST', '/people', { name, email: `${name[0]}.${workspace.key}@quillfern.example` });
  await person('POST', '/teams', { name: 'Desk', people: ['ida-weir', 'bo-lund'] });
  await workspace.call('POST', '/value-sets', { name: 'North', values: ['GB', ' gb ', 'IE', ''] });
});

describe('a route that decides by a table', () => {
  test('gives each its stage and owner by the row that fits, and the account names the row', async () => {
    await workspace.publish(deciding(table()));
    const first = await send('gb', 9);
    await workspace.handled();
    await send('IE', 2);
    await workspace.handled();
    await send('GB', 1);
    await workspace.handled();
    await send('NL', 20);
    await workspace.handled();
    expect(await deals()).toEqual([
      { stage: 'design', owner: 'robin-nye' },
      { stage: 'enquiry', owner: 'bo-lund' },
      { stage: 'enquiry', owner: 'ida-weir' },
      { stage: 'enquiry', owner: null },
    ]);
    const { account } = await runOf(first);
    expect(account.map(({ text }) => text)).toContain('Who: row 1, stage Design, owner Robin Nye');
  });

  test('counts which row takes how many of the last, and says what would go elsewhere', async () => {
    const id = await workspace.publish(deciding(table()));
    const ids = [await send('GB', 9), await send('GB', 1), await send('IE', 2), await send('NL', 2)];
    await workspace.handled();
    const { draft } = await workspace.get<RouteShape>(`/routes/${id}`);
    const rows = [...table().rows];
    rows[1] = { ...rows[1]!, then: { ...rows[1]!.then, stage: 'design' } };
    await workspace.call('PUT', `/routes/${id}/draft`, { ...draft, decisions: [table({ rows })] });
    const begun = await workspace.call<ComparisonShape>('POST', `/routes/${id}/comparisons`, { last: 1_000 });
    const found = await until(
      () => workspace.get<ComparisonShape>(`/routes/${id}/comparisons/${begun.body.id}`),
      ({ state }) => state === 'done',
    );
    const sent = (nth: number) => ({ submission: ids[nth], who: expect.stringMatching(/./), at: expect.any(String) });
    expect(found.tables).toEqual([
      {
        table: 'Who',
        rows: [
          { count: 1, examples: [sent(0)] },
          { count: 2, examples: [sent(2), sent(1)] },
        ],
        none: { count: 1, examples: [sent(3)] },
      },
    ]);
    expect(found.groups.find(({ kind }) => kind === 'decided Who')).toMatchObject({
      text: 'The table Who says something else',
      count: 2,
      examples: [{ before: 'stage Enquiry, owner Desk, in turn', after: 'stage Design, owner Desk, in turn' }, {}],
    });
  });

  test('is not published with a set that is gone, a person who is gone, or a cell that means nothing', async () => {
    const publish = async (more: Partial<DecisionTable>) => {
      const added = await workspace.call<RouteShape>('POST', '/routes', { definition: deciding(table(more)) });
      const { status, body } = await workspace.call<{ errors: { code: string; at: string }[] }>(
        'POST',
        `/routes/${added.body.id}/publish`,
        {},
      );
      return [status, body.errors?.map(({ code, at }) => `${code} ${at}`)];
    };
    expect(await publish({ rows: [{ when: [{ test: 'in-set', value: 'gone' }], then: {} }] })).toEqual([
      422,
      ['cell-does-not-fit /decisions/0/rows/0/when/0'],
    ]);
    expect(await publish({ rows: [{ when: [], then: { owner: { person: 'gone' } } }] })).toEqual([
      422,
      ['output-does-not-fit /decisions/0/rows/0/then/owner'],
    ]);
    expect(await publish({ rows: [{ when: [null, { test: 'unread', value: 'many' }], then: {} }] })).toEqual([
      422,
      ['cell-does-not-fit /decisions/0/rows/0/when/1'],
    ]);
  });

  test('takes a table of 500 rows and 20 columns', async () => {
    const inputs = Array.from({ length: 20 }, (_, n) => ({ of: { answer: `q${n}` }, label: `Question ${n}` }));
    const rows = Array.from({ length: 500 }, (_, n) => ({
      when: inputs.map((__, i) => (i === n % 20 ? { test: 'is', value: `value ${n}` } : null)),
      then: { stage: 'enquiry' },
    }));
    const large = table({ name: 'Large', inputs, rows, outputs: [{ name: 'stage', type: 'stage' }] });
    const id = await workspace.publish(deciding(table(), large));
    const { draft } = await workspace.get<RouteShape>(`/routes/${id}`);
    expect(draft.decisions![1]).toEqual(large);
  });
});

describe('a value set', () => {
  const sets = () => workspace.get<ValueSetShape[]>('/value-sets');

  test('keeps each value once, under a name of its own', async () => {
    expect(await sets()).toEqual([{ key: 'north', name: 'North', values: ['GB', 'IE'], usedBy: [] }]);
    expect((await workspace.call('POST', '/value-sets', { name: ' north', values: [] })).status).toBe(409);
    for (const wrong of [
      { name: '  ', values: [] },
      { name: 'South' },
      { name: 'South', values: [7] },
      { name: 'South', values: ['x'.repeat(201)] },
      { name: 'South', values: Array.from({ length: 10_001 }, (_, n) => String(n)) },
    ])
      expect((await workspace.call('POST', '/value-sets', wrong)).status).toBe(422);
    expect((await workspace.call('PATCH', '/value-sets/gone', { values: [] })).status).toBe(404);
  });

  test('is renamed and emptied while it is used, but not taken away', async () => {
    await workspace.publish(deciding(table()));
    const changed = await workspace.call<ValueSetShape>('PATCH', '/value-sets/north', { name: 'Up north', values: [] });
    expect(changed.body).toEqual({ key: 'north', name: 'Up north', values: [], usedBy: ['Enquiries'] });
    await send('GB', 9);
    await workspace.handled();
    expect(await deals()).toEqual([{ stage: 'enquiry', owner: null }]);
    const refused = await workspace.call<{ detail: string }>('DELETE', '/value-sets/north');
    expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining('used by Enquiries')]);
  });

  test('comes from a file with others, by name', async () => {
    const wish = {
      sets: [
        { name: 'NORTH', values: ['FR'] },
        { name: 'South', values: ['ES', 'es'] },
      ],
    };
    const { status, body } = await workspace.call<ValueSetShape[]>('POST', '/value-sets/import', wish);
    expect([status, body]).toEqual([
      200,
      [
        { key: 'north', name: 'North', values: ['FR'], usedBy: [] },
        { key: 'south', name: 'South', values: ['ES'], usedBy: [] },
      ],
    ]);
    expect((await workspace.call('DELETE', '/value-sets/south')).status).toBe(204);
    expect(await sets()).toHaveLength(1);
  });
});
