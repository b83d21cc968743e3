import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type {
  FieldUse,
  FormFiguresShape,
  FormMonth,
  FormShape,
  IntakeShape,
  Page,
  ProblemBody,
  RecordShape,
  SubmissionShape,
  ThemeShape,
} from '@haycart/api';
import { PLAIN_THEME, type FormDefinition, type FormItem, type ReadyCheck } from '@haycart/core';
import { FormCounts } from '../src/forms/form-counts.service';
import { EMAIL, formOf, TestForms } from './support/test-forms';
import { newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
let forms: TestForms;

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
  workspace = await TestWorkspace.make(server);
  forms = new TestForms(server, workspace);
});
afterAll(() => server.stop());

const newForm = (form?: FormDefinition) => forms.add(form);
const formAt = (key: string) => forms.at(key);
const publish = (key: string, more = {}) => forms.publish(key, more);
const page = (form: IntakeShape, query = '', headers = {}) => forms.page(form, query, headers);
const send = (key: string, answers: Record<string, string>, query = '') => forms.send(key, answers, query);
const latest = (key: string) => forms.latest(key);

describe('a form', () => {
  test('is a draft that nobody can reach until it is published, and has an address made from its name', async () => {
    const form = await newForm();
    expect(form).toMatchObject({ state: 'draft', version: 0, address: expect.stringContaining('/f/form-1-of-') });
    expect((await fetch(`${server.base}${form.address}`)).status).toBe(404);
    expect((await server.postJson(`/in/${form.key}`, { email: 'a@b.example' })).status).toBe(409);
    expect((await workspace.call('PATCH', `/intakes/${form.key}`, { state: 'closed' })).status).toBe(409);
    expect((await publish(form.key)).body).toMatchObject({ version: 1 });
    expect(await page(form)).toContain('E-mail');
  });

  test('has versions: each submission names the one that it answered, and an earlier one can be taken up again', async () => {
    const form = await newForm();
    await publish(form.key);
    await send(form.key, { email: 'one@weir.example' });
    const { revision, draft } = await formAt(form.key);
    const longer = { ...draft, items: [...draft.items, { name: 'why', type: 'text', label: 'Why?' } as FormItem] };
    const saved = await workspace.call<FormShape>('PUT', `/forms/${form.key}/draft`, { form: longer, revision });
    expect(saved.body.changes).toEqual(['The question “Why?” is new.']);
    expect(await page(form)).not.toContain('Why?');
    await publish(form.key, { note: 'They asked' });
    expect(await page(form)).toContain('Why?');
    expect((await latest(form.key)).visit.formVersion).toBe('1');
    await send(form.key, { email: 'late@weir.example', _visit: '{"formVersion":"1"}' });
    expect((await latest(form.key)).visit.formVersion).toBe('1');
    await send(form.key, { email: 'two@weir.example', _visit: '{"formVersion":"99"}' });
    expect((await latest(form.key)).visit.formVersion).toBe('2');
    const restored = await workspace.call<FormShape>('POST', `/forms/${form.key}/versions/1/restore`);
    expect(restored.body.draft.items).toHaveLength(1);
    expect(restored.body.versions.map(({ version, note }) => [version, note])).toEqual([
      [2, 'They asked'],
      [1, null],
    ]);
    expect((await workspace.call('POST', `/forms/${form.key}/versions/9/restore`)).status).toBe(404);
  });

  test('changed by two people tells the later one, and overwrites nothing', async () => {
    const form = await newForm();
    const { revision, draft } = await formAt(form.key);
    const change = (title: string) =>
      workspace.call<ProblemBody>('PUT', `/forms/${form.key}/draft`, { form: { ...draft, title }, revision });
    expect((await change('First')).status).toBe(200);
    expect(await change('Second')).toMatchObject({ status: 409, body: { code: 'conflict' } });
    expect((await formAt(form.key)).draft.title).toBe('First');
  });

  test('that is not in order is not published, and says where', async () => {
    const when = (question: string) => ({ of: { question }, test: 'filled' });
    const form = await newForm(
      formOf(
        { name: 'a', type: 'text', label: 'A', shownWhen: when('b') },
        { name: 'b', type: 'text', label: 'B', shownWhen: when('a') },
      ),
    );
    const refused = await publish(form.key);
    expect(refused.status).toBe(422);
    expect(refused.body.errors?.[0]).toMatchObject({ at: '/items', code: 'conditions-in-a-circle' });
    expect(refused.body.errors?.[0]?.message).toContain('“A” and “B” wait for each other');
  });

  test.each<[string, object, string]>([
    ['an unknown type', formOf({ name: 'a', type: 'colour' } as never), '/items/0/type'],
    ['a name that is none', formOf({ name: 'A b', type: 'text', label: 'A' }), '/items/0/name'],
    [
      'a script for an address',
      formOf({ name: 'p', type: 'image', parts: [{ address: 'javascript:x', text: '' }] }),
      '/items/0/parts/0/address',
    ],
    [
      '301 items',
      formOf(...Array.from({ length: 301 }, (_, n): FormItem => ({ name: `q${n}`, type: 'divider' }))),
      '/items',
    ],
    ['an unknown property', { ...formOf(EMAIL), colour: 'red' }, ''],
  ])('with %s is refused with the place', async (_, form, at) => {
    const answer = await workspace.call<ProblemBody>('POST', '/forms', { name: 'Wrong', form });
    expect([answer.status, answer.body.errors?.[0]?.at]).toEqual([422, at]);
  });

  test('with 300 questions is shown and taken', async () => {
    const form = await newForm(
      formOf(...Array.from({ length: 300 }, (_, n): FormItem => ({ name: `q${n}`, type: 'text', label: `Q ${n}` }))),
    );
    await publish(form.key);
    expect(await page(form)).toContain('Q 299');
    expect((await send(form.key, { q299: 'last' })).status).toBe(200);
    expect((await latest(form.key)).payload).toMatchObject({ q299: 'last' });
  });

  test('is copied, closed with a message, and opened again', async () => {
    const form = await newForm();
    await publish(form.key);
    const copy = await workspace.call<IntakeShape>('POST', '/forms', {
      name: `Copy of ${form.name}`,
      copyOf: form.key,
    });
    expect(copy.body).toMatchObject({ state: 'draft' });
    expect(copy.body.address).not.toBe(form.address);
    expect((await formAt(copy.body.key)).wish).toBeNull();
    const close = { state: 'closed', closedMessage: 'Come back in spring.' };
    expect((await workspace.call('PATCH', `/intakes/${form.key}`, close)).status).toBe(200);
    expect(await page(form)).toContain('Come back in spring.');
    const late = await send(form.key, { email: 'late@weir.example' });
    expect([late.status, await late.text()]).toEqual([409, expect.stringContaining('Come back in spring.')]);
    await workspace.call('PATCH', `/intakes/${form.key}`, { state: 'live' });
    expect(await page(form)).toContain('E-mail');
  });
});

describe('what a form is sent', () => {
  const kinds = [
    { value: 'school', label: 'School' },
    { value: 'trade', label: 'Trade' },
  ];
  test('is kept without answers that were not asked for, which stand apart', async () => {
    const form = await newForm(
      formOf(
        EMAIL,
        { name: 'kind', type: 'one-of', label: 'Kind', options: kinds },
        {
          name: 'pupils',
          type: 'whole-number',
          label: 'Pupils',
          required: true,
          shownWhen: { of: { question: 'kind' }, test: 'is-any-of', value: ['school'] },
        },
        { name: 'channel', type: 'hidden', label: '', value: 'web' },
      ),
    );
    await publish(form.key);
    const answer = await send(form.key, {
      email: 'a@weir.example',
      kind: 'trade',
      pupils: '30',
      channel: 'forged',
      x: '1',
    });
    expect(await answer.text()).toContain('Thank you, a@weir.example');
    expect((await latest(form.key)).payload).toEqual({
      email: 'a@weir.example',
      kind: 'trade',
      channel: 'web',
      _not_asked: { pupils: '30', channel: 'forged', x: '1' },
    });
    const needed = await server.postJson(`/in/${form.key}`, { email: 'a@weir.example', kind: 'school' });
    expect(((await needed.json()) as ProblemBody).errors?.map(({ at }) => at)).toEqual(['/pupils']);
  });

  test('has a phone number read as of the country chosen beside it, or refused while somebody can mend it', async () => {
    const phone: FormItem = { name: 'tel', type: 'phone', label: 'Phone', country: 'GB', asksCountry: true };
    const form = await newForm(formOf(EMAIL, phone));
    await publish(form.key);
    const shown = await page(form);
    expect(shown).toContain('value="GB" data-code="44" data-first selected>United Kingdom +44<');
    const sendPhone = (country: string, number: string) =>
      server.post(`/in/${form.key}`, `email=ada%40weir.example&tel[]=${country}&tel[]=${encodeURIComponent(number)}`, {
        accept: 'text/html',
        'content-type': 'application/x-www-form-urlencoded',
      });
    const refused = await sendPhone('NL', '12');
    expect(refused.status).toBe(422);
    expect(await refused.text()).toMatch(/data-code="31" data-first selected>Netherlands \+31<[\s\S]*value="\+31 12"/);
    expect((await sendPhone('NL', '06 12345678')).status).toBe(200);
    expect((await latest(form.key)).payload).toMatchObject({ tel: '+31 6 12345678' });
  });

  test('is checked in the language of the visitor', async () => {
    const form = await newForm({ ...formOf(EMAIL), translations: { nl: { title: 'Vraag ons' } } });
    await publish(form.key);
    expect(await page(form, '', { 'accept-language': 'nl-BE,nl;q=0.9' })).toContain('<h1>Vraag ons</h1>');
    expect(await page(form, '?lang=en-GB', { 'accept-language': 'nl' })).toContain('<h1>Ask us</h1>');
    expect(await (await send(form.key, { email: 'x' }, '?lang=nl')).text()).toContain('Controleer het adres');
  });

  test('has files that are what they say, and no larger than is asked', async () => {
    const form = await newForm(
      formOf(EMAIL, { name: 'plan', type: 'file', label: 'Plan', checks: { fileTypes: ['pdf'], largest: 1_000_000 } }),
    );
    await publish(form.key);
    const attach = async (name: string, bytes: string | Uint8Array<ArrayBuffer>) => {
      const body = new FormData();
      body.set('email', 'a@weir.example');
      body.set('plan', new File([bytes], name));
      const response = await fetch(`${server.base}/in/${form.key}`, { method: 'POST', body });
      return response.status === 202 ? 202 : ((await response.json()) as ProblemBody).errors?.[0]?.code;
    };
    expect(await attach('plan.pdf', '%PDF-1.7 and so on')).toBe(202);
    expect(await attach('plan.exe', 'MZ')).toBe('wrong-file-type');
    expect(await attach('plan.pdf', 'MZ, a program')).toBe('wrong-file-type');
    expect(await attach('plan.pdf', `%PDF${' '.repeat(1_000_001)}`)).toBe('file-too-large');
    expect(await attach('../../etc/plan.pdf', '%PDF-1.7')).toBe(202);
    expect((await latest(form.key)).payload).toMatchObject({ plan: { name: 'plan.pdf' } });
  });

  test('may be too much, which a visitor reads in words', async () => {
    const form = await newForm(formOf(EMAIL, { name: 'plan', type: 'file', label: 'Plan' }));
    await publish(form.key);
    const body = new FormData();
    body.set('email', 'a@weir.example');
    body.set('plan', new File([new Uint8Array(26 * 1_048_576 + 1)], 'plan.bin'));
    const response = await fetch(`${server.base}/in/${form.key}`, {
      method: 'POST',
      body,
      headers: { accept: 'text/html' },
    });
    expect(response.status).toBe(413);
    expect(await response.text()).toContain('Please choose a file of at most 25 MB.');
  });

  test('leads on to an allowed page, or shows the form again', async () => {
    const onward = await newForm({
      ...formOf(EMAIL),
      after: { do: 'redirect', to: 'https://www.weir.example/thanks' },
      mayLeadTo: ['https://www.weir.example'],
    });
    await publish(onward.key);
    const led = await fetch(`${server.base}/in/${onward.key}`, {
      method: 'POST',
      redirect: 'manual',
      headers: { accept: 'text/html', 'content-type': 'application/x-www-form-urlencoded' },
      body: 'email=a@weir.example',
    });
    expect([led.status, led.headers.get('location')]).toEqual([303, 'https://www.weir.example/thanks']);
    const elsewhere = await newForm({ ...formOf(EMAIL), after: { do: 'redirect', to: 'https://else.example/' } });
    expect((await publish(elsewhere.key)).body.errors?.[0]?.code).toBe('leads-elsewhere');
    const again = await newForm({ ...formOf(EMAIL), after: { do: 'show-again', title: 'Kept. The next one?' } });
    await publish(again.key);
    const shown = await (await send(again.key, { email: 'a@weir.example' })).text();
    expect(shown).toContain('Kept. The next one?');
    expect(shown).toMatch(/<input type="email"[^>]* value="">/);
  });

  test('follows the field that it asks for, as it is now', async () => {
    await workspace.call('POST', '/fields', [
      { record: 'contact', label: 'Grows', type: 'one-of', options: [{ label: 'Moss' }] },
    ]);
    const form = await newForm(
      formOf(EMAIL, { name: 'grows', type: 'one-of', label: '', feeds: { record: 'contact', field: 'grows' } }),
    );
    await publish(form.key);
    expect(await page(form)).toMatch(/<option value="moss">Moss/);
    const uses = await workspace.get<FieldUse[]>('/set-up/field-uses');
    expect(uses.find(({ key }) => key === 'grows')?.forms).toEqual([{ key: form.key, name: form.name }]);
    expect((await workspace.call('DELETE', `/fields/contact/grows`)).status).toBeLessThan(300);
    const checks = await workspace.get<ReadyCheck[]>('/set-up/readiness');
    expect(checks.flatMap(({ items }) => items.map(({ text }) => text))).toContainEqual(
      expect.stringContaining(`${form.name}: “grows” asks for a field of the contact that is not there any more`),
    );
  });
});

describe('a suspicious submission', () => {
  const spam = {
    email: 'x@spam.example',
    message: 'www.a.example www.b.example www.c.example www.d.example www.e.example www.f.example',
  };
  const asideOf = (key: string) =>
    workspace.get<Page<SubmissionShape>>(`/submissions?intake=${key}&outcome=set-aside&limit=200`);

  test('is thanked for, set aside with its reasons, and routed once somebody releases it', async () => {
    const form = await newForm(formOf(EMAIL, { name: 'message', type: 'long-text', label: 'Message' }));
    await publish(form.key, { route: {} });
    expect((await send(form.key, spam)).status).toBe(200);
    const { items } = await asideOf(form.key);
    expect(items).toHaveLength(1);
    expect(items[0]).toMatchObject({ state: 'set-aside', runs: [], payload: spam });
    expect(items[0]!.suspicion!.reasons[0]).toMatch(/links/);
    expect((await workspace.get<Page<RecordShape>>('/contacts?email=x@spam.example')).items).toEqual([]);
    expect((await workspace.call('POST', `/submissions/${items[0]!.id}/run-again`)).status).toBe(202);
    await until(
      () => workspace.get<Page<RecordShape>>('/contacts?email=x@spam.example'),
      (found) => found.items.length > 0,
    );
    expect((await asideOf(form.key)).items).toEqual([]);
  });

  test('is found by what the workspace blocks, and by the trap that no person sees', async () => {
    const form = await newForm(formOf(EMAIL, { name: 'message', type: 'long-text', label: 'Message' }));
    await publish(form.key);
    await workspace.call('PATCH', '/workspace', { blockedWords: ['loans'], blockedDomains: ['bad.example'] });
    await until(
      async () => {
        await send(form.key, { email: 'a@weir.example', message: 'Cheap loans' });
        return (await asideOf(form.key)).items.length;
      },
      (found) => found > 0,
    );
    const trapped = await server.postJson(`/in/${form.key}`, { email: 'b@weir.example', _leave_blank: 'x' });
    expect(trapped.status).toBe(202);
    const reasons = (await asideOf(form.key)).items.map(({ suspicion }) => suspicion!.reasons[0]);
    expect(reasons).toContain('It answers a question that no person sees.');
    expect(reasons).toContain('It holds the blocked word “loans”.');
    await workspace.call('PATCH', '/workspace', { blockedWords: [], blockedDomains: [] });
  });

  test('may come 500 times: all are kept aside, and a real one among them is released alone', async () => {
    const form = await newForm(formOf(EMAIL, { name: 'message', type: 'long-text', label: 'Message' }));
    await publish(form.key, { route: {} });
    const wave = Array.from({ length: 500 }, (_, n) =>
      n === 250
        ? { email: 'real@gardener.example', message: 'A glasshouse for six bays, please.' }
        : { ...spam, email: `x${n}@spam.example` },
    );
    for (const part of [wave.slice(0, 250), wave.slice(250)])
      await Promise.all(part.map((one) => server.postJson(`/in/${form.key}`, one)));
    const [kept] = await workspace.query<{ aside: number }>(
      `select count(*)::int as aside from submission s join intake i on i.id = s.intake_id where i.key = '${form.key}' and s.state = 'set-aside'`,
    );
    expect(kept!.aside).toBe(500);
    const [real] = await workspace.query<{ id: string }>(
      `select s.id from submission s where s.state = 'set-aside' and convert_from(s.body, 'UTF8') like '%real@gardener%'`,
    );
    await workspace.call('POST', `/submissions/${real!.id}/run-again`);
    await until(
      () => workspace.get<Page<RecordShape>>('/contacts?email=real@gardener.example'),
      (found) => found.items.length > 0,
    );
    expect((await workspace.get<Page<RecordShape>>('/contacts?q=spam.example')).items.length).toBeLessThanOrEqual(1);
    const more = (await workspace.get<Page<SubmissionShape>>('/submissions?outcome=set-aside&limit=3')).items;
    const ids = more.map(({ id }) => id);
    const released = await workspace.call('POST', '/submissions/run-again', { ids: [...ids, workspace.id] });
    expect([released.status, released.body]).toEqual([202, { queued: 3 }]);
    await workspace.handled();
    for (const id of ids) expect((await workspace.get<SubmissionShape>(`/submissions/${id}`)).state).toBe('routed');
    expect((await workspace.call('POST', '/submissions/run-again', { ids: ['none'] })).status).toBe(422);
  });
});

describe('how a form looks', () => {
  test('is a theme, shared, and changed for all that wear it at once', async () => {
    const name = `Theme of ${workspace.key}`;
    const theme = (await workspace.call<ThemeShape>('POST', '/themes', { name, theme: PLAIN_THEME })).body;
    const form = await newForm({ ...formOf(EMAIL), theme: theme.key });
    await publish(form.key);
    expect(await page(form)).toContain('--accent:#27687a');
    const brown = { ...PLAIN_THEME, accent: '#8a4b1f' };
    expect((await workspace.call('PUT', `/themes/${theme.key}`, { theme: brown })).status).toBe(204);
    expect(await page(form)).toContain('--accent:#8a4b1f');
    expect((await workspace.get<ThemeShape[]>('/themes')).find(({ key }) => key === theme.key)?.forms).toEqual([
      { key: form.key, name: form.name },
    ]);
    const wrong = { ...PLAIN_THEME, ink: 'red; } * { display: none' };
    expect((await workspace.call('PUT', `/themes/${theme.key}`, { theme: wrong })).status).toBe(422);
  });

  test('is seen before it is published, safe from what was typed', async () => {
    const hostile = { ...formOf(EMAIL), title: '<script>alert(1)</script>' };
    const { body } = await workspace.call<{ page: string }>('POST', '/forms/preview', { form: hostile });
    expect(body.page).toContain('&#60;script&#62;alert(1)');
    expect(body.page).not.toContain('<script>alert');
  });
});

test('what visitors do is counted by version, page, source and device, and nothing about them is kept', async () => {
  const form = await newForm();
  await publish(form.key);
  const phone = { 'user-agent': 'Mozilla/5.0 (iPhone) Mobile Safari' };
  const from = '?utm_source=spring&page=https://weir.example/ask%3Fname=ada';
  for (let n = 0; n < 3; n++) await page(form, from, phone);
  await page(form);
  const tell = (told: object | string) =>
    fetch(`${server.base}${form.address}/seen`, {
      method: 'POST',
      headers: phone,
      body: typeof told === 'string' ? told : JSON.stringify({ from: from.slice(1), ...told }),
    });
  for (const told of [{ did: 'start' }, { did: 'stop', item: 'email' }]) expect((await tell(told)).status).toBe(204);
  const opened = String(Date.now() - 42_000);
  const post = (email: string) =>
    fetch(`${server.base}/in/${form.key}`, {
      method: 'POST',
      headers: { ...phone, accept: 'text/html', 'content-type': 'application/x-www-form-urlencoded' },
      body: new URLSearchParams({ email, _once: 'page', _opened: opened }),
    });
  // What is refused was not sent, and a double click sends once.
  expect([(await post('no address')).status, (await post('ada@weir.example')).status]).toEqual([422, 200]);
  expect((await post('ada@weir.example')).status).toBe(200);
  for (const odd of [
    { did: 'stop', item: 'nothing of ours' },
    { did: 'view' },
    'not JSON',
    { did: 'send', seconds: 7 },
  ])
    expect((await tell(odd)).status).toBe(204);
  await server.app.get(FormCounts).flush();
  const figures = await workspace.get<FormFiguresShape>(`/forms/${form.key}/figures`);
  expect(figures.whole).toEqual({ views: 4, starts: 1, sends: 1, completion: 0.25, seconds: 42 });
  expect(figures.stops).toEqual({ email: 1 });
  expect(figures.bySource.map(({ name, figures: { views } }) => [name, views])).toEqual([
    ['spring', 3],
    ['direct', 1],
  ]);
  expect(figures.byPage.map(({ name }) => name)).toEqual(['https://weir.example/ask', '']);
  expect(figures.byDevice.map(({ name }) => name)).toEqual(['phone', 'desktop']);
  const months = await workspace.get<FormMonth[]>('/form-months');
  expect(months.find(({ key }) => key === form.key)).toMatchObject({ views: 4, pages: ['https://weir.example/ask'] });
});

test('a form stands elsewhere by a script that never changes', async () => {
  const form = await newForm({ ...formOf(EMAIL), embedOn: ['https://www.weir.example'] });
  await publish(form.key);
  const slug = form.slug!;
  const script = () => fetch(`${server.base}/embed/${slug}.js`).then((response) => response.text());
  const before = await script();
  expect(before).toContain('/forms/embed.js');
  await publish(form.key);
  expect(await script()).toBe(before);
  const { headers } = await fetch(`${server.base}${form.address}?embed=1`);
  expect(headers.get('content-security-policy')).toContain("frame-ancestors 'self' https://www.weir.example");
  expect((await fetch(`${server.base}/embed/nowhere.js`)).status).toBe(404);
});

describe('what belongs to one workspace', () => {
  test('is not there for another: forms, versions, figures and themes', async () => {
    const other = await TestWorkspace.make(server);
    const form = await newForm();
    await publish(form.key);
    await workspace.call('POST', '/themes', { name: 'Ours alone', theme: PLAIN_THEME });
    for (const path of [`/forms/${form.key}`, `/forms/${form.key}/figures`])
      expect((await other.call('GET', path)).status).toBe(404);
    expect((await other.call('POST', `/forms/${form.key}/publish`, {})).status).toBe(404);
    expect((await other.call('POST', `/forms/${form.key}/versions/1/restore`)).status).toBe(404);
    expect((await other.call('POST', '/forms', { name: 'Stolen', copyOf: form.key })).status).toBe(404);
    expect((await other.get<ThemeShape[]>('/themes')).map(({ name }) => name)).not.toContain('Ours alone');
    expect((await other.call('PUT', '/themes/ours-alone', { theme: PLAIN_THEME })).status).toBe(404);
    expect((await other.get<FormMonth[]>('/form-months')).map(({ key }) => key)).not.toContain(form.key);
  });

  test('has each name once, and each address once in all workspaces', async () => {
    const theme = { name: 'Twice', theme: PLAIN_THEME };
    expect((await workspace.call('POST', '/themes', theme)).status).toBe(201);
    expect((await workspace.call<ProblemBody>('POST', '/themes', theme)).body.code).toBe('conflict');
    const one = { name: 'Shared name', form: formOf(EMAIL) };
    const other = await TestWorkspace.make(server);
    const first = await workspace.call<IntakeShape>('POST', '/forms', one);
    const second = await other.call<IntakeShape>('POST', '/forms', one);
    expect([first.status, second.status]).toEqual([201, 201]);
    expect(second.body.address).not.toBe(first.body.address);
    expect((await workspace.call<ProblemBody>('POST', '/forms', one)).body.code).toBe('conflict');
  });

  test.each<[string, object]>([
    ['no colour', { ...PLAIN_THEME, accent: 'teal' }],
    ['a corner beyond measure', { ...PLAIN_THEME, corner: 400 }],
    ['an unknown font', { ...PLAIN_THEME, font: 'comic' }],
    ['an unknown property', { ...PLAIN_THEME, shadow: 'deep' }],
    ['nothing', {}],
  ])('takes no theme with %s', async (_, theme) =>
    expect((await workspace.call('POST', '/themes', { name: 'Odd', theme })).status).toBe(422),
  );
});

describe('the route that follows from a form', () => {
  const items: FormItem[] = [
    EMAIL,
    { name: 'first', type: 'text', label: 'First name', feeds: { record: 'contact', field: 'first_name' } },
    { name: 'bays', type: 'whole-number', label: 'Bays', feeds: { record: 'deal', field: 'bays' } },
  ];
  const place = { record: 'deal', pipeline: 'new-builds', stage: 'enquiry', again: 'update' };

  test('is made with the form, and takes what it sends to contact and deal, marked and owned', async () => {
    await workspace.call('POST', '/tags', { name: 'From a form' });
    await workspace.call('POST', '/lists', { name: 'Spring news' });
    const form = await newForm(formOf(...items));
    const wish = {
      place,
      value: 'GBP 500',
      owner: { person: 'robin-nye' },
      tags: ['from-a-form'],
      lists: ['spring-news'],
    };
    const { body } = await publish(form.key, { route: wish });
    expect(body.route).toEqual(expect.any(String));
    await send(form.key, { email: 'ida@weir.example', first: 'IDA', bays: '6' });
    const { items: found } = await until(
      () => workspace.get<Page<RecordShape>>('/contacts?email=ida@weir.example'),
      (contacts) => contacts.items.length > 0,
    );
    const contact = found[0]!;
    expect(contact.values).toMatchObject({ first_name: 'Ida', tags: ['from-a-form'], lists: ['spring-news'] });
    const deal = (await workspace.get<Page<RecordShape>>('/deals?q=Ida')).items[0]!;
    expect(deal.values).toMatchObject({
      bays: 6,
      stage: 'enquiry',
      owner: 'robin-nye',
      value: { amount: 50_000, currency: 'GBP' },
    });
    const copy = await workspace.call<IntakeShape>('POST', '/forms', { name: 'Another survey', copyOf: form.key });
    expect((await formAt(copy.body.key)).wish).toEqual(wish);
    expect((await formAt(form.key)).wish).toBeNull();
  });

  test('that cannot be is refused with the form, and neither is there', async () => {
    const form = await newForm(formOf(...items));
    const refused = await publish(form.key, { route: { place: { ...place, stage: 'nowhere' } } });
    expect(refused.status).toBe(422);
    expect((await formAt(form.key)).intake).toMatchObject({ state: 'draft', version: 0 });
  });
});
