import { afterEach, describe, expect, test } from '@jest/globals';
import type {
  Decided,
  DecisionList,
  DecisionShape,
  OutboxLine,
  OutboxShape,
  Page,
  ProblemBody,
  RecordShape,
  RunShape,
  SigningShape,
  SubmissionDetail,
  TakeBackRehearsal,
  TakenBack,
} from '@haycart/api';
import type { FollowUp } from '@haycart/core';
import { Webhook } from 'standardwebhooks';
import { startReceiver, type Receiver } from './support/receiver';
import { eachWithStandIn } from './support/stand-in';
import { eachInWorkspace, type TestWorkspace, until } from './support/test-server';
import { contactRoute } from './support/routes';

let workspace: TestWorkspace;
let person: TestWorkspace['call'];
let outside: Receiver;
let to: string;

eachWithStandIn(startReceiver, (made) => {
  outside = made;
  to = outside.address;
});
afterEach(() => workspace.query(`update outbox set state = 'cancelled' where state = 'waiting' returning id`));
eachInWorkspace(async (made) => {
  ({ workspace } = made);
  person = await workspace.signIn();
});

const behave = (behaviour: object) => outside.behave(behaviour);
const received = () => outside.received();
const outbox = async (query = '') => (await workspace.get<Page<OutboxLine>>(`/outbox${query}`)).items;
const decisions = async () => (await workspace.get<DecisionList>('/decisions')).items;

/** A route that writes a contact and follows up. */
const following = (...followUps: FollowUp[]) => contactRoute(workspace.endpoint, { followUps });
const post = (path = '/in', more = {}) => ({ do: 'post', to: `${to}${path}`, ...more });

async function enquire(name = 'Weir'): Promise<SubmissionDetail> {
  const id = await workspace.submit({ name, email: `${name.toLowerCase()}@weir.example` });
  return until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state }) => state !== 'waiting',
  );
}
const settled = (n: number) =>
  until(
    () => outbox(),
    (all) => all.length === n && all.every(({ state }) => state !== 'waiting'),
  );
/** As if the pauses were over. */
const hurry = () =>
  workspace.query(`update outbox set due_at = now(), last_error = null where state = 'waiting' returning id`);

describe('a post', () => {
  test('is sent once its run is committed, signed, and told where it can be looked up', async () => {
    await workspace.publish(following(post()));
    const submission = await enquire();
    const [line] = await settled(1);
    const run = submission.runs[0]!.id;
    expect(line).toMatchObject({ kind: 'post', to: `${to}/in`, state: 'done', attempts: 1, run, lastError: null });
    expect(line).toMatchObject({ submission: submission.id, route: { name: 'Enquiries' }, doneAt: expect.any(String) });
    const [came] = await received();
    const { secret } = (await person<SigningShape>('GET', '/outbox-signing')).body;
    expect(new Webhook(secret).verify(came!.body, came!.headers)).toMatchObject({
      event: 'records.written',
      route: 'Enquiries',
      submission: { id: submission.id, payload: { name: 'Weir' } },
      records: [{ as: 'person', did: 'create', values: { last_name: 'Weir' } }],
    });
    const whole = await workspace.get<OutboxShape>(`/outbox/${line!.id}`);
    expect(whole.key).toBe(came!.headers['webhook-id']);
    expect(whole.body).toEqual(JSON.parse(came!.body));
    const { plan, account } = await workspace.get<RunShape>(`/runs/${run}`);
    expect(plan!.effects).toEqual([
      { do: 'post', words: `Post to ${new URL(to).host}`, out: { kind: 'post', to: `${to}/in` } },
    ]);
    expect(account).toContainEqual({
      step: 'sent',
      text: `Put in the outbox: Post to ${new URL(to).host}`,
    });
    expect(await outbox(`?run=${run}&state=done&kind=post`)).toHaveLength(1);
    expect(await outbox(`?to=${encodeURIComponent(to.toUpperCase() + '/in')}`)).toHaveLength(1);
    expect(await outbox('?to=nobody')).toEqual([]);
    expect(await outbox('?state=waiting')).toEqual([]);
  });

  test('is not sent by a rehearsal, which shows what would be, nor by a run that writes nothing', async () => {
    const never = { of: { answer: 'name' }, test: 'is', value: 'Nobody' };
    const route = await workspace.publish({ ...following(post()), onlyWhen: never });
    await enquire();
    const rehearsed = await workspace.call<{ effects: unknown[] }>('POST', `/routes/${route}/rehearse`, {
      definition: following(post()),
      payload: { name: 'Weir', email: 'weir@weir.example' },
    });
    expect(rehearsed.body.effects).toMatchObject([{ out: { body: { records: [{ id: 'new:person' }] } } }]);
    expect(await outbox()).toEqual([]);
    expect(await received()).toEqual([]);
  });

  test('holds what an answer holds, whatever it is', async () => {
    await workspace.publish(following(post()));
    await enquire('W\u0000eir \u2028<b>"\\');
    await settled(1);
    expect(JSON.parse((await received())[0]!.body)).toMatchObject({
      submission: { payload: { name: 'W\u0000eir \u2028<b>"\\' } },
    });
  });

  test('is sent again after a failure, with the same id, and says meanwhile what was wrong', async () => {
    await behave({ status: 503, times: 1 });
    await workspace.publish(following(post()));
    await enquire();
    const [line] = await until(
      () => outbox('?state=waiting'),
      (all) => all.some(({ lastError }) => lastError !== null),
    );
    expect(line).toMatchObject({ attempts: 1, lastError: `${new URL(to).host} answered 503. “{"received":1}”` });
    await hurry();
    expect(await settled(1)).toMatchObject([{ state: 'done', attempts: 2, lastError: null }]);
    const ids = (await received()).map(({ headers }) => headers['webhook-id']);
    expect(ids).toEqual([ids[0], ids[0]]);
  });

  test('whose answer is lost is sent again, and its receiver can tell', async () => {
    await behave({ loseAnswer: true, times: 1 });
    await workspace.publish(following(post()));
    await enquire();
    // At once where the connection was kept from something before, and otherwise after a pause.
    await until(
      async () => {
        await workspace.query(`update outbox set due_at = now() where state = 'waiting' and last_error is not null`);
        return outbox('?state=done');
      },
      (all) => all.length === 1,
    );
    const ids = (await received()).map(({ headers }) => headers['webhook-id']);
    expect(ids.length).toBeGreaterThanOrEqual(2);
    expect(new Set(ids).size).toBe(1);
  });

  test('is given up after the last try, waits for a person, and is sent again when one says so', async () => {
    await behave({ status: 500 });
    await workspace.publish(following(post()));
    await enquire('One');
    await enquire('Two');
    for (let tries = 1; tries <= 7; tries += 1) {
      await until(
        () => outbox(),
        (all) => all.length === 2 && all.every(({ attempts, lastError }) => attempts === tries && lastError !== null),
      );
      await hurry();
    }
    expect((await settled(2)).map(({ state, attempts }) => [state, attempts])).toEqual([
      ['given-up', 7],
      ['given-up', 7],
    ]);
    const [line] = await decisions();
    expect(line).toMatchObject({ kind: 'undelivered', subject: 'Enquiries', count: 2 });
    expect(line!.detail).toContain('answered 500');
    expect(await workspace.get('/band')).toMatchObject({ toDecide: 1 });
    const { choices, examples } = await workspace.get<DecisionShape>(`/decisions/${line!.id}`);
    expect(choices.map(({ action }) => action)).toEqual(['send-again', 'leave']);
    expect(examples.map(({ who }) => who).sort()).toEqual(['One', 'Two']);
    await behave({});
    const decided = await workspace.call<Decided>('POST', '/decisions/decide', {
      ids: [line!.id],
      action: 'send-again',
    });
    expect(decided.body.text).toBe(`2 posts to ${new URL(to).host} are sent again.`);
    expect((await settled(2)).map(({ state, attempts }) => [state, attempts])).toEqual([
      ['done', 8],
      ['done', 8],
    ]);
    expect(await decisions()).toEqual([]);
  });

  test('that is left comes back when more is given up', async () => {
    await behave({ status: 410 });
    await workspace.publish(following(post()));
    await enquire('One');
    expect(await settled(1)).toMatchObject([{ state: 'given-up', attempts: 1 }]);
    const [line] = await decisions();
    await workspace.call('POST', '/decisions/decide', { ids: [line!.id], action: 'leave' });
    expect(await decisions()).toEqual([]);
    await enquire('Two');
    await settled(2);
    expect(await decisions()).toMatchObject([{ id: line!.id, count: 2 }]);
  });

  test('to a place that asks for time is sent when it said', async () => {
    await workspace.publish(following(post('/in', { when: { of: { answer: 'name' }, test: 'is', value: 'Weir' } })));
    await behave({ delayMs: 50 });
    await enquire('Other');
    await enquire('Weir');
    await settled(1);
    expect(await received()).toHaveLength(1);
  });

  test('never goes inside a network that is not allowed, and follows no redirect', async () => {
    const inside = following(
      { do: 'post', to: 'http://10.0.0.7/in' },
      { do: 'post', to: 'http://[::ffff:169.254.1.1]/in' },
      { do: 'post', to: 'http://localhost:1/in' },
    );
    await behave({ status: 302 });
    await workspace.publish({ ...inside, followUps: [...inside.followUps!, post('/redirect')] });
    await enquire();
    const all = await until(
      () => outbox(),
      (lines) => lines.length === 4 && lines.every(({ lastError }) => lastError !== null),
    );
    const why = Object.fromEntries(all.map(({ to: target, lastError, state }) => [target, `${state}: ${lastError}`]));
    expect(why['http://10.0.0.7/in']).toContain('given-up: 10.0.0.7 is inside a private network');
    expect(why['http://[::ffff:169.254.1.1]/in']).toContain('is inside a private network');
    expect(why['http://localhost:1/in']).toBe('waiting: Nobody listens at localhost:1.');
    expect(why[`${to}/redirect`]).toContain('waiting: 127.0.0.1');
  });
});

describe('a follow-up upon what was taken back', () => {
  test('is cancelled while it waits, told beforehand, and sent when that is given back', async () => {
    await behave({ status: 500 });
    await workspace.publish(following(post(), { do: 'post', to: `${to}/other` }));
    const submission = await enquire();
    const runs = [submission.runs[0]!.id];
    await until(
      () => outbox(),
      (all) => all.length === 2 && all.every(({ lastError }) => lastError !== null),
    );
    const rehearsed = (await person<TakeBackRehearsal>('POST', '/runs/take-back/rehearse', { runs })).body;
    expect(rehearsed).toMatchObject({ sent: 0, notSent: 2 });
    const { edit } = (await person<TakenBack>('POST', '/runs/take-back', { runs })).body;
    expect((await outbox()).map(({ state }) => state)).toEqual(['cancelled', 'cancelled']);
    await behave({});
    expect((await person('POST', `/edits/${edit}/take-back`)).status).toBeLessThan(300);
    expect((await settled(2)).map(({ state }) => state)).toEqual(['done', 'done']);
    expect((await person<TakeBackRehearsal>('POST', '/runs/take-back/rehearse', { runs })).body).toMatchObject({
      sent: 2,
      notSent: 0,
    });
  });

  test('is sent for what runs again, since that is another attempt', async () => {
    await workspace.publish(following(post()));
    const submission = await enquire();
    await settled(1);
    const runs = [submission.runs[0]!.id];
    await person('POST', '/runs/take-back', { runs });
    await person('POST', `/runs/${runs[0]}/run-again`);
    const all = await settled(2);
    expect(new Set(all.map(({ run }) => run))).toEqual(new Set(runs));
    expect(new Set((await received()).map(({ headers }) => headers['webhook-id'])).size).toBe(2);
  });
});

describe('the outbox', () => {
  test('sends again and cancels what one names, and says why it does not', async () => {
    await behave({ status: 500 });
    await workspace.publish(following(post()));
    await enquire();
    const [line] = await until(
      () => outbox(),
      (all) => all.some(({ lastError }) => lastError !== null),
    );
    const act = (id: string, what: string) => person<OutboxShape & ProblemBody>('POST', `/outbox/${id}/${what}`);
    expect((await act(line!.id, 'retry')).status).toBe(409);
    expect((await act(line!.id, 'cancel')).body).toMatchObject({ state: 'cancelled', doneAt: null });
    expect((await act(line!.id, 'cancel')).status).toBe(409);
    await behave({});
    expect((await act(line!.id, 'retry')).body).toMatchObject({ state: 'waiting' });
    expect(await settled(1)).toMatchObject([{ state: 'done', attempts: 2 }]);
    expect((await act(line!.id, 'cancel')).status).toBe(409);
    for (const id of ['nonsense', '00000000-0000-4000-8000-000000000000'])
      for (const what of ['retry', 'cancel']) expect((await act(id, what)).status).toBe(404);
    expect((await person('GET', '/outbox/nonsense')).status).toBe(404);
    for (const query of ['?state=lost', '?run=7', '?limit=0', '?after=x', '?unheard=1'])
      expect([query, (await person('GET', `/outbox${query}`)).status]).toEqual([query, 422]);
  });

  test('is read page by page, the latest first', async () => {
    await workspace.publish(following(post(), post('/2'), post('/3')));
    await enquire();
    await settled(3);
    const first = await workspace.get<Page<OutboxLine>>('/outbox?limit=2');
    const second = await workspace.get<Page<OutboxLine>>(`/outbox?limit=2&after=${encodeURIComponent(first.next!)}`);
    const all = [...first.items, ...second.items].map(({ to: target }) => new URL(target).pathname);
    expect(all.sort()).toEqual(['/2', '/3', '/in']);
    expect(second.next).toBeUndefined();
  });

  test('is signed with another secret after it was replaced; no token sees it, and it is kept sealed', async () => {
    await workspace.publish(following(post()));
    const before = (await person<SigningShape>('GET', '/outbox-signing')).body.secret;
    expect((await person<SigningShape>('GET', '/outbox-signing')).body.secret).toBe(before);
    const { secret } = (await person<SigningShape>('POST', '/outbox-signing/replace')).body;
    expect(secret).not.toBe(before);
    expect((await workspace.call('GET', '/outbox-signing')).status).toBe(403);
    expect((await workspace.call('POST', '/outbox-signing/replace')).status).toBe(403);
    const [kept] = await workspace.query<{ secret: string }>('select secret from outbox_secret');
    expect(kept!.secret).toMatch(/^sealed1\./);
    await enquire();
    await settled(1);
    const [came] = await received();
    expect(() => new Webhook(secret).verify(came!.body, came!.headers)).not.toThrow();
    expect(() => new Webhook(before).verify(came!.body, came!.headers)).toThrow();
  });

  test('may not be rewritten by the server', async () => {
    await workspace.publish(following(post()));
    await enquire();
    await settled(1);
    await expect(workspace.query(`update outbox set body = '{}'`)).rejects.toThrow(/permission denied/);
    await expect(workspace.query('delete from outbox')).rejects.toThrow(/permission denied/);
  });
});

test('tags named by an answer are written with the record', async () => {
  await workspace.call('POST', '/tags', { name: 'Show' });
  await workspace.publish(following({ do: 'tag', on: 'person', add: [{ parts: [{ answer: 'name' }] }] }));
  await enquire('Show');
  const [contact] = (await workspace.get<Page<RecordShape>>('/contacts')).items;
  expect(contact!.tags).toEqual(['show']);
});

test('a tag that is merged into another is added as that one by the routes that named it', async () => {
  for (const name of ['Show', 'Stand']) await workspace.call('POST', '/tags', { name });
  const route = await workspace.publish(following({ do: 'tag', on: 'person', tags: ['show'] }));
  expect((await workspace.call('POST', '/tags/show/merge', { into: 'stand' })).status).toBe(200);
  expect(await workspace.get(`/routes/${route}`)).toMatchObject({
    version: 2,
    draftDiffers: false,
    draft: { followUps: [{ tags: ['stand'] }] },
  });
  await enquire();
  expect((await workspace.get<Page<RecordShape>>('/contacts')).items[0]!.tags).toEqual(['stand']);
});
