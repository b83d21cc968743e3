import { expect, test } from '@jest/globals';
import type { FieldShape, Page, RecordShape, SubmissionDetail } from '@haycart/api';
import { routeFrom } from './support/routes';
import { eachInWorkspace, type TestWorkspace, until } from './support/test-server';

let workspace: TestWorkspace;

eachInWorkspace((made) => ({ workspace } = made));

const growing = async () => (await workspace.get<FieldShape[]>('/fields')).find(({ key }) => key === 'growing')!;

async function publishWith(parameters: object): Promise<string> {
  const options = [{ label: 'Moss' }];
  await workspace.call('POST', '/fields', { record: 'contact', label: 'Growing', type: 'one-of', options });
  const definition = routeFrom(workspace.endpoint);
  definition.writes[1]!.fills.push({
    field: 'growing',
    value: { parts: [{ answer: 'grow' }], finishers: [{ use: 'translate', with: { ...parameters } }] },
  });
  return workspace.publish(definition);
}

async function sent(grow: string, name: string): Promise<SubmissionDetail> {
  const id = await workspace.submit({ name, email: `${name}@weir.example`, grow });
  return until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state }) => state !== 'waiting',
  );
}

test('values that are to be options become options once, also when many come at the same time', async () => {
  await publishWith({ otherwise: 'add as option' });
  await Promise.all(Array.from({ length: 12 }, (_, n) => sent(n % 2 ? 'Tree ferns' : 'tree FERNS', `name-${n}`)));
  expect((await growing()).options?.map(({ key }) => key)).toEqual(['moss', 'tree_ferns']);
  const { items } = await workspace.get<Page<RecordShape>>('/contacts?limit=50');
  expect(new Set(items.map(({ values }) => values.growing))).toEqual(new Set(['tree_ferns']));
  expect(items).toHaveLength(12);
});

test('a value that is not in the table waits for a person, and is written once it is', async () => {
  const route = await publishWith({ table: { mos: 'moss' } });
  const held = await sent('ferns', 'ada');
  expect(held.runs).toMatchObject([{ outcome: 'held', summary: expect.stringContaining('“ferns”') }]);
  const { draft } = await workspace.get<{ draft: ReturnType<typeof routeFrom> }>(`/routes/${route}`);
  draft.writes[1]!.fills.at(-1)!.value.finishers![0]!.with = { table: { mos: 'moss', ferns: 'moss' } };
  await workspace.call('PUT', `/routes/${route}/draft`, draft);
  await workspace.call('POST', `/routes/${route}/publish`, {});
  await workspace.call('POST', `/submissions/${held.id}/run-again`);
  const after = await until(
    () => workspace.get<SubmissionDetail>(`/submissions/${held.id}`),
    ({ runs }) => runs[0]?.outcome === 'written',
  );
  expect(after.runs).toHaveLength(1);
});
