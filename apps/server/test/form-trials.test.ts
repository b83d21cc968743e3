import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { FormFiguresShape, FormShape, IntakeShape, ProblemBody } from '@haycart/api';
import type { FormItem } from '@haycart/core';
import { EMAIL, formOf, TestForms } from './support/test-forms';
import { newDatabase, TestServer, TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
let forms: TestForms;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
  workspace = await TestWorkspace.make(server);
  forms = new TestForms(server, workspace);
});
afterAll(() => server.stop());

const WHY: FormItem = { name: 'why', type: 'text', label: 'Why now?', required: true };
const visitor = (n: number) => ({ 'user-agent': `Browser ${n}` });
const trialOf = async (key: string) => (await workspace.get<FormFiguresShape>(`/forms/${key}/figures`)).trial;
const end = (key: string, keep: number) =>
  workspace.call<{ version: number } & ProblemBody>('POST', `/forms/${key}/trial/end`, { keep });

/** A live form, looked at thrice, whose second version with one question more is seen by half of the visitors. */
async function onTrial(): Promise<IntakeShape> {
  const form = await forms.add();
  await forms.publish(form.key);
  for (let n = 0; n < 3; n += 1) await forms.page(form, '', visitor(n));
  const { draft, revision } = await forms.at(form.key);
  const longer = { ...draft, items: [...draft.items, WHY] };
  await workspace.call<FormShape>('PUT', `/forms/${form.key}/draft`, { form: longer, revision });
  expect((await forms.publish(form.key, { share: 0.5 })).body).toMatchObject({ version: 2 });
  return form;
}

test('two versions share the visitors; each visitor keeps theirs, and each is counted from the beginning of the trial', async () => {
  const form = await onTrial();
  const seen = new Map<string, string>();
  for (const again of [false, true])
    for (let n = 0; n < 60; n += 1) {
      const version = (await forms.page(form, '', visitor(n))).includes('Why now?') ? 'new' : 'earlier';
      if (again) expect(version).toBe(seen.get(`${n}`));
      seen.set(`${n}`, version);
    }
  expect(new Set(seen.values())).toEqual(new Set(['new', 'earlier']));
  const trial = (await trialOf(form.key))!;
  expect(trial).toMatchObject({ version: 1, share: 0.5, published: { version: 2 }, earlier: { version: 1 } });
  expect(trial.published.figures.views + trial.earlier.figures.views).toBe(120);
  expect(trial.comparison === null).toBe(Math.min(trial.published.figures.views, trial.earlier.figures.views) < 50);
});

test('each version is checked by its own questions, and the submission names it', async () => {
  const form = await onTrial();
  const send = (version: string, more = {}) =>
    forms.send(form.key, {
      email: `v${version}@weir.example`,
      _visit: JSON.stringify({ formVersion: version }),
      ...more,
    });
  expect((await send('1')).status).toBe(200);
  expect((await forms.latest(form.key)).visit.formVersion).toBe('1');
  const refused = await send('2');
  expect(refused.status).toBe(422);
  expect(await refused.text()).toContain('Why now?');
  expect((await send('2', { why: 'Frost' })).status).toBe(200);
  expect((await forms.latest(form.key)).visit.formVersion).toBe('2');
  const trial = (await trialOf(form.key))!;
  expect([trial.earlier.figures.sends, trial.published.figures.sends]).toEqual([1, 1]);
});

test('what a page tells of its visitor counts for the version that it shows', async () => {
  const form = await onTrial();
  const tell = (version: number) =>
    server.post(`${form.address}/seen?version=${version}`, JSON.stringify({ did: 'start' }), {
      'content-type': 'text/plain',
    });
  for (const version of [1, 1, 2, 77]) await tell(version);
  const trial = (await trialOf(form.key))!;
  expect([trial.earlier.figures.starts, trial.published.figures.starts]).toEqual([2, 2]);
});

test('the new version is kept for everybody', async () => {
  const form = await onTrial();
  expect((await end(form.key, 2)).body).toEqual({ version: 2 });
  for (let n = 0; n < 20; n += 1) expect(await forms.page(form, '', visitor(n))).toContain('Why now?');
  expect(await trialOf(form.key)).toBeNull();
  expect((await end(form.key, 2)).status).toBe(409);
});

test('the earlier version is published again, and the draft stays as it is', async () => {
  const form = await onTrial();
  expect((await end(form.key, 9)).status).toBe(422);
  expect((await end(form.key, 1)).body).toEqual({ version: 3 });
  for (let n = 0; n < 20; n += 1) expect(await forms.page(form, '', visitor(n))).not.toContain('Why now?');
  const { draft, versions, intake } = await forms.at(form.key);
  expect(draft.items).toHaveLength(2);
  expect(versions[0]).toMatchObject({
    version: 3,
    note: 'Version 1 again, after it shared the visitors with version 2.',
  });
  expect(intake.trial).toBeNull();
});

test('publishing for everybody ends the trial', async () => {
  const form = await onTrial();
  expect((await forms.publish(form.key)).body).toMatchObject({ version: 3 });
  expect((await forms.at(form.key)).intake.trial).toBeNull();
});

test('a form that nobody sees yet has no visitors to share', async () => {
  const form = await forms.add(formOf(EMAIL));
  expect((await forms.publish(form.key, { share: 0.5 })).status).toBe(409);
  expect((await forms.at(form.key)).versions).toEqual([]);
  expect((await forms.publish(form.key, { share: 1.5 })).status).toBe(422);
});
