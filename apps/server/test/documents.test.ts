import { describe, expect, test } from '@jest/globals';
import type { OutboxLine, Page, ProblemBody, RecordShape, RecordSheet, RunShape, SubmissionDetail } from '@haycart/api';
import type { FollowUp, LibraryFile } from '@haycart/core';
import { PdfWriter } from '../src/platform/pdf/pdf-writer.service';
import { serverSetting, startMailStandIn, type MailStandIn } from './support/mail-stand-in';
import { eachWithStandIn } from './support/stand-in';
import { eachInWorkspace, type TestServer, type TestWorkspace, until } from './support/test-server';
import { answer, contactRoute } from './support/routes';

let server: TestServer;
let workspace: TestWorkspace;
let person: TestWorkspace['call'];
let outside: MailStandIn;

eachWithStandIn(startMailStandIn, (made) => (outside = made));
eachInWorkspace(async (made) => {
  ({ server, workspace } = made);
  person = await workspace.signIn();
  await person('PUT', '/mail-server', serverSetting(outside));
  await person('POST', '/mail-templates', { name: 'Thanks', subject: 'Thanks', text: 'Thanks.' });
});

const DOCUMENT = { do: 'document', on: 'person', title: answer('subject') };
const mail = (attach: object) => ({ do: 'mail', to: 'visitor', template: 'thanks', attach });

const following = (...followUps: FollowUp[]) => contactRoute(workspace.endpoint, { followUps });
const enquire = async (more: object = {}) => {
  const id = await workspace.submit({ name: 'Weir', email: 'ada@weir.example', subject: 'Roof', ...more });
  return until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state }) => state !== 'waiting',
  );
};
const sheet = async () => {
  const [contact] = (await workspace.get<Page<RecordShape>>('/contacts?email=ada@weir.example')).items;
  return workspace.get<RecordSheet>(`/contacts/${contact!.id}/sheet`);
};
const ended = () =>
  until(
    async () => (await workspace.get<Page<OutboxLine>>('/outbox')).items,
    (lines) => lines.length > 0 && lines.every(({ state }) => state !== 'waiting'),
  );
const bytesAt = async (path: string) => {
  const response = await fetch(`${server.base}/api/v1${path}`, {
    headers: { authorization: `Bearer ${workspace.token}` },
  });
  return { response, bytes: Buffer.from(await response.arrayBuffer()) };
};
const isPdf = (bytes: Buffer) => bytes.subarray(0, 5).toString() === '%PDF-' && bytes.includes('%%EOF');

describe('a document', () => {
  test('is kept with the record as a PDF, said by the account, and goes when its run is taken back', async () => {
    await workspace.publish(following(DOCUMENT));
    const { runs } = await enquire({ message: 'Привет, 你好, ğüş\n'.repeat(20) });
    const { record, files } = await sheet();
    expect(files).toMatchObject([{ name: 'Roof.pdf', type: 'application/pdf', by: 'the route Enquiries' }]);
    const { response, bytes } = await bytesAt(`/contacts/${record.id}/files/${files[0]!.id}`);
    expect(response.headers.get('content-type')).toBe('application/pdf');
    expect(response.headers.get('content-disposition')).toMatch(/^attachment/);
    expect(isPdf(bytes)).toBe(true);
    // The same again: what it says does not hang on when it is asked for.
    expect((await bytesAt(`/contacts/${record.id}/files/${files[0]!.id}`)).bytes.equals(bytes)).toBe(true);
    const run = await workspace.get<RunShape>(`/runs/${runs[0]!.id}`);
    expect(run.account).toContainEqual(
      expect.objectContaining({ step: 'made', text: 'Made a document “Roof” on the contact' }),
    );
    expect(JSON.stringify(run.plan)).not.toContain('Привет');
    const choice = { runs: [runs[0]!.id] };
    expect((await person('POST', '/runs/take-back/rehearse', choice)).body).toMatchObject({ documents: 1 });
    expect((await person('POST', '/runs/take-back', choice)).status).toBe(200);
    expect((await workspace.query('select 1 from record_file')).length).toBe(0);
    // The contact, which is there by that run alone, goes too.
    expect((await workspace.get<Page<RecordShape>>('/contacts?email=ada@weir.example')).items).toEqual([]);
  });

  test('of hostile answers and of many pages is drawn all the same', async () => {
    const pdfs = server.app.get(PdfWriter);
    const rows = [
      { label: 'x'.repeat(5_000), text: '\u202e‮<script>\u0000\ud800 '.repeat(50) },
      { text: 'w'.repeat(20_000) },
      ...Array.from({ length: 300 }, (_, n) => ({ label: `Question ${n}`, text: 'An answer\n'.repeat(n % 7) })),
    ];
    const bytes = await pdfs.write({ title: 'T'.repeat(2_000), rows }, new Date(0));
    expect(isPdf(bytes)).toBe(true);
    expect(bytes.toString('latin1').match(/\/Type \/Page\b/g)!.length).toBeGreaterThan(5);
    expect(isPdf(await pdfs.write({ title: '', rows: [] }, new Date(0)))).toBe(true);
  });

  test('is drawn in the letters of East Asia too', async () => {
    const pdfs = server.app.get(PdfWriter);
    const drawn = async (title: string, text: string) =>
      (await pdfs.write({ title, rows: [{ label: '姓名 Name', text }, { text }] }, new Date(0))).toString('latin1');
    // The font goes in as a part that has just these letters, and only where there are any.
    for (const text of ['我们需要一个温室', '温室のガラス', '온실 유리', 'Mr 王, Ms 김', '王', '王 Wang'])
      expect([text, (await drawn('Glass', text)).match(/\/FontName \/[A-Z]{6}\+WenQuanYi/g)?.length]).toEqual([
        text,
        1,
      ]);
    const plain = await pdfs.write({ title: 'Glass', rows: [{ text: 'Стекло, γυαλί, زجاج' }] }, new Date(0));
    expect(plain.toString('latin1')).not.toContain('WenQuanYi');
  });

  test('goes with a mail, beside a file of the workspace and what the visitor sent', async () => {
    const added = await workspace.attach<LibraryFile>('/mail-files', 'Prices.pdf', 'the prices');
    expect(added).toMatchObject({ status: 201, body: { name: 'Prices.pdf', size: 10 } });
    const { key } = added.body;
    await workspace.publish(following(DOCUMENT, mail({ documents: true, uploads: true, files: [key] })));
    const form = new FormData();
    for (const [name, value] of Object.entries({ name: 'Weir', email: 'ada@weir.example', subject: 'Roof' }))
      form.append(name, value);
    form.append('plan', new Blob(['a drawing'], { type: 'text/plain' }), 'plan.txt');
    expect((await fetch(`${server.base}/in/${workspace.endpoint}`, { method: 'POST', body: form })).status).toBe(202);
    expect(await ended()).toMatchObject([{ state: 'done' }]);
    const [came] = (await outside.received()) as unknown as {
      attachments: { filename: string; contentType: string; size: number }[];
    }[];
    expect(came!.attachments).toMatchObject(
      expect.arrayContaining(
        [
          { filename: 'plan.txt', contentType: 'text/plain', size: 9 },
          { filename: 'Prices.pdf', size: 10 },
          { filename: 'Roof.pdf', contentType: 'application/pdf' },
        ].map((one) => expect.objectContaining(one)),
      ),
    );
  });
});

describe('a file for mails', () => {
  test('is replaced under its key, given back as it came, and once removed the mails that name it say so', async () => {
    const { body: file } = await workspace.attach<LibraryFile>('/mail-files', 'Prices.txt', 'old');
    await workspace.publish(following(mail({ files: [file.key] })));
    const replaced = await workspace.attach(`/mail-files/${file.key}`, 'Prices 2.txt', 'the new ones', 'PUT');
    expect(replaced.body).toEqual({ key: file.key, name: 'Prices 2.txt', size: 12 });
    expect((await bytesAt(`/mail-files/${file.key}`)).bytes.toString()).toBe('the new ones');
    expect(await workspace.get<LibraryFile[]>('/mail-files')).toHaveLength(1);
    expect((await person('DELETE', `/mail-files/${file.key}`)).status).toBe(204);
    await enquire();
    expect(await ended()).toMatchObject([
      { state: 'given-up', lastError: `There is no file “${file.key}” any more that it could have attached.` },
    ]);
    expect((await person<ProblemBody>('DELETE', `/mail-files/${file.key}`)).status).toBe(404);
    expect((await bytesAt(`/mail-files/${file.key}`)).response.status).toBe(404);
  });

  test('of more than may be is refused, and so is a mail with more than it takes', async () => {
    const large = await workspace.attach<ProblemBody>('/mail-files', 'large.bin', 'x'.repeat(10 * 1_048_576 + 1));
    expect(large.status).toBe(413);
    const half = 'x'.repeat(8 * 1_048_576);
    const files: string[] = [];
    for (const name of ['a.bin', 'b.bin'])
      files.push((await workspace.attach<LibraryFile>('/mail-files', name, half)).body.key);
    await workspace.publish(following(mail({ files })));
    await enquire();
    expect(await ended()).toMatchObject([
      { state: 'given-up', lastError: 'More is attached than a mail takes: 15 MB in all.' },
    ]);
    expect(await outside.received()).toEqual([]);
  });
});
