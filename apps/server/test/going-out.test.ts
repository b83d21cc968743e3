import { afterEach, expect, test } from '@jest/globals';
import { SubmissionInbox } from '../src/submissions/inbox/submission-inbox.service';
import { startMailStandIn } from './support/mail-stand-in';
import { freePort, killProcesses, startProcess } from './support/server-process';
import { newDatabase, TestServer, TestWorkspace, until } from './support/test-server';
import { contactRoute } from './support/routes';

const MAILS = 500;

afterEach(() => killProcesses());

const writing = (endpoint: string) =>
  contactRoute(endpoint, { followUps: [{ do: 'mail', to: 'visitor', template: 'thanks' }] });

test('kill -9 while 500 mails go out loses none, and each that comes twice has one Message-ID', async () => {
  const databaseUrl = await newDatabase();
  const outside = await startMailStandIn();
  // This one is asked alone: the processes that are killed route and send.
  const web = await TestServer.start(databaseUrl, { role: 'web', background: false });
  try {
    const workspace = await TestWorkspace.make(web);
    const person = await workspace.signIn();
    await person('PUT', '/mail-server', {
      host: '127.0.0.1',
      port: outside.port,
      security: 'none',
      fromName: 'Weir Gardens',
      fromAddress: 'hello@weir.example',
    });
    await person('POST', '/mail-templates', { name: 'Thanks', subject: 'Thanks', text: 'Thanks, {{ answers.name }}.' });
    await workspace.publish(writing(workspace.endpoint));
    const [intake] = await workspace.query<{ id: string }>(`select id from intake where key = '${workspace.endpoint}'`);
    await web.app.get(SubmissionInbox).keepAll(
      Array.from({ length: MAILS }, (_, n) => ({
        workspaceId: workspace.id,
        intakeId: intake!.id,
        receivedAt: new Date(),
        format: 'json' as const,
        body: Buffer.from(JSON.stringify({ name: `Weir ${n}`, email: `v${n}@weir.example` })),
        visit: {},
      })),
    );
    const env = { HAYCART_PRIVATE_TARGETS: '127.0.0.1' };
    const waiting = async () => {
      const [row] = await workspace.query<{ done: number; left: number }>(
        `select count(*) filter (where state = 'done')::int as done, count(*) filter (where state <> 'done')::int as left from outbox`,
      );
      return row!;
    };
    // Killed three times in the middle of it, each time further on.
    for (const sent of [50, 150, 300]) {
      const child = await startProcess(databaseUrl, await freePort(), env);
      await until(waiting, ({ done }) => done >= sent);
      child.kill('SIGKILL');
      // What it had begun is taken for lost after a time, which is over.
      await workspace.query(`update outbox set due_at = now() where state = 'waiting'`);
    }
    await startProcess(databaseUrl, await freePort(), env);
    await until(waiting, ({ done, left }) => done === MAILS && left === 0);
    const came = await outside.received();
    const addresses = new Map(came.map(({ messageId, to }) => [messageId, to[0]]));
    expect(addresses.size).toBe(MAILS);
    expect(new Set(addresses.values()).size).toBe(MAILS);
    // A mail that came again is the same to whoever knows it by its Message-ID.
    for (const { messageId, to } of came) expect(addresses.get(messageId)).toBe(to[0]);
  } finally {
    outside.stop();
    await web.stop();
  }
}, 180_000);
