import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { EntryLinkShape, EntryShape, IntakeShape, ProblemBody, RecordShape, Page } from '@haycart/api';
import type { FormItem } from '@haycart/core';
import { EMAIL, formOf, TestForms } from './support/test-forms';
import { newDatabase, TestServer, TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
let forms: TestForms;
let person: TestWorkspace['call'];
let form: IntakeShape;
let link: EntryLinkShape;

const NAME: FormItem = { name: 'name', type: 'text', label: 'Name', feeds: { record: 'contact', field: 'full_name' } };
const entry = async (secret = link.secret) => {
  const response = await fetch(`${server.base}/api/v1/entry/${secret}`);
  return { status: response.status, body: (await response.json()) as EntryShape & ProblemBody };
};

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
  workspace = await TestWorkspace.make(server);
  forms = new TestForms(server, workspace);
  person = await workspace.signIn();
  form = await forms.add(formOf(NAME, EMAIL));
  const place = { record: 'deal', pipeline: 'new-builds', stage: 'enquiry', again: 'update' };
  const { status } = await forms.publish(form.key, {
    route: { place, owner: { enteredBy: true }, value: 'GBP 500' },
  });
  expect(status).toBe(200);
  await workspace.call('PATCH', `/intakes/${form.key}`, { forColleagues: true });
  link = (await person<EntryLinkShape>('POST', `/forms/${form.key}/entry-link`)).body;
});
afterAll(() => server.stop());

test('a form for colleagues opens for nobody else, and takes nothing from anybody else', async () => {
  const stranger = await forms.open(form);
  expect(stranger.status).toBe(401);
  const said = await stranger.text();
  expect(said).toContain('This form is for colleagues.');
  expect(said).toContain(`/intakes/${form.key}/entry`);
  expect(said).not.toContain('<form');
  const answers = { name: 'Mallory', email: 'mallory@weir.example' };
  expect((await forms.send(form.key, answers)).status).toBe(401);
  expect((await forms.send(form.key, { ...answers, _entry: 'guessed' })).status).toBe(401);
  const script = await server.postJson(`/in/${form.key}`, answers);
  expect([script.status, ((await script.json()) as ProblemBody).code]).toEqual([401, 'entry-link']);
  expect(await workspace.query('select 1 from submission')).toEqual([]);
});

test('whoever has an entry link enters in its person’s name, and is told what became of it', async () => {
  const opened = await forms.page(form, `?entry=${link.secret}`);
  expect(opened).toContain(`name="_entry" value="${link.secret}"`);
  expect(opened).not.toContain('data-seen');
  const sent = await forms.send(form.key, { name: 'Ida Weir', email: 'ida@weir.example', _entry: link.secret });
  expect(sent.status).toBe(200);
  await workspace.handled();
  const { body } = await entry();
  expect(body).toMatchObject({
    form: { key: form.key, title: 'Ask us', address: form.address, state: 'live' },
    person: { key: 'robin-nye' },
    latest: [{ who: 'Ida Weir', state: 'routed', runs: [{ outcome: 'written' }] }],
  });
  const [deal] = (await workspace.get<Page<RecordShape>>('/deals')).items;
  expect(deal!.owner).toBe('robin-nye');
  const kept = await forms.latest(form.key);
  expect(kept.origin).toEqual({ enteredBy: 'robin-nye' });
  expect(JSON.stringify(kept.payload)).not.toContain(link.secret);
});

test('what a post says of who entered it is not believed', async () => {
  const open = await forms.add(formOf(EMAIL));
  await forms.publish(open.key);
  const claim = JSON.stringify({ enteredBy: 'robin-nye', utm_source: 'show' });
  await forms.send(open.key, { email: 'a@weir.example', _visit: claim }, '?enteredBy=robin-nye');
  await forms.send(open.key, { email: 'b@weir.example', _visit: claim, _entry: link.secret });
  const lines = await workspace.query<{ by: string | null }>(
    `select coalesce(s.visit ->> 'enteredBy', s.origin ->> 'enteredBy') as by from submission s join intake i on i.id = s.intake_id where i.key = $1`,
    [open.key],
  );
  expect(lines).toEqual([{ by: null }, { by: null }]);
});

test('colleagues may be as fast as they like: nothing of theirs is set aside', async () => {
  const sent = Array.from({ length: 45 }, (_, n) =>
    forms.send(form.key, {
      name: `Caller ${n}`,
      email: `caller${n}@weir.example`,
      _entry: link.secret,
      _opened: String(Date.now()),
    }),
  );
  expect(new Set((await Promise.all(sent)).map(({ status }) => status))).toEqual(new Set([200]));
  expect(await workspace.query(`select 1 from submission where state = 'set-aside'`)).toEqual([]);
});

test('a refused entry keeps its link for the next try', async () => {
  const refused = await forms.send(form.key, { name: 'No mail', email: 'nothing', _entry: link.secret });
  expect(refused.status).toBe(422);
  expect(await refused.text()).toContain(`name="_entry" value="${link.secret}"`);
});

test('a link is the same until it is made anew, and then the old one is gone', async () => {
  const call = (path: string) => person<EntryLinkShape>('POST', `/forms/${form.key}/${path}`);
  expect((await call('entry-link')).body).toEqual(link);
  const fresh = (await call('entry-link/renew')).body;
  expect(fresh.secret).not.toBe(link.secret);
  expect(await entry()).toMatchObject({ status: 401, body: { code: 'entry-link' } });
  expect((await entry(fresh.secret)).status).toBe(200);
  expect((await forms.open(form, `?entry=${link.secret}`)).status).toBe(401);
  link = fresh;
});

test('a token has no entry link, and an endpoint has none', async () => {
  expect((await workspace.call('POST', `/forms/${form.key}/entry-link`)).status).toBe(403);
  expect((await person('POST', `/forms/${workspace.endpoint}/entry-link`)).status).toBe(404);
});

test('whoever is not active any more enters nothing', async () => {
  await workspace.query(`update person set active = false`);
  const renewed = await workspace.query<{ secret: string }>(
    `update entry_link set secret = 'another' returning secret`,
  );
  expect(renewed).toHaveLength(1);
  expect((await entry('another')).status).toBe(401);
});
