import { describe, expect, test } from '@jest/globals';
import type {
  DecisionList,
  OutboxLine,
  OutboxShape,
  Page,
  RecordShape,
  RunShape,
  SubmissionDetail,
} from '@haycart/api';
import type { Hold } from '@haycart/core';
import { AskedService } from '../src/runs/holds/asked.service';
import { eachInWorkspace, type TestServer, type TestWorkspace, until } from './support/test-server';
import { contactRoute } from './support/routes';

let server: TestServer;
let workspace: TestWorkspace;
let person: TestWorkspace['call'];
eachInWorkspace(async (made) => {
  ({ server, workspace } = made);
  person = await workspace.signIn();
});

const CONFIRM: Hold = { for: 'confirmation', template: 'please-confirm' };
const APPROVE: Hold = { for: 'approval', by: { person: 'robin-nye' }, byMail: true };

const asking = (...holds: Hold[]) => contactRoute(workspace.endpoint, { name: 'Price list', holds });

async function withTemplate(): Promise<void> {
  const made = await person('POST', '/mail-templates', {
    name: 'Please confirm',
    subject: 'Is it you, {{ contact.last_name }}?',
    text: 'Press here: {{ confirm.link }}',
  });
  expect(made.status).toBe(201);
}

const enquire = (more: object = {}) => workspace.submit({ name: 'Weir', email: 'ada@weir.example', ...more });
const settled = (id: string, ...outcomes: string[]) =>
  until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state, runs }) => state !== 'waiting' && (!outcomes.length || outcomes.includes(runs[0]?.outcome ?? '')),
  );
const contacts = async () => (await workspace.get<Page<RecordShape>>('/contacts?email=ada@weir.example')).items;

/** The links in all mails to an address, the latest first. */
async function linksTo(address: string): Promise<string[]> {
  const { items } = await workspace.get<Page<OutboxLine>>('/outbox?kind=mail');
  const mails = await Promise.all(
    items.filter(({ to }) => to === address).map(({ id }) => workspace.get<OutboxShape>(`/outbox/${id}`)),
  );
  return mails.map(({ body }) => /\/ask\/\S+/.exec((body as { text: string }).text)![0]);
}

async function page(path: string, answered?: Record<string, string>, languages = 'en') {
  const response = await fetch(`${server.base}${path}`, {
    // As a page posts that has no origin of its own.
    headers: { 'accept-language': languages, ...(answered ? { origin: 'null' } : {}) },
    ...(answered ? { method: 'POST', body: new URLSearchParams(answered) } : {}),
  });
  return { status: response.status, headers: response.headers, text: await response.text() };
}

describe('a visitor who is asked to confirm', () => {
  test('is written when they press the button, and not when a program opens the link', async () => {
    await withTemplate();
    await workspace.publish(asking(CONFIRM));
    const id = await enquire();
    const { runs } = await settled(id, 'held');
    expect(await workspace.get<RunShape>(`/runs/${runs[0]!.id}`)).toMatchObject({
      reason: { code: 'confirmation', hold: 'confirmation' },
      account: expect.arrayContaining([{ step: 'sent', text: 'Asked ada@weir.example by mail' }]),
    });
    expect(await contacts()).toEqual([]);
    const [link] = await linksTo('ada@weir.example');
    for (let opened = 0; opened < 3; opened += 1) {
      const { status, text, headers } = await page(link!, undefined, 'nl-BE, nl;q=0.9');
      expect([status, headers.get('cache-control'), headers.get('referrer-policy')]).toEqual([
        200,
        'no-store',
        'no-referrer',
      ]);
      expect(text).toContain('Ja, dat ben ik');
    }
    await fetch(`${server.base}${link!}`, { method: 'HEAD' });
    expect(await contacts()).toEqual([]);
    expect(await page(link!, {})).toMatchObject({ status: 200, text: expect.stringContaining('is confirmed') });
    await settled(id, 'written');
    expect(await contacts()).toHaveLength(1);
    expect(await workspace.get<RunShape>(`/runs/${runs[0]!.id}`)).toMatchObject({
      account: expect.arrayContaining([{ step: 'answered', text: 'ada@weir.example confirmed by mail' }]),
    });
    // Pressed twice is the same.
    expect((await page(link!, {})).text).toContain('is confirmed');
    expect(await contacts()).toHaveLength(1);
  });

  test('gets one mail for what they send within minutes, and one press confirms all of it', async () => {
    await withTemplate();
    await workspace.publish(asking(CONFIRM));
    const ids = await Promise.all([enquire(), enquire({ name: 'Weir-Holm' }), enquire({ email: 'ADA@weir.example' })]);
    for (const id of ids) await settled(id, 'held');
    const other = await enquire({ email: 'bo@weir.example' });
    await settled(other, 'held');
    const links = await linksTo('ada@weir.example');
    expect(links).toHaveLength(1);
    expect(await linksTo('bo@weir.example')).toHaveLength(1);
    await page(links[0]!, {});
    for (const id of ids) await settled(id, 'written');
    expect((await settled(other)).runs).toMatchObject([{ outcome: 'held' }]);
    expect(await contacts()).toHaveLength(1);
  });

  test('is not asked a second time when the run runs again', async () => {
    await withTemplate();
    await workspace.publish(asking(CONFIRM));
    const id = await enquire();
    const { runs } = await settled(id, 'held');
    expect((await person('POST', `/runs/${runs[0]!.id}/run-again`)).status).toBe(202);
    await settled(id, 'held');
    expect(await linksTo('ada@weir.example')).toHaveLength(1);
  });

  test('who does not do so in time ends the run with that reason, and the link says so', async () => {
    await withTemplate();
    await workspace.publish(asking({ ...CONFIRM, within: 'P2D' }));
    const id = await enquire();
    const { runs } = await settled(id, 'held');
    const [link] = await linksTo('ada@weir.example');
    await workspace.query(`update asked set expires_at = now() - interval '1 second'`);
    expect(await page(link!, {})).toMatchObject({ status: 410 });
    expect((await settled(id)).runs).toMatchObject([{ outcome: 'held' }]);
    await server.app.get(AskedService).endExpired(workspace.id);
    await settled(id, 'skipped');
    expect(await workspace.get<RunShape>(`/runs/${runs[0]!.id}`)).toMatchObject({
      reason: { code: 'not-confirmed', text: 'ada@weir.example did not confirm within 2 days.' },
    });
    expect(await page(link!)).toMatchObject({ status: 410, text: expect.stringContaining('does not work any more') });
    expect(await contacts()).toEqual([]);
  });

  test('finds a page that says so behind a link that there is not', async () => {
    for (const secret of ['nothing', 'x'.repeat(5_000), '%00', '..%2f..%2fetc'])
      expect((await page(`/ask/${secret}`)).status).toBeGreaterThanOrEqual(400);
    expect(await page('/ask/nothing', {})).toMatchObject({
      status: 404,
      text: expect.stringContaining('This link does not work'),
    });
  });

  test('cannot be asked by a template without the link: it is not published', async () => {
    await person('POST', '/mail-templates', { name: 'Thanks', subject: 'Thanks', text: 'Thanks.' });
    const made = await person<{ id: string }>('POST', '/routes', {
      definition: asking({ ...CONFIRM, template: 'thanks' }),
    });
    expect(await person('POST', `/routes/${made.body.id}/publish`)).toMatchObject({
      status: 422,
      body: { errors: [{ at: '/holds/0/template', code: 'template-does-not-fit' }] },
    });
  });
});

describe('a colleague who is asked by mail', () => {
  const asked = async (more: object = {}) => {
    await workspace.publish(asking(APPROVE));
    const id = await enquire(more);
    const { runs } = await settled(id, 'held');
    const [link] = await linksTo(`${workspace.key}@quillfern.example`);
    return { id, run: runs[0]!.id, link: link! };
  };

  test('is reminded after some days, with the next, unless somebody has answered by then', async () => {
    const colleague = { email: `idris.${workspace.key}@quillfern.example`, name: 'Idris Vale' };
    expect((await person('POST', '/people', colleague)).status).toBe(201);
    await workspace.publish(asking({ ...APPROVE, remindAfter: 'P2D', next: { person: 'idris-vale' } }));
    const [answered, open] = [await enquire(), await enquire({ email: 'bo@weir.example' })];
    for (const id of [answered, open]) await settled(id, 'held');
    const mails = async () =>
      (await workspace.get<Page<OutboxLine>>('/outbox?kind=mail')).items.map(({ to, state, lastError }) => ({
        to: to.split('.')[0],
        state,
        lastError,
      }));
    expect((await until(mails, (all) => all.filter(({ state }) => state === 'waiting').length === 4)).length).toBe(6);
    await page((await linksTo(colleague.email)).at(-1)!, { answer: 'yes' });
    await settled(answered, 'written');
    await workspace.query(`update outbox set due_at = now() where state = 'waiting'`);
    const after = await until(mails, (all) => all.every(({ state }) => state !== 'waiting'));
    expect(after.filter(({ state }) => state === 'cancelled')).toMatchObject([
      { lastError: 'It was answered before.' },
      { lastError: 'It was answered before.' },
    ]);
    // No server sends mail here: what was tried was given up.
    expect(after.filter(({ state }) => state === 'given-up')).toHaveLength(4);
  });

  test('who says no has the visitor written, once however often it is run again', async () => {
    const sorry = { name: 'Sorry', subject: 'Sorry, {{ contact.last_name }}', text: 'Not now: {{ denied.why }}' };
    expect((await person('POST', '/mail-templates', sorry)).status).toBe(201);
    await workspace.publish(asking({ ...APPROVE, ifDenied: 'sorry' }));
    const id = await enquire();
    await settled(id, 'held');
    const [link] = await linksTo(`${workspace.key}@quillfern.example`);
    await page(link!, { answer: 'no', note: 'Too far' });
    await settled(id, 'skipped');
    const toVisitor = async () =>
      (await workspace.get<Page<OutboxLine>>('/outbox?to=ada@weir.example')).items.map(({ id }) => id);
    const [mail] = await toVisitor();
    expect(await workspace.get<OutboxShape>(`/outbox/${mail}`)).toMatchObject({
      body: { subject: 'Sorry, Weir', text: 'Not now: Too far' },
    });
    expect((await person('POST', `/submissions/${id}/run-again`)).status).toBeLessThan(300);
    await settled(id, 'skipped');
    expect(await toVisitor()).toEqual([mail]);
    expect(await contacts()).toEqual([]);
  });

  test('sees all that was sent and what a yes writes, and answers once, without signing in', async () => {
    const { id, run, link } = await asked({ note: '<script>alert(1)</script>' });
    const { status, text } = await page(link);
    expect(status).toBe(200);
    expect(text).toContain('May Price list write what Weir sent?');
    expect(text).toContain('You answer as Robin Nye.');
    expect(text).toContain('New contact');
    expect(text).toContain('alert(1)');
    expect(text).not.toContain('<script>alert');
    // What is neither yes nor no asks again.
    expect((await page(link, { answer: 'maybe' })).text).toContain('Yes, write it');
    expect((await page(link, { answer: 'no', note: ' Not ours ' })).text).toContain('Robin Nye said no');
    await settled(id, 'skipped');
    expect(await workspace.get<RunShape>(`/runs/${run}`)).toMatchObject({
      reason: { code: 'denied', text: 'Robin Nye said no: Not ours.' },
    });
    // Who comes later changes nothing.
    expect((await page(link, { answer: 'yes' })).text).toContain('Robin Nye said no');
    expect((await settled(id)).runs).toMatchObject([{ outcome: 'skipped' }]);
  });

  test('lets the run write with a yes, and To decide asks nobody any more', async () => {
    const { id, link, run } = await asked();
    await page(link, { answer: 'yes' });
    await settled(id, 'written');
    expect(await contacts()).toHaveLength(1);
    expect((await workspace.get<DecisionList>('/decisions')).items.filter(({ kind }) => kind === 'approval')).toEqual(
      [],
    );
    expect(await workspace.get<RunShape>(`/runs/${run}`)).toMatchObject({
      account: expect.arrayContaining([{ step: 'answered', text: 'Robin Nye said yes' }]),
    });
  });

  test('is told what a colleague decided meanwhile', async () => {
    const { id, link } = await asked();
    const [line] = (await workspace.get<DecisionList>('/decisions')).items.filter(({ kind }) => kind === 'approval');
    await person('POST', '/decisions/decide', { ids: [line!.id], action: 'approve' });
    await settled(id, 'written');
    expect((await page(link, { answer: 'no' })).text).toContain('Robin Nye said yes');
  });

  test('who does not work here any more cannot answer, nor after the link is old', async () => {
    const { id, link } = await asked();
    await workspace.query(`update person set active = false`);
    expect(await page(link)).toMatchObject({ status: 410, text: expect.stringContaining('does not work here now') });
    expect((await page(link, { answer: 'yes' })).status).toBe(410);
    await workspace.query(`update person set active = true`);
    await workspace.query(`update asked set expires_at = now() - interval '1 second'`);
    expect(await page(link, { answer: 'yes' })).toMatchObject({
      status: 410,
      text: expect.stringContaining('find it in To decide'),
    });
    expect((await settled(id)).runs).toMatchObject([{ outcome: 'held' }]);
  });
});
