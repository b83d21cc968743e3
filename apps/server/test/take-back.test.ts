import { expect, test } from '@jest/globals';
import type {
  HistoryEntry,
  HomeShape,
  Page,
  ProblemBody,
  RecordShape,
  RunShape,
  SubmissionDetail,
  TakeBackRehearsal,
  TakenBack,
  TouchShape,
} from '@haycart/api';
import { eachInWorkspace, type TestWorkspace, until } from './support/test-server';

let workspace: TestWorkspace;
let person: TestWorkspace['call'];
let route: string;

eachInWorkspace(async (made) => {
  ({ workspace } = made);
  person = await workspace.signIn();
  route = await workspace.publish();
});

async function enquire(bays: number, name = 'Ada Weir'): Promise<SubmissionDetail> {
  const email = `${name.split(' ')[0]!.toLowerCase()}@weir.example`;
  const id = await workspace.submit({ name, email, company: 'Weir', bays });
  return until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state }) => state !== 'waiting',
  );
}
const runOf = ({ runs }: SubmissionDetail) => runs[0]!.id;
const all = async (kind: string) => (await workspace.get<Page<RecordShape>>(`/${kind}`)).items;
const rehearse = async (choice: object) =>
  (await person<TakeBackRehearsal>('POST', '/runs/take-back/rehearse', choice)).body;
const takeBack = (choice: object) => person<TakenBack & ProblemBody>('POST', '/runs/take-back', choice);
const counts = async () =>
  Promise.all(['contacts', 'companies', 'deals'].map(async (kind) => (await all(kind)).length));

test('a run that made everything is taken back whole: shown before, then done, and undone again', async () => {
  const submission = await enquire(3);
  const choice = { runs: [runOf(submission)] };
  expect(await rehearse(choice)).toEqual({
    runs: 1,
    removed: { contact: 1, company: 1, deal: 1 },
    changed: 0,
    values: 0,
    left: 0,
    sent: 0,
    notSent: 0,
    tasks: 0,
    notes: 0,
    documents: 0,
    consents: 0,
    examples: [],
  });
  expect(await counts()).toEqual([1, 1, 1]);
  const { body } = await takeBack(choice);
  expect(await counts()).toEqual([0, 0, 0]);
  const outcome = async () => (await workspace.get<SubmissionDetail>(`/submissions/${submission.id}`)).runs[0]!.outcome;
  expect(await outcome()).toBe('taken-back');
  const takenBack = async () => (await workspace.get<RunShape>(`/runs/${runOf(submission)}`)).takenBack;
  expect(await takenBack()).toEqual({ edit: body.edit, by: 'Robin Nye', at: expect.any(String) });
  expect(await workspace.get<HomeShape>('/home')).toMatchObject({ takenBack: 1, skipped: 0 });
  expect((await takeBack(choice)).status).toBe(409);

  expect((await person('POST', `/edits/${body.edit}/take-back`)).status).toBe(200);
  expect(await counts()).toEqual([1, 1, 1]);
  expect(await outcome()).toBe('written');
  expect(await takenBack()).toBeNull();
  expect((await all('deals'))[0]!.values.bays).toBe(3);
});

test('a later run goes back to what the earlier wrote; both together go back to nothing', async () => {
  const [first, second] = [await enquire(3), await enquire(7)];
  await takeBack({ runs: [runOf(second)] });
  expect((await all('deals'))[0]!.values.bays).toBe(3);
  await takeBack({ route });
  expect(await counts()).toEqual([0, 0, 0]);
  expect(runOf(first)).not.toBe(runOf(second));
});

test('what a person changed stays, and so does a record that others work with', async () => {
  const [, second] = [await enquire(3), await enquire(7)];
  const [deal] = await all('deals');
  await person('PATCH', `/deals/${deal!.id}`, { values: { bays: 9 } });
  const shown = await rehearse({ runs: [runOf(second)] });
  expect(shown).toMatchObject({
    left: 1,
    examples: [{ field: 'Bays', now: '9', why: 'changed', record: { kind: 'deal' } }],
  });

  const [contact] = await all('contacts');
  await person('POST', `/contacts/${contact!.id}/notes`, { text: 'Called.' });
  const all_ = await rehearse({ route });
  expect(all_.examples.filter(({ field }) => field === null).map(({ record, why }) => [record.kind, why])).toEqual(
    expect.arrayContaining([
      ['contact', 'in-use'],
      ['deal', 'in-use'],
    ]),
  );
  await takeBack({ route });
  expect((await all('contacts')).map(({ values }) => values.full_name)).toEqual(['Ada Weir']);
});

test('a company that another contact is linked to stays', async () => {
  const first = await enquire(3);
  await enquire(4, 'Eda Weir');
  const { body } = await takeBack({ runs: [runOf(first)] });
  expect(body).toMatchObject({ removed: { contact: 1, deal: 1 }, left: 1 });
  expect((await all('companies')).map(({ values }) => values.name)).toEqual(['Weir']);
});

test('everything of one version, or of a time, is taken back in one act', async () => {
  await enquire(3);
  await workspace.call('POST', `/routes/${route}/publish`, {});
  await enquire(5, 'Eda Weir');
  expect(await rehearse({ route, version: 1 })).toMatchObject({ runs: 1, removed: { contact: 1, deal: 1 } });
  expect(await rehearse({ route, before: '2020-01-01T00:00:00Z' })).toMatchObject({ runs: 0 });
  await takeBack({ route, version: 2 });
  expect((await all('contacts')).map(({ values }) => values.full_name)).toEqual(['Ada Weir']);
});

test('touches of a run that was taken back do not count', async () => {
  const [, second] = [await enquire(3), await enquire(7)];
  const [contact] = await all('contacts');
  const touches = async () => (await workspace.get<TouchShape[]>(`/contacts/${contact!.id}/touches`)).length;
  expect(await touches()).toBe(2);
  await takeBack({ runs: [runOf(second)] });
  expect(await touches()).toBe(1);
});

test.each<[object, number]>([
  [{}, 422],
  [{ runs: [] }, 422],
  [{ runs: ['x'] }, 422],
  [{ route: 'x' }, 422],
  [{ runs: ['01a2135d-c1e6-769e-b350-d0f378b473ae'] }, 409],
])('%j is refused', async (choice, status) => expect((await takeBack(choice)).status).toBe(status));

test('two who take back the same do it once', async () => {
  const choice = { runs: [runOf(await enquire(3))] };
  const answers = await Promise.all([takeBack(choice), takeBack(choice), takeBack(choice)]);
  expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409]);
  expect(await counts()).toEqual([0, 0, 0]);
});

/** A run once it has been tried so many times. */
const tried = (id: string, times: number) =>
  until(
    () => workspace.get<RunShape>(`/runs/${id}`),
    ({ attempts }) => attempts.length === times,
  );

test('what was taken back runs again, keeps its first account, and cannot be given back twice', async () => {
  const id = runOf(await enquire(3));
  const { body } = await takeBack({ runs: [id] });
  expect((await person('POST', `/runs/${id}/run-again`)).status).toBe(202);
  const run = await tried(id, 2);
  expect(run).toMatchObject({ id, outcome: 'written', takenBack: null });
  const [again, first] = run.attempts;
  expect(again).toMatchObject({ id: run.attempt, why: 'again', outcome: 'written' });
  expect(first).toMatchObject({ why: 'arrival', outcome: 'taken-back', version: 1, summary: expect.any(String) });
  expect(await counts()).toEqual([1, 1, 1]);
  const before = await workspace.get<RunShape>(`/runs/${id}/attempts/${first!.id}`);
  expect(before).toMatchObject({ outcome: 'taken-back', reason: null, takenBack: { edit: body.edit } });
  expect(before.account.map(({ step }) => step)).toContain('created');

  const refused = await person<ProblemBody>('POST', `/edits/${body.edit}/take-back`);
  expect(refused).toMatchObject({ status: 409, body: { detail: expect.stringContaining('ran again') } });
  expect(await counts()).toEqual([1, 1, 1]);
  expect((await person('POST', `/runs/${id}/run-again`)).status).toBe(409);
  expect((await person('POST', `/runs/${route}/run-again`)).status).toBe(404);
  await takeBack({ runs: [id] });
  expect(await counts()).toEqual([0, 0, 0]);
});

test('a visit counts once when its submission ran twice, and the history names both attempts', async () => {
  const [, second] = [await enquire(3), await enquire(7)];
  const first = runOf(second);
  await takeBack({ runs: [first] });
  await person('POST', `/runs/${first}/run-again`);
  const { attempt: again } = await tried(first, 2);
  const [deal] = await all('deals');
  expect(deal!.values.bays).toBe(7);
  expect(await workspace.get<TouchShape[]>(`/deals/${deal!.id}/touches`)).toHaveLength(2);
  const history = await workspace.get<HistoryEntry[]>(`/deals/${deal!.id}/history`);
  const byRun = history.filter(({ cause }) => cause.kind === 'run');
  expect(byRun.map(({ cause }) => cause.id)).toEqual(expect.arrayContaining([first, again]));
  expect(new Set(byRun.map(({ cause }) => cause.label))).toEqual(new Set(['Enquiries']));
  expect(byRun.every(({ cause }) => cause.submission)).toBe(true);
});

test('what waited and runs again keeps why it waited', async () => {
  await person('POST', `/routes/${route}/pause`);
  const held = await enquire(3);
  expect(held.runs[0]).toMatchObject({ outcome: 'held' });
  await person('POST', `/routes/${route}/resume`, { waiting: 'route' });
  const run = await tried(runOf(held), 2);
  const told = { version: 1, by: null, finishedAt: expect.any(String) };
  expect(run.attempts).toEqual([
    { ...told, id: run.attempt, why: 'again', outcome: 'written', summary: run.summary },
    { ...told, id: run.id, why: 'arrival', outcome: 'held', summary: held.runs[0]!.summary },
  ]);
  const first = await workspace.get<RunShape>(`/runs/${run.id}/attempts/${run.id}`);
  expect(first).toMatchObject({ id: run.id, attempt: run.id, outcome: 'held', attempts: run.attempts });
  expect(first.account.map(({ step }) => step)).toContain('held');
  expect((await workspace.call('GET', `/runs/${run.id}/attempts/${route}`)).status).toBe(404);
  expect((await workspace.call('GET', `/runs/${run.id}/attempts/nothing`)).status).toBe(404);
});
