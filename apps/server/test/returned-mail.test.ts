import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { OutboxLine, Page, ProblemBody, RecordSheet, RecordShape } from '@haycart/api';
import { createTransport } from 'nodemailer';
import { freePort } from './support/server-process';
import { type MailStandIn, serverSetting, startMailStandIn } from './support/mail-stand-in';
import { newDatabase, TestServer, TestWorkspace, until } from './support/test-server';
import { contactRoute } from './support/routes';

let server: TestServer;
let workspace: TestWorkspace;
let person: TestWorkspace['call'];
let outside: MailStandIn;
let returnPort: number;

beforeAll(async () => {
  returnPort = await freePort();
  outside = await startMailStandIn();
  server = await TestServer.start(await newDatabase(), { returnPort });
});
afterAll(async () => {
  outside.stop();
  await server.stop();
});
beforeEach(async () => {
  await outside.forget();
  workspace = await TestWorkspace.make(server);
  person = await workspace.signIn();
  await person('PUT', '/mail-server', serverSetting(outside, { returnDomain: 'returns.weir.example' }));
  await person('POST', '/mail-templates', { name: 'Thanks', subject: 'Thanks', text: 'Thanks.' });
  await workspace.publish(
    contactRoute(workspace.endpoint, { followUps: [{ do: 'mail', to: 'visitor', template: 'thanks' }] }),
  );
});

const outbox = async () => (await workspace.get<Page<OutboxLine>>('/outbox')).items;
/** A mail that was sent, by where it comes back to. */
async function sent(): Promise<string> {
  await workspace.submit({ name: 'Ada Weir', email: 'ada@lock.example' });
  await until(outbox, ([line]) => line?.state === 'done');
  return (await outside.received())[0]!.returnsTo;
}
/** Hands a mail to where mails come back to; the code of the answer. */
async function handIn(to: string, raw: string): Promise<number> {
  const transport = createTransport({ host: '127.0.0.1', port: returnPort, ignoreTLS: true });
  try {
    await transport.sendMail({ envelope: { from: '', to: [to] }, raw });
    return 250;
  } catch (cause) {
    return (cause as { responseCode: number }).responseCode;
  } finally {
    transport.close();
  }
}
const report = (status: string, more = '') =>
  [
    'From: MAILER-DAEMON@mx.lock.example',
    'Subject: Undelivered Mail Returned to Sender',
    'MIME-Version: 1.0',
    'Content-Type: multipart/report; report-type=delivery-status;',
    '\tboundary="=_1=="',
    '',
    '--=_1==',
    'Content-Type: text/plain; charset=utf-8',
    '',
    'Action: failed, says the text, which is for people.',
    more,
    '--=_1==',
    'Content-Type: message/delivery-status',
    '',
    status,
    '',
    '--=_1==',
    'Content-Type: message/rfc822',
    '',
    'Subject: Thanks',
    '',
    'Thanks.',
    '--=_1==--',
    '',
  ].join('\r\n');
const FAILED = [
  'Reporting-MTA: dns; mx.lock.example',
  '',
  'Final-Recipient: rfc822; ada@lock.example',
  'Action: failed',
  'Status: 5.1.1',
  'Diagnostic-Code: smtp; 550 5.1.1 No such user here',
].join('\r\n');

describe('a mail that comes back', () => {
  test('stands with its reason in the outbox and on the record, and is sent again when somebody asks', async () => {
    const to = await sent();
    expect(to).toMatch(/^r-[0-9a-f]{32}-[0-9a-f]{16}@returns\.weir\.example$/);
    expect(await handIn(to.toUpperCase(), report(FAILED))).toBe(250);
    const [line] = await outbox();
    const why = '550 5.1.1 No such user here';
    expect(line).toMatchObject({ state: 'returned', doneAt: null, lastError: why });
    const [contact] = (await workspace.get<Page<RecordShape>>('/contacts')).items;
    expect((await workspace.get<RecordSheet>(`/contacts/${contact!.id}/sheet`)).sent).toMatchObject([
      { kind: 'mail', state: 'returned', why },
    ]);
    expect((await workspace.get<Page<OutboxLine>>('/outbox?state=returned')).items).toHaveLength(1);
    expect((await person('POST', `/outbox/${line!.id}/retry`)).status).toBe(200);
    expect(await until(outbox, ([one]) => one?.state === 'done')).toMatchObject([{ lastError: null }]);
    // A report of the first comes once more, late: it is about the same mail.
    await handIn(to, report(FAILED));
    expect(await outbox()).toMatchObject([{ state: 'returned' }]);
  });

  test.each([
    ['of a delay', report(FAILED.replace('failed', 'delayed'))],
    ['of success', report(FAILED.replace('failed', 'delivered'))],
    ['without a status', report('')],
    ['that is an absence note', 'Subject: Away\r\nAuto-Submitted: auto-replied\r\n\r\nAction: failed\r\n'],
    ['that is nothing', ''],
    ['that is nonsense', `Content-Type: multipart/report; boundary=\r\n\r\n--\r\n${'\0é--\r\n'.repeat(500)}`],
    ['whose parts lie a hundred deep', `${'Content-Type: multipart/mixed; boundary=a\r\n\r\n--a\r\n'.repeat(100)}`],
  ])('changes nothing by a report %s', async (_, raw) => {
    expect(await handIn(await sent(), raw)).toBe(250);
    expect(await outbox()).toMatchObject([{ state: 'done', lastError: null }]);
  });

  test('is taken for mails alone that were sent, and up to a length', async () => {
    const to = await sent();
    const forged = to.replace(/-[0-9a-f]{16}@/, `-${'0'.repeat(16)}@`);
    for (const other of [forged, 'ada@returns.weir.example', `r-@returns.weir.example`])
      expect([other, await handIn(other, report(FAILED))]).toEqual([other, 550]);
    expect(await handIn(to, report(FAILED, 'x'.repeat(76).concat('\r\n').repeat(20_000)))).toBe(552);
    expect(await outbox()).toMatchObject([{ state: 'done' }]);
  });

  test('is asked to come again while the mail is on its way', async () => {
    const to = await sent();
    await workspace.query(`update outbox set state = 'waiting', due_at = now() + interval '1 hour' returning id`);
    expect(await handIn(to, report(FAILED))).toBe(451);
    await workspace.query(`update outbox set state = 'done' returning id`);
    expect(await handIn(to, report(FAILED))).toBe(250);
    expect(await outbox()).toMatchObject([{ state: 'returned' }]);
  });

  test('goes to the sender where no domain is set; and one that is none is refused', async () => {
    const set = (returnDomain: string | null) =>
      person<ProblemBody>('PUT', '/mail-server', serverSetting(outside, { returnDomain }));
    for (const no of ['weir', 'a b.example', '127.0.0.1', 'weir.example>', 'co.uk'])
      expect([no, await set(no)]).toMatchObject([no, { status: 422, body: { errors: [{ at: '/returnDomain' }] } }]);
    await set(null);
    expect(await sent()).toBe('hello@weir.example');
  });
});
