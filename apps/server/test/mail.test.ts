import { beforeEach, describe, expect, test } from '@jest/globals';
import type {
  MailServerShape,
  OutboxLine,
  OutboxShape,
  Page,
  ProblemBody,
  RecordShape,
  RecordSheet,
} from '@haycart/api';
import type { MailTemplate, Plan } from '@haycart/core';
import { serverSetting, startMailStandIn, type MailStandIn } from './support/mail-stand-in';
import { eachWithStandIn } from './support/stand-in';
import { eachInWorkspace, type TestWorkspace, until } from './support/test-server';
import { contactRoute } from './support/routes';

let workspace: TestWorkspace;
let person: TestWorkspace['call'];
let outside: MailStandIn;

eachWithStandIn(startMailStandIn, (made) => (outside = made));
eachInWorkspace(async (made) => {
  ({ workspace } = made);
  person = await workspace.signIn();
});

const THANKS = {
  name: 'Thank you',
  subject: 'Thank you, {{ contact.last_name }}',
  text: 'About {{ answers.subject }}.',
  html: '<p>About {{ answers.subject }}.</p>',
};
const set = (more?: object) =>
  person<MailServerShape & ProblemBody>('PUT', '/mail-server', serverSetting(outside, more));
const addTemplate = (more: object = {}) =>
  person<MailTemplate & ProblemBody>('POST', '/mail-templates', { ...THANKS, ...more });

const writing = (more: object = {}) =>
  contactRoute(workspace.endpoint, { followUps: [{ do: 'mail', to: 'visitor', template: 'thank-you', ...more }] });
const enquire = (more: object = {}) =>
  workspace.submit({ name: 'Weir', email: 'ada@weir.example', subject: '<b>Roof</b>', ...more });
const outbox = async () => (await workspace.get<Page<OutboxLine>>('/outbox')).items;
const ended = () => until(outbox, (lines) => lines.length > 0 && lines.every(({ state }) => state !== 'waiting'));

describe('a mail', () => {
  beforeEach(async () => {
    expect((await set()).status).toBe(200);
    expect(await addTemplate()).toMatchObject({ status: 201, body: { key: 'thank-you' } });
  });

  test('comes to the visitor as the rehearsal shows it, under one Message-ID, and stands in the history of the record', async () => {
    const definition = writing();
    const payload = { name: 'Weir', email: 'ada@weir.example', subject: '<b>Roof</b>' };
    const rehearsed = await workspace.call<Plan>('POST', '/rehearse', { definition, payload });
    await workspace.publish(definition);
    await outside.behave({ status: 451, times: 1 });
    await enquire();
    const [line] = await ended();
    expect(line).toMatchObject({ kind: 'mail', to: 'ada@weir.example', state: 'done', attempts: 2 });
    const { body, key } = await workspace.get<OutboxShape>(`/outbox/${line!.id}`);
    expect(body).toEqual(rehearsed.body.effects![0]!.out!.body);
    expect(await outside.received()).toMatchObject([
      {
        from: '"Weir Gardens" <hello@weir.example>',
        to: ['ada@weir.example'],
        subject: 'Thank you, Weir',
        messageId: `<${key}@weir.example>`,
        text: expect.stringContaining('About <b>Roof</b>.'),
        html: '<p>About &lt;b&gt;Roof&lt;/b&gt;.</p>',
        headers: { 'auto-submitted': 'auto-generated' },
      },
    ]);
    const { items } = await workspace.get<Page<RecordShape>>('/contacts?email=ada@weir.example');
    const { sent } = await workspace.get<RecordSheet>(`/contacts/${items[0]!.id}/sheet`);
    expect(sent).toMatchObject([
      { kind: 'mail', to: 'ada@weir.example', state: 'done', says: 'Thank you, Weir', by: 'the route Enquiries' },
    ]);
  });

  test('that a server refuses for good is given up with what it said', async () => {
    await workspace.publish(writing());
    await outside.behave({ status: 554 });
    await enquire();
    expect(await ended()).toMatchObject([
      { state: 'given-up', attempts: 1, lastError: expect.stringContaining('554') },
    ]);
    const [contact] = (await workspace.get<Page<RecordShape>>('/contacts?email=ada@weir.example')).items;
    expect((await workspace.get<RecordSheet>(`/contacts/${contact!.id}/sheet`)).sent).toMatchObject([
      { state: 'given-up', why: expect.stringContaining('554') },
    ]);
  });

  test('of which the answer is lost is sent again under the same Message-ID', async () => {
    await workspace.publish(writing());
    await outside.behave({ loseAnswer: true, times: 1 });
    await enquire();
    expect(await ended()).toMatchObject([{ state: 'done', attempts: 2 }]);
    const received = await outside.received();
    expect(received).toHaveLength(2);
    expect(new Set(received.map(({ messageId }) => messageId)).size).toBe(1);
  });

  test('is not sent where the template was removed since, and the record is written', async () => {
    await workspace.publish(writing());
    expect((await person('DELETE', '/mail-templates/thank-you')).status).toBe(204);
    await enquire();
    await until(
      () => workspace.get<Page<RecordShape>>('/contacts?email=ada@weir.example'),
      ({ items }) => items.length === 1,
    );
    expect(await outbox()).toEqual([]);
  });

  test('has a template that names fields that there are: publishing says where it does not', async () => {
    expect((await person('PATCH', '/mail-templates/thank-you', { text: 'Dear {{ contact.gone }}' })).status).toBe(200);
    const { body } = await workspace.call<{ id: string }>('POST', '/routes', { definition: writing() });
    expect(await person('POST', `/routes/${body.id}/publish`, {})).toMatchObject({
      status: 422,
      body: { errors: [{ at: '/followUps/0/template', code: 'template-does-not-fit' }] },
    });
  });
});

describe('a team', () => {
  const CARE = { fromName: 'Weir Care', fromAddress: 'care@weir.example', replyTo: 'desk@weir.example' };
  const setCare = (more: object = {}) =>
    person<MailServerShape & ProblemBody>('PUT', '/mail-server/senders/care', { ...CARE, ...more });

  test('writes in a name of its own, also when it is tried again, and as the firm without one', async () => {
    await set();
    await addTemplate();
    await person('POST', '/teams', { name: 'Care', people: ['robin-nye'] });
    expect(await setCare()).toMatchObject({ status: 200, body: { senders: { care: CARE }, fromName: 'Weir Gardens' } });
    await workspace.publish(writing({ from: 'care' }));
    await enquire();
    await ended();
    // Setting the server again leaves its teams.
    expect((await set({ fromName: 'The Weir' })).body.senders).toEqual({ care: CARE });
    expect((await person('DELETE', '/mail-server/senders/care')).status).toBe(200);
    await enquire();
    await until(outbox, (lines) => lines.length === 2 && lines.every(({ state }) => state === 'done'));
    const [first, second] = await outside.received();
    expect(first).toMatchObject({
      from: '"Weir Care" <care@weir.example>',
      headers: { 'reply-to': 'desk@weir.example' },
    });
    expect(second).toMatchObject({ from: '"The Weir" <hello@weir.example>' });
  });

  test('that is not there has none, nor one whose address is none, nor any without a server', async () => {
    await person('POST', '/teams', { name: 'Care', people: ['robin-nye'] });
    expect((await setCare()).status).toBe(404);
    await set();
    expect((await person('PUT', '/mail-server/senders/gone', CARE)).status).toBe(404);
    expect(await setCare({ fromAddress: 'a, b' })).toMatchObject({
      status: 422,
      body: { errors: [{ at: '/fromAddress' }] },
    });
    expect(await setCare({ fromName: 'a\r\nBcc: x' })).toMatchObject({ status: 422 });
    await addTemplate();
    const { body } = await workspace.call<{ id: string }>('POST', '/routes', { definition: writing({ from: 'gone' }) });
    expect(await person('POST', `/routes/${body.id}/publish`, {})).toMatchObject({
      status: 422,
      body: { errors: [{ at: '/followUps/0/from', code: 'unknown-team' }] },
    });
  });
});

describe('a mail server', () => {
  test('is tried by a mail to oneself; what it says is told, and its password never shown', async () => {
    expect((await set({ user: 'weir', password: 'right' })).body).toMatchObject({ user: 'weir', hasPassword: true });
    const mail = { subject: 'A test', text: 'It works.' };
    expect(await person('POST', '/mail-server/test', mail)).toMatchObject({
      status: 200,
      body: { to: expect.stringContaining('@') },
    });
    expect(await outside.received()).toMatchObject([{ subject: 'A test' }]);
    // Without a password the one before stays.
    expect((await set({ user: 'weir' })).body).toMatchObject({ hasPassword: true });
    expect(JSON.stringify(await workspace.get('/mail-server'))).not.toContain('right');
    await set({ user: 'weir', password: 'wrong' });
    expect(await person('POST', '/mail-server/test', mail)).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('Invalid user name') },
    });
    expect((await workspace.call('POST', '/mail-server/test', mail)).status).toBe(403);
  });

  test('that is not set up has mail given up, and says where that is done', async () => {
    await addTemplate();
    await workspace.publish(writing());
    await enquire();
    expect(await ended()).toMatchObject([{ state: 'given-up', lastError: expect.stringContaining('Set up, Mail') }]);
    await set();
    expect((await person('DELETE', '/mail-server')).status).toBe(204);
    expect(await workspace.get('/mail-server')).toEqual({ server: null });
  });

  test.each([
    ['a list of addresses', { fromAddress: 'a@weir.example, b@weir.example' }, '/fromAddress'],
    ['a line break in an address', { fromAddress: 'a@weir.example\r\nBcc: b@weir.example' }, '/fromAddress'],
    ['an answer address that is none', { replyTo: 'nobody' }, '/replyTo'],
    ['a server that is none', { host: 'mail server' }, '/host'],
    ['a name of two lines', { fromName: 'Weir\r\nBcc: b@weir.example' }, '/fromName'],
    ['a port that is none', { port: 0 }, '/port'],
  ])('refuses %s', async (_, more, at) => {
    expect(await set(more)).toMatchObject({ status: 422, body: { errors: [{ at }] } });
  });
});

test('a template has texts in other languages, and a mail speaks that of the form', async () => {
  await set();
  const nl = { subject: 'Dank je, {{ contact.last_name }}', text: 'Over {{ answers.subject }}.' };
  const made = await addTemplate({ translations: { nl } });
  expect(made.body.translations).toEqual({ nl: { ...nl, html: null } });
  await workspace.publish(writing());
  for (const language of ['nl-BE', 'fr']) await enquire({ _visit: { language } });
  await until(outbox, (lines) => lines.length === 2 && lines.every(({ state }) => state === 'done'));
  const subjects = (await outside.received()).map(({ subject }) => subject);
  expect(subjects.sort()).toEqual(['Dank je, Weir', 'Thank you, Weir']);
  // A name that is not there stands in the way of publishing in any language.
  const wrong = { nl: { ...nl, text: '{{ contact.gone }}' } };
  expect((await person('PATCH', '/mail-templates/thank-you', { translations: wrong })).status).toBe(200);
  const { body } = await workspace.call<{ id: string }>('POST', '/routes', { definition: writing() });
  expect(await person('POST', `/routes/${body.id}/publish`, {})).toMatchObject({
    status: 422,
    body: { errors: [{ at: '/followUps/0/template' }] },
  });
  for (const translations of [{ nl: 'x' }, { 'no language': nl }, { nl: { ...nl, text: '' } }, [], 7])
    expect((await person('PATCH', '/mail-templates/thank-you', { translations })).status).toBe(422);
  const blank = { name: null, subject: null, text: null, translations: null };
  expect(await person('PATCH', '/mail-templates/thank-you', blank)).toMatchObject({ status: 200, body: THANKS });
});

test('templates have one name each and parts that can be worked out', async () => {
  expect((await addTemplate()).status).toBe(201);
  expect((await addTemplate()).status).toBe(409);
  expect(await addTemplate({ name: 'Other', text: '{% for x in answers %}' })).toMatchObject({
    status: 422,
    body: { errors: [{ at: '/text', code: 'template-does-not-fit' }] },
  });
  expect(await addTemplate({ name: 'Other', text: ' ' })).toMatchObject({ body: { errors: [{ at: '/text' }] } });
  expect(await addTemplate({ name: 'a\u0000b' })).toMatchObject({ status: 422, body: { errors: [{ at: '/name' }] } });
  expect(await addTemplate({ name: 'Other', text: 'a\u0000b' })).toMatchObject({ body: { errors: [{ at: '/text' }] } });
  expect((await addTemplate({ name: 'Plain', html: null })).body.html).toBeNull();
  expect((await person('PATCH', '/mail-templates/plain', { name: 'Thank you' })).status).toBe(409);
  expect((await person('PATCH', '/mail-templates/gone', { name: 'x' })).status).toBe(404);
  expect((await workspace.get<MailTemplate[]>('/mail-templates')).map(({ key }) => key)).toEqual([
    'plain',
    'thank-you',
  ]);
});
