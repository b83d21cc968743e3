import { describe, expect, test } from '@jest/globals';
import type {
  BandFigures,
  ChannelShape,
  DecisionList,
  OutboxLine,
  Page,
  ProblemBody,
  RecordShape,
  RecordSheet,
  RunShape,
  SubmissionDetail,
  TakeBackRehearsal,
  TakenBack,
  TaskCounts,
  TaskLine,
} from '@haycart/api';
import type { FollowUp } from '@haycart/core';
import { startReceiver, type Receiver } from './support/receiver';
import { eachWithStandIn } from './support/stand-in';
import { eachInWorkspace, type TestServer, type TestWorkspace, until } from './support/test-server';
import { answer, contactRoute } from './support/routes';

let server: TestServer;
let workspace: TestWorkspace;
let person: TestWorkspace['call'];
let outside: Receiver;

eachWithStandIn(startReceiver, (made) => (outside = made));
eachInWorkspace(async (made) => {
  ({ server, workspace } = made);
  person = await workspace.signIn();
});

const text = (words: string) => ({ parts: [{ text: words }] });
const TASK = {
  do: 'task',
  on: 'person',
  title: answer('subject'),
  due: { in: 2, unit: 'hours' },
  owner: { person: 'robin-nye' },
};
const NOTE = { do: 'note', on: 'person', title: text('Message'), body: answer('message') };

/** A route that writes a contact and follows up. */
const following = (...followUps: FollowUp[]) => contactRoute(workspace.endpoint, { followUps });

async function enquire(more: Record<string, string> = {}): Promise<SubmissionDetail> {
  const id = await workspace.submit({
    name: 'Weir',
    email: 'weir@weir.example',
    subject: 'Roof',
    message: 'One\nTwo',
    ...more,
  });
  return until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state }) => state !== 'waiting',
  );
}
const contact = async () => (await workspace.get<Page<RecordShape>>('/contacts?email=weir@weir.example')).items[0];
const sheet = async () => workspace.get<RecordSheet>(`/contacts/${(await contact())!.id}/sheet`);
const tasks = async (query = '') => (await workspace.get<Page<TaskLine>>(`/tasks${query}`)).items;

describe('tasks and notes', () => {
  test('are made once for each submission, and stand on the record and in the list of tasks', async () => {
    await workspace.publish(following(TASK, NOTE));
    const { receivedAt, runs } = await enquire();
    const due = new Date(Date.parse(receivedAt) + 7_200_000).toISOString().slice(0, 19);
    const made = {
      text: 'Roof',
      owner: 'robin-nye',
      due: `${due}Z`,
      priority: 'normal',
      by: 'the route Enquiries',
      doneAt: null,
    };
    expect(await sheet()).toMatchObject({
      tasks: [made],
      notes: [{ title: 'Message', text: 'One\nTwo', by: 'the route Enquiries' }],
    });
    const record = (await contact())!.id;
    expect(await tasks('?owner=robin-nye')).toMatchObject([{ ...made, kind: 'contact', record, name: 'Weir' }]);
    const { account } = await workspace.get<RunShape>(`/runs/${runs[0]!.id}`);
    expect(account.filter(({ step }) => step === 'made').map(({ text: says }) => says)).toEqual([
      'Made a task “Roof” for Robin Nye',
      'Made a note “Message” on the contact',
    ]);
    await enquire({ subject: 'Door', message: '' });
    expect((await tasks()).map(({ text: title }) => title)).toEqual(['Roof', 'Door']);
    expect((await sheet()).notes).toHaveLength(1);
  });

  test('are paged by when they are due, counted, and done ones are a list of their own', async () => {
    await workspace.publish(following(TASK, { ...TASK, title: text('Later'), due: undefined, owner: undefined }));
    await enquire();
    const record = (await contact())!.id;
    await person('POST', `/contacts/${record}/tasks`, { text: 'Old', owner: 'robin-nye', due: '2026-01-05' });
    const pages = [];
    for (let after: string | undefined = ''; after !== undefined;) {
      const page: Page<TaskLine> = await workspace.get(`/tasks?limit=1${after ? `&after=${after}` : ''}`);
      pages.push(...page.items.map(({ text: title }) => title));
      after = page.next;
    }
    expect(pages).toEqual(['Old', 'Roof', 'Later']);
    expect(await workspace.get<TaskCounts>('/tasks/count?owner=robin-nye')).toMatchObject({ open: 2, overdue: 1 });
    expect((await person<BandFigures>('GET', '/band')).body.tasksDue).toBeGreaterThanOrEqual(1);
    expect(await tasks('?state=overdue')).toMatchObject([{ text: 'Old', due: '2026-01-05' }]);
    const [old] = await tasks('?state=overdue');
    await person('PATCH', `/contacts/${record}/tasks/${old!.id}`, { done: true });
    expect(await tasks('?state=overdue')).toEqual([]);
    expect(await tasks('?state=done')).toMatchObject([{ text: 'Old', doneBy: 'Robin Nye' }]);
    expect((await workspace.call('GET', '/tasks?state=lost')).status).toBe(422);
  });

  test('go out as a calendar, to whoever has a token', async () => {
    await workspace.publish(following(TASK));
    await enquire();
    const ask = (authorization: string, path = '/tasks.ics?owner=robin-nye') =>
      fetch(`${server.base}/api/v1${path}`, { headers: { authorization } });
    const basic = `Basic ${Buffer.from(`calendar:${workspace.token}`).toString('base64')}`;
    const answer = await ask(basic);
    expect(answer.headers.get('content-type')).toContain('text/calendar');
    expect(await answer.text()).toMatch(/BEGIN:VTODO[^]*SUMMARY:Roof: Weir[^]*END:VTODO/);
    expect((await ask(`Bearer ${workspace.token}`)).status).toBe(200);
    expect((await ask('Basic eDp5')).status).toBe(401);
    expect((await ask(basic, '/tasks')).status).toBe(401);
  });

  test('go when their run is taken back, but for what somebody did or changed; and come again when it is given back', async () => {
    await workspace.publish(following(TASK, { ...TASK, title: text('Done') }, NOTE));
    await enquire();
    const { runs } = await enquire({ subject: 'Second' });
    const done = (await tasks()).filter(({ text: title }) => title === 'Done')[1]!;
    await person('PATCH', `/contacts/${done.record}/tasks/${done.id}`, { done: true });
    const choice = { runs: [runs[0]!.id] };
    const rehearsal = await workspace.call<TakeBackRehearsal>('POST', '/runs/take-back/rehearse', choice);
    expect(rehearsal.body).toMatchObject({ runs: 1, tasks: 1, notes: 1 });
    const taken = await person<TakenBack>('POST', '/runs/take-back', choice);
    expect(taken.status).toBe(200);
    expect((await tasks()).map(({ text: title }) => title)).toEqual(['Roof', 'Done']);
    expect(await tasks('?state=done')).toMatchObject([{ text: 'Done' }]);
    expect((await sheet()).notes).toHaveLength(1);
    expect((await person('POST', `/edits/${taken.body.edit}/take-back`)).status).toBe(200);
    expect((await tasks()).map(({ text: title }) => title)).toEqual(['Roof', 'Done', 'Second']);
    expect((await sheet()).notes).toHaveLength(2);
  });

  test('do not keep the record that their run made', async () => {
    await workspace.publish(following(TASK, NOTE));
    const { runs } = await enquire();
    expect((await person('POST', '/runs/take-back', { runs: [runs[0]!.id] })).status).toBe(200);
    expect(await contact()).toBeUndefined();
    expect(await tasks()).toEqual([]);
  });

  test('are for nobody where their person went, and still made', async () => {
    await workspace.publish(
      following(TASK, { do: 'field', on: 'person', field: 'job_title', value: answer('subject') }),
    );
    await person('POST', '/people', { name: 'Ada Weir', email: 'ada@weir.example' });
    await person('PATCH', '/people/robin-nye', { active: false });
    const { runs } = await enquire();
    expect(runs).toMatchObject([{ outcome: 'written' }]);
    expect(await tasks()).toMatchObject([{ text: 'Roof', owner: null }]);
    expect((await contact())!.values.job_title).toBe('Roof');
  });
});

describe('messages', () => {
  const chat = { do: 'message', to: { channel: 'care-desk' }, by: 'chat', body: answer('message'), link: 'person' };
  const channel = (more: object) =>
    person<ChannelShape & ProblemBody>('POST', '/channels', { name: 'Care desk', by: 'chat', ...more });
  const outbox = async () => (await workspace.get<Page<OutboxLine>>('/outbox')).items;
  const sent = () => until(outbox, (lines) => lines.length > 0 && lines.every(({ state }) => state !== 'waiting'));

  test('go to a channel with a link, under a key that stays the same', async () => {
    const made = await channel({ address: `${outside.address}/care?key=secret` });
    expect(made).toMatchObject({
      status: 201,
      body: { key: 'care-desk', by: 'chat', to: new URL(outside.address).host },
    });
    expect(JSON.stringify(made.body)).not.toContain('secret');
    await workspace.publish(following(chat));
    await outside.behave({ status: 503, times: 1 });
    await enquire();
    expect(await sent()).toMatchObject([{ kind: 'chat', to: 'Care desk', state: 'done', attempts: 2 }]);
    const received = await outside.received();
    expect(received.map(({ path }) => path)).toEqual(['/care?key=secret', '/care?key=secret']);
    expect(new Set(received.map(({ headers }) => headers['idempotency-key'])).size).toBe(1);
    const { text: says } = JSON.parse(received[1]!.body) as { text: string };
    expect(says).toMatch(new RegExp(`^One\\nTwo\\nhttp://[^ ]+/records/contacts/${(await contact())!.id}$`));
  });

  test('go to a phone by the gateway, and are given up with the reason where none is set up', async () => {
    await person('PATCH', '/people/robin-nye', { phone: '+442079460018' });
    await workspace.publish(
      following({ do: 'message', to: { person: { person: 'robin-nye' } }, by: 'text', body: text('Call') }),
    );
    await enquire();
    expect(await sent()).toMatchObject([
      { kind: 'text', state: 'given-up', lastError: expect.stringContaining('Set up, Channels') },
    ]);
    const { items } = await until(
      () => workspace.get<DecisionList>('/decisions'),
      (list) => list.items.some(({ kind }) => kind === 'undelivered'),
    );
    expect(await person('PUT', '/text-gateway', { address: `${outside.address}/sms` })).toMatchObject({ status: 200 });
    const given = items.find(({ kind }) => kind === 'undelivered')!;
    expect((await person('POST', '/decisions/decide', { ids: [given.id], action: 'send-again' })).status).toBe(200);
    await until(outbox, ([line]) => line?.state === 'done');
    expect(JSON.parse((await outside.received())[0]!.body)).toEqual({ to: '+442079460018', text: 'Call' });
  });

  test('of what a route catches up on stay unsent until somebody asks for them', async () => {
    await channel({ address: `${outside.address}/care` });
    await enquire();
    const route = await workspace.publish(following(TASK, chat));
    const period = { since: '2020-01-01T00:00:00Z', before: '2100-01-01T00:00:00Z' };
    expect(await person('POST', `/routes/${route}/catch-up`, period)).toMatchObject({
      status: 202,
      body: { queued: 1 },
    });
    const [line] = await until(outbox, ({ length }) => length === 1);
    expect(line).toMatchObject({ state: 'cancelled', attempts: 0, lastError: expect.stringContaining('Not sent') });
    expect(await tasks()).toHaveLength(1);
    expect((await person('POST', `/outbox/${line!.id}/retry`)).status).toBe(200);
    await until(outbox, ([one]) => one?.state === 'done');
    // What comes from now on is sent, and so is what is caught up on where that is wished.
    await enquire({ email: 'bo@weir.example' });
    await until(outbox, (lines) => lines.filter(({ state }) => state === 'done').length === 2);
    const other = await workspace.publish({ ...following(chat), name: 'Others' });
    await person('POST', `/routes/${other}/catch-up`, { ...period, send: true });
    await until(outbox, (lines) => lines.filter(({ state }) => state === 'done').length === 4);
  });

  test('are tried at once from the set-up, which says why one did not come', async () => {
    await channel({ address: `${outside.address}/care` });
    expect((await person('POST', '/channels/care-desk/test')).status).toBe(204);
    await outside.behave({ status: 500 });
    expect(await person('POST', '/channels/care-desk/test')).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('answered 500') },
    });
    expect((await person('POST', '/channels/gone/test')).status).toBe(404);
  });

  test('wait for nobody where their channel is removed: they are given up and say so', async () => {
    await channel({ address: `${outside.address}/care` });
    await workspace.publish(following(chat));
    await outside.behave({ status: 503 });
    await enquire();
    await until(outbox, ([line]) => line?.attempts === 1 && line.lastError !== null);
    expect((await person('DELETE', '/channels/care-desk')).status).toBe(204);
    expect(await until(outbox, ([line]) => line?.state === 'given-up')).toMatchObject([
      { lastError: 'There is no channel “care-desk” any more.' },
    ]);
    const draft = await workspace.call<ProblemBody>('POST', '/rehearse', {
      definition: following(chat),
      payload: { email: 'a@weir.example' },
    });
    expect(JSON.stringify(draft.body)).toContain('unknown-channel');
  });

  test.each([
    ['an address that is none', { address: 'care' }, '/address'],
    ['a password in it', { address: 'https://a:b@care.example' }, '/address'],
    ['no address', {}, '/address'],
    ['a blank name', { name: ' ', address: 'https://care.example' }, '/name'],
    ['a name that cannot be kept', { name: 'a\u0000b', address: 'https://care.example' }, '/name'],
    ['a number without its country', { by: 'text', number: '020 7946 0018' }, '/number'],
  ])('are refused for %s', async (_, given, at) => {
    expect(await channel(given)).toMatchObject({ status: 422, body: { errors: [{ at }] } });
  });

  test('name a channel once, by a key that stays', async () => {
    await channel({ address: outside.address });
    expect(await channel({ address: outside.address })).toMatchObject({ status: 409 });
    const changed = await person<ChannelShape>('PATCH', '/channels/care-desk', { name: 'Care' });
    expect(changed.body).toMatchObject({ key: 'care-desk', name: 'Care' });
    expect((await person('PATCH', '/channels/care-desk', {})).status).toBe(422);
    expect((await person('PATCH', '/channels/gone', { name: 'x' })).status).toBe(404);
    const phone = await channel({ name: 'Night phone', by: 'text', number: '+44 20 7946 0018' });
    expect(phone.body).toMatchObject({ key: 'night-phone', to: '+442079460018' });
  });
});
