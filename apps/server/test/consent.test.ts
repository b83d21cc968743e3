import { describe, expect, test } from '@jest/globals';
import type {
  ConsentShape,
  OutboxLine,
  Page,
  RecordShape,
  RecordSheet,
  RunShape,
  SubmissionDetail,
} from '@haycart/api';
import type { FollowUp } from '@haycart/core';
import { serverSetting, startMailStandIn, type MailStandIn } from './support/mail-stand-in';
import { eachWithStandIn } from './support/stand-in';
import { eachInWorkspace, type TestServer, type TestWorkspace, until } from './support/test-server';
import { contactRoute } from './support/routes';

let server: TestServer;
let workspace: TestWorkspace;
let person: TestWorkspace['call'];
let outside: MailStandIn;

eachWithStandIn(startMailStandIn, (made) => (outside = made));
eachInWorkspace(async (made) => {
  ({ server, workspace } = made);
  person = await workspace.signIn();
  await person('PUT', '/mail-server', serverSetting(outside));
  const template = (name: string, link: string) =>
    person('POST', '/mail-templates', { name, subject: name, text: `${name}: {{ ${link}.link }}` });
  await template('Confirm', 'confirm');
  await template('News', 'unsubscribe');
});

const WORDS = 'You may write to me about glasshouses.';
const consent = (more: object = {}): FollowUp => ({
  do: 'consent',
  on: 'person',
  channel: 'email',
  state: 'given',
  words: { parts: [{ text: WORDS }] },
  ...more,
});
const CONFIRMED = consent({ confirm: 'confirm', within: 'P3D' });
const NEWS: FollowUp = { do: 'mail', to: 'visitor', template: 'news', marketing: true };

const publish = (...followUps: FollowUp[]) => workspace.publish(contactRoute(workspace.endpoint, { followUps }));
const enquire = async (email = 'ada@weir.example') => {
  const id = await workspace.submit({ name: 'Weir', email });
  return until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state }) => state !== 'waiting',
  );
};
const contact = async (email = 'ada@weir.example') =>
  (await workspace.get<Page<RecordShape>>(`/contacts?email=${email}`)).items[0]!;
const consents = async (): Promise<ConsentShape[]> =>
  (await workspace.get<RecordSheet>(`/contacts/${(await contact()).id}/sheet`)).consents;
const noteDown = async (state: string, id?: string) =>
  expect(
    (
      await person('POST', `/contacts/${id ?? (await contact()).id}/consents`, {
        channel: 'email',
        state,
        words: 'So they said.',
        place: 'by phone',
      })
    ).status,
  ).toBe(201);

/** All that went out, or did not, once nothing waits any more. */
const ended = (many: number) =>
  until(
    async () => (await workspace.get<Page<OutboxLine>>('/outbox')).items,
    (lines) => lines.length === many && lines.every(({ state }) => state !== 'waiting'),
  );
const linkIn = (text: string) => new URL(/https?:\S+/.exec(text)![0]).pathname;
async function page(path: string, posted?: Record<string, string>) {
  const response = await fetch(`${server.base}${path}`, {
    headers: { 'accept-language': 'en' },
    redirect: 'error',
    ...(posted ? { method: 'POST', body: new URLSearchParams(posted) } : {}),
  });
  return { status: response.status, headers: response.headers, text: await response.text() };
}
const ONE_CLICK = { 'List-Unsubscribe': 'One-Click' };

describe('consent that is confirmed by mail', () => {
  test('is pending until the button is pressed, whatever programs open the link, and then given with its words', async () => {
    await publish(CONFIRMED);
    const { runs } = await enquire();
    await ended(1);
    expect(await consents()).toMatchObject([{ state: 'pending', words: WORDS, by: 'the route Enquiries' }]);
    const run = await workspace.get<RunShape>(`/runs/${runs[0]!.id}`);
    expect(run.account.map(({ text }) => text)).toEqual(
      expect.arrayContaining([
        'Noted: Consent to e-mail pending until ada@weir.example confirms',
        'Put in the outbox: mail to ada@weir.example',
      ]),
    );
    const [mail] = await outside.received();
    expect(mail!.headers['list-unsubscribe']).toBeUndefined();
    const link = linkIn(mail!.text);
    for (let opened = 0; opened < 3; opened += 1) expect((await page(link)).text).toContain(WORDS);
    await fetch(`${server.base}${link}`, { method: 'HEAD' });
    expect(await consents()).toHaveLength(1);
    expect(await page(link, {})).toMatchObject({ status: 200, text: expect.stringContaining('Thank you') });
    expect(await consents()).toMatchObject([
      { state: 'given', words: WORDS, by: 'ada@weir.example', place: 'by the link in a mail' },
      { state: 'pending' },
    ]);
    // Pressed again, it says the same and keeps nothing more.
    expect((await page(link, {})).text).toContain('Thank you');
    expect(await consents()).toHaveLength(2);
  });

  test('is asked for once within minutes, and never of who agreed or wants none', async () => {
    await publish(CONFIRMED);
    await Promise.all([enquire(), enquire()]);
    await ended(2);
    const [mail, ...others] = await outside.received();
    expect(others).toEqual([]);
    await page(linkIn(mail!.text), {});
    await enquire();
    const [latest, ...before] = (await ended(3)).map(({ lastError }) => lastError);
    expect(latest).toBe('They agreed already.');
    expect(before).toHaveLength(2);
    expect(before).toEqual(
      expect.arrayContaining([null, 'They were asked a moment ago, and the link of that mail does.']),
    );
    // What was given does not become pending again.
    expect((await consents())[0]).toMatchObject({ state: 'given' });
    expect(await outside.received()).toHaveLength(1);
  });

  test('comes too late after its days, and by no link that was made up', async () => {
    await publish(CONFIRMED);
    await enquire();
    await ended(1);
    const link = linkIn((await outside.received())[0]!.text);
    await workspace.query(`update consent_link set expires_at = now() - interval '1 second'`);
    expect(await page(link, {})).toMatchObject({
      status: 410,
      text: expect.stringContaining('does not work any more'),
    });
    for (const wrong of ['x', 'x'.repeat(100), '%00', "'; --"])
      expect((await page(`/consent/${encodeURIComponent(wrong)}`, {})).status).toBe(404);
    expect(await consents()).toMatchObject([{ state: 'pending' }]);
  });

  test('counts no more once its run is taken back, and again once that is given back', async () => {
    await publish(consent());
    await noteDownFirst();
    const { runs } = await enquire();
    expect(await consents()).toMatchObject([{ state: 'given', words: WORDS }, { words: 'So they said.' }]);
    const choice = { runs: [runs[0]!.id] };
    expect((await person('POST', '/runs/take-back/rehearse', choice)).body).toMatchObject({ consents: 1 });
    const taken = await person<{ edit: string }>('POST', '/runs/take-back', choice);
    expect(await consents()).toMatchObject([{ state: 'withdrawn', words: 'So they said.' }]);
    expect((await person('POST', `/edits/${taken.body.edit}/take-back`)).status).toBeLessThan(300);
    expect(await consents()).toMatchObject([{ state: 'given', words: WORDS }, { words: 'So they said.' }]);
  });

  /** Somebody is known already, who said no by phone. */
  async function noteDownFirst(): Promise<void> {
    const made = await person<RecordShape>('POST', '/contacts', {
      values: { last_name: 'Weir', email: 'ada@weir.example' },
    });
    await noteDown('withdrawn', made.body.id);
  }
});

describe('marketing', () => {
  test('goes to who agreed, with a link by which one click ends it, and to nobody else', async () => {
    await publish(consent({ when: { of: { answer: 'name' }, test: 'is', value: 'Weir' } }), NEWS);
    await enquire();
    await ended(1);
    const [mail] = await outside.received();
    const link = linkIn(mail!.text);
    expect(mail!.headers).toMatchObject({
      'list-unsubscribe': expect.stringMatching(new RegExp(`^<http://[^>]+${link}>$`)),
      'list-unsubscribe-post': 'List-Unsubscribe=One-Click',
    });
    // A program that looks at the link ends nothing.
    expect((await page(link)).text).toContain('No more of these mails?');
    expect((await consents())[0]).toMatchObject({ state: 'given' });
    const { status, headers } = await page(link, ONE_CLICK);
    expect([status, headers.get('set-cookie')]).toEqual([200, null]);
    expect(await consents()).toMatchObject([
      { state: 'withdrawn', words: 'No more, please', by: 'ada@weir.example' },
      { state: 'given' },
    ]);
    expect((await page(link, ONE_CLICK)).status).toBe(200);
    expect(await consents()).toHaveLength(2);
  });

  test.each([
    [[NEWS], 'They never agreed to e-mail.'],
    [[CONFIRMED, NEWS], 'They have not confirmed yet that they agree to e-mail.'],
    [[consent({ state: 'withdrawn' }), NEWS], 'They want no e-mail any more.'],
  ])('is not sent, which is no failure, to who did not agree: %#', async (followUps, why) => {
    await publish(...followUps);
    await enquire();
    const lines = await ended(followUps.includes(CONFIRMED) ? 2 : 1);
    expect(lines).toContainEqual(expect.objectContaining({ state: 'cancelled', lastError: why }));
    expect((await outside.received()).map(({ subject }) => subject)).not.toContain('News');
    expect((await workspace.get<{ items: unknown[] }>('/decisions')).items).toEqual([]);
  });

  test('asks at the last moment: who said no while it waited gets none', async () => {
    await publish(consent(), NEWS);
    await outside.behave({ status: 451, times: 1 });
    await enquire();
    await until(
      async () => (await workspace.get<Page<OutboxLine>>('/outbox')).items,
      ([line]) => line?.lastError !== null && line?.lastError !== undefined,
    );
    await noteDown('withdrawn');
    await workspace.query(`update outbox set due_at = now()`);
    expect(await ended(1)).toMatchObject([{ state: 'cancelled', lastError: 'They want no e-mail any more.' }]);
    expect(await outside.received()).toEqual([]);
  });
});
