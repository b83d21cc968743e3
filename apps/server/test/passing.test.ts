import { expect, test } from '@jest/globals';
import type { Condition } from '@haycart/core';
import type { PassingShape, ProblemBody, SubmissionDetail } from '@haycart/api';
import { routeFrom } from './support/routes';
import { eachInWorkspace, type TestWorkspace, until } from './support/test-server';

let workspace: TestWorkspace;

eachInWorkspace((made) => ({ workspace } = made));

const is = (value: string, caseSensitive?: boolean): Condition => ({
  of: { answer: 'town' },
  test: 'is',
  value,
  ...(caseSensitive ? { caseSensitive } : {}),
});
const count = (onlyWhen?: Condition) =>
  workspace.call<PassingShape & ProblemBody>('POST', '/rehearse/passing', {
    definition: { ...routeFrom(workspace.endpoint), ...(onlyWhen ? { onlyWhen } : {}) },
  });

test('how many of the latest would pass is counted, and which fail by the writing of a value alone', async () => {
  for (const town of ['Ilkley', 'ILKLEY', 'Il-kley', 'Otley']) await workspace.submit({ town });
  expect((await count()).body).toEqual({ looked: 4, pass: 4, nearMisses: [] });
  expect((await count(is('ilkley'))).body).toMatchObject({
    looked: 4,
    pass: 2,
    nearMisses: [{ clause: 'town is ilkley', differs: 'writing', count: 1 }],
  });
  expect((await count(is('Ilkley', true))).body).toMatchObject({
    pass: 1,
    nearMisses: expect.arrayContaining([expect.objectContaining({ differs: 'capitals', count: 1 })]),
  });
  expect((await count({ of: { answer: 'town' }, test: 'sounds-like' })).body.pass).toBe(0);
  expect((await workspace.call('POST', '/rehearse/passing', { definition: {} })).status).toBe(422);
});

test('a route leaves out what its condition does not let through, and says why', async () => {
  await workspace.publish({ ...routeFrom(workspace.endpoint), onlyWhen: is('Ilkley') });
  const id = await workspace.submit({ name: 'Ada Weir', email: 'ada@weir.example', town: 'Otley' });
  const { runs } = await until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state }) => state !== 'waiting',
  );
  expect(runs).toMatchObject([
    { outcome: 'skipped', summary: 'The route takes this only when town is Ilkley (it is “Otley”).' },
  ]);
});
