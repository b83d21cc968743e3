import { beforeEach, describe, expect, test } from '@jest/globals';
import type { OutboxLine, OutboxShape, Page, ProblemBody } from '@haycart/api';
import { WEEKDAYS, type FollowUp } from '@haycart/core';
import { startReceiver, type Receiver } from './support/receiver';
import { eachWithStandIn } from './support/stand-in';
import { OutboxQueue } from '../src/outbox/outbox-queue';
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
  await person('POST', '/channels', { name: 'Care desk', by: 'chat', address: `${outside.address}/care` });
});

const outbox = async () => (await workspace.get<Page<OutboxLine>>('/outbox')).items;
const one = (id: string) => workspace.get<OutboxShape>(`/outbox/${id}`);
const said = async () => (await outside.received()).map(({ body }) => (JSON.parse(body) as { text: string }).text);
const message = (more: object): FollowUp => ({
  do: 'message',
  to: { channel: 'care-desk' },
  by: 'chat',
  body: answer('subject'),
  ...more,
});
const publish = (more: object) => workspace.publish(contactRoute(workspace.endpoint, { followUps: [message(more)] }));
const enquire = (subject: string) =>
  workspace.submit({ name: 'Weir', email: `${subject.toLowerCase()}@weir.example`, subject });
/** As if the time that things wait for were over. */
const hurry = () => workspace.query(`update outbox set due_at = now() where state = 'waiting' returning id`);

describe('messages that go out as one', () => {
  beforeEach(() => publish({ together: 5 }));
  const waiting = async (...subjects: string[]) => {
    for (const subject of subjects) await enquire(subject);
    return until(outbox, ({ length }) => length === subjects.length);
  };

  test('wait for each other, and are one message under one key, also when it is tried again', async () => {
    const lines = await waiting('Roof', 'Door', 'Pane');
    expect(lines.every(({ state, dueAt }) => state === 'waiting' && Date.parse(dueAt!) > Date.now() + 200_000)).toBe(
      true,
    );
    expect(await outside.received()).toEqual([]);
    await outside.behave({ status: 503, times: 1 });
    await hurry();
    await until(outbox, (all) => all.every(({ lastError }) => lastError !== null));
    // What comes meanwhile is no part of what is tried again.
    await enquire('Late');
    await until(outbox, ({ length }) => length === 4);
    await hurry();
    await until(outbox, (all) => all.every(({ state }) => state === 'done'));
    const texts = await said();
    const keys = (await outside.received()).map(({ headers }) => headers['idempotency-key']);
    const late = texts.indexOf('Late');
    const [first, again] = texts.toSpliced(late, 1);
    expect([texts.length, first!.split('\n\n').sort(), again]).toEqual([3, ['Door', 'Pane', 'Roof'], first]);
    expect([new Set(keys).size, new Set(keys.toSpliced(late, 1)).size]).toEqual([2, 1]);
    expect((await Promise.all(lines.map(({ id }) => one(id)))).map(({ together }) => together)).toEqual([2, 2, 2]);
  });

  test('go without one that is cancelled, and by themselves when somebody sends one again', async () => {
    await outside.behave({ status: 503 });
    const lines = await waiting('Roof', 'Door');
    await hurry();
    await until(outbox, (all) => all.every(({ lastError }) => lastError !== null));
    const [first] = await workspace.query<{ key: string }>(`select key from outbox where id = sent_with`);
    const leads = (await Promise.all(lines.map(({ id }) => one(id)))).find((line) => line.key === first!.key)!;
    const other = lines.find(({ id }) => id !== leads.id)!;
    expect((await person('POST', `/outbox/${leads.id}/cancel`)).status).toBe(200);
    await outside.behave({});
    await hurry();
    await until(outbox, (all) => all.some(({ state }) => state === 'done'));
    expect((await one(other.id)).together).toBe(0);
    expect((await said()).at(-1)).toMatch(/^(Roof|Door)$/);
    expect((await person('POST', `/outbox/${leads.id}/retry`)).status).toBe(200);
    await until(outbox, (all) => all.every(({ state }) => state === 'done'));
    expect((await said()).slice(-2).sort()).toEqual(['Door', 'Roof']);
  });

  test('that were all taken back say nothing', async () => {
    await waiting('Roof', 'Door');
    const runs = await workspace.query<{ run_id: string }>(`select distinct run_id from outbox`);
    await person('POST', '/runs/take-back', { runs: runs.map(({ run_id }) => run_id) });
    expect((await outbox()).map(({ state }) => state)).toEqual(['cancelled', 'cancelled']);
    await hurry();
    expect(await outside.received()).toEqual([]);
  });
});

describe('messages to a receiver that takes only so many a minute', () => {
  const perMinute = (most: unknown) => person('PATCH', '/channels/care-desk', { perMinute: most });

  test('take turns, in the database, whichever process sends them', async () => {
    const queue = server.app.get(OutboxQueue);
    expect(await queue.takeTurn(workspace.id, 'Care desk', 2)).toBe(0);
    const next = await queue.takeTurn(workspace.id, 'Care desk', 2);
    expect([next > 20, next <= 30]).toEqual([true, true]);
    expect(await queue.takeTurn(workspace.id, 'Others', 2)).toBe(0);
    await workspace.query(`update outbox_pace set next_at = now() where lane = 'Care desk' returning lane`);
    expect(await queue.takeTurn(workspace.id, 'Care desk', 2)).toBe(0);
  });

  test('all go out, one after the other, and no try is counted for the wait', async () => {
    expect((await perMinute(300)).status).toBe(200);
    await publish({});
    const subjects = ['Roof', 'Door', 'Pane', 'Vent', 'Shelf', 'Bench'];
    for (const subject of subjects) await enquire(subject);
    const lines = await until(outbox, (all) => all.length === 6 && all.every(({ state }) => state === 'done'));
    expect(lines.map(({ attempts }) => attempts)).toEqual([1, 1, 1, 1, 1, 1]);
    expect((await said()).sort()).toEqual([...subjects].sort());
  });

  test.each([0, -1, 1.5, 10_001, '7'])('are not limited to %j', async (most) => {
    expect((await perMinute(most)).status).toBe(422);
  });
});

describe('messages in working hours', () => {
  const now = new Date();
  /** Where it is about noon. */
  const zone = `Etc/GMT${now.getUTCHours() > 12 ? '+' : '-'}${Math.abs(now.getUTCHours() - 12)}`;
  const today = WEEKDAYS[(now.getUTCDay() + 6) % 7]!;
  const hours = (...days: readonly string[]) => ({
    timeZone: zone,
    hours: Object.fromEntries(days.map((day) => [day, { from: '06:00', to: '18:00' }])),
  });

  test('wait until their channel is read, without counting a try', async () => {
    const channel = (change: object) => person<ProblemBody>('PATCH', '/channels/care-desk', change);
    expect((await channel(hours(...WEEKDAYS.filter((day) => day !== today)))).status).toBe(200);
    await publish({ inHours: true });
    await enquire('Roof');
    const [line] = await until(outbox, ([first]) => first !== undefined && first.lastError !== null);
    expect(line).toMatchObject({ state: 'waiting', attempts: 0, lastError: 'It waits for working hours.' });
    expect(Date.parse(line!.dueAt!)).toBeGreaterThan(Date.now() + 6 * 3_600_000);
    await channel(hours(...WEEKDAYS));
    await hurry();
    expect(await until(outbox, ([first]) => first?.state === 'done')).toMatchObject([{ attempts: 1, lastError: null }]);
    expect(await said()).toEqual(['Roof']);
  });

  test.each([
    [{ timeZone: 'Weir/Lock' }, '/timeZone'],
    [{ hours: { mon: { from: '17:00', to: '09:00' } } }, '/hours/mon'],
    [{ hours: { mon: true } }, '/hours/mon'],
    [{ hours: null }, '/hours'],
  ])('a channel does not take %j', async (change, at) => {
    const refused = await person<ProblemBody>('PATCH', '/channels/care-desk', change);
    expect(refused).toMatchObject({ status: 422, body: { errors: [{ at }] } });
  });
});
