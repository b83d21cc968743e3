import { describe, expect, test } from '@jest/globals';
import type {
  DecisionList,
  DecisionShape,
  Page,
  RecordShape,
  RunShape,
  SubmissionDetail,
  TaskLine,
} from '@haycart/api';
import type { Hold } from '@haycart/core';
import { eachInWorkspace, type TestWorkspace, until } from './support/test-server';
import { answer, contactRoute } from './support/routes';

let workspace: TestWorkspace;
let person: TestWorkspace['call'];
eachInWorkspace(async (made) => {
  ({ workspace } = made);
  person = await workspace.signIn();
});

const ASKS: Hold = { for: 'approval', by: { person: 'robin-nye' } };
const LARGE: Hold = { ...ASKS, when: { of: { answer: 'bays' }, test: 'at-least', value: 10 } };

const asking = (...holds: Hold[]) =>
  contactRoute(workspace.endpoint, {
    name: 'Grants',
    followUps: [{ do: 'task', on: 'person', title: answer('subject'), owner: { person: 'robin-nye' } }],
    holds,
  });

async function enquire(more: object = {}): Promise<SubmissionDetail> {
  const id = await workspace.submit({ name: 'Weir', email: 'ada@weir.example', subject: 'Roof', bays: 20, ...more });
  return settled(id);
}
const settled = (id: string, outcome?: string) =>
  until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state, runs }) => state !== 'waiting' && (outcome === undefined || runs[0]?.outcome === outcome),
  );
const contacts = async () => (await workspace.get<Page<RecordShape>>('/contacts?email=ada@weir.example')).items;
const waiting = async () => (await workspace.get<DecisionList>('/decisions')).items;
const say = (id: string, action: string, note?: string) =>
  person('POST', '/decisions/decide', { ids: [id], action, ...(note === undefined ? {} : { note }) });

describe('a run that asks first', () => {
  test('writes nothing until somebody says yes, and then all of it, once', async () => {
    await workspace.publish(asking(ASKS));
    const { id, runs } = await enquire();
    expect(runs).toMatchObject([{ outcome: 'held' }]);
    expect(await workspace.get<RunShape>(`/runs/${runs[0]!.id}`)).toMatchObject({
      reason: { code: 'approval', hold: 'approval' },
    });
    expect(await contacts()).toEqual([]);
    const [line] = await waiting();
    expect(line).toMatchObject({ kind: 'approval', title: 'Approve?', subject: 'Weir' });
    expect(await workspace.get<DecisionShape>(`/decisions/${line!.id}`)).toMatchObject({
      question: 'May Grants write what Weir sent?',
      view: { as: 'approval', would: ['New contact', 'Task “Roof” for Robin Nye'] },
      examples: [{ who: 'Weir' }],
    });
    expect((await say(line!.id, 'maybe')).status).toBe(422);
    expect((await say(line!.id, 'approve')).status).toBe(200);
    await settled(id, 'written');
    expect(await contacts()).toHaveLength(1);
    expect((await workspace.get<Page<TaskLine>>('/tasks')).items).toMatchObject([{ text: 'Roof' }]);
    expect(await waiting()).toEqual([]);
    // Whoever says it twice, or later, is told that nothing waits any more.
    expect((await say(line!.id, 'approve')).status).toBe(404);
  });

  test('ends left out where somebody says no, with who said so; running it again asks nobody', async () => {
    await workspace.publish(asking(ASKS));
    const { id, runs } = await enquire();
    const [line] = await waiting();
    await say(line!.id, 'deny', ' Not a school ');
    await settled(id, 'skipped');
    expect(await workspace.get<RunShape>(`/runs/${runs[0]!.id}`)).toMatchObject({
      outcome: 'skipped',
      reason: { code: 'denied', text: 'Robin Nye said no: Not a school.' },
    });
    expect(await contacts()).toEqual([]);
    expect(await waiting()).toEqual([]);
  });

  test('asks only where its condition is met, and several in their turn', async () => {
    await workspace.publish(asking(LARGE, { ...ASKS, by: { enteredBy: true, otherwise: { person: 'robin-nye' } } }));
    const { id } = await enquire();
    for (let asked = 0; asked < 2; asked += 1) {
      const [line] = await until(waiting, ({ length }) => length === 1);
      expect((await say(line!.id, 'approve')).status).toBe(200);
      await settled(id);
    }
    await settled(id, 'written');
    expect(await contacts()).toHaveLength(1);
    await workspace.publish(asking(LARGE));
    const small = await enquire({ bays: 2, email: 'bo@weir.example' });
    expect(small.runs.map(({ outcome }) => outcome)).toContain('written');
  });

  test('stays where it is left, and is asked again when it runs again', async () => {
    await workspace.publish(asking(ASKS));
    const { runs } = await enquire();
    const [line] = await waiting();
    await say(line!.id, 'leave');
    expect(await waiting()).toEqual([]);
    expect((await person('POST', `/runs/${runs[0]!.id}/run-again`)).status).toBe(202);
    expect(await until(waiting, ({ length }) => length === 1)).toMatchObject([{ kind: 'approval' }]);
  });
});
