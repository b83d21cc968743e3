import { readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@jest/globals';
import type {
  IntakeLine,
  Page,
  ProblemBody,
  RecordShape,
  RecordSheet,
  SubmissionDetail,
  SubmissionShape,
} from '@haycart/api';
import { LIMITS, type FormDefinition } from '@haycart/core';
import { FormsService } from '../src/forms/forms.service';
import { routeFrom } from './support/routes';
import { eachInWorkspace, TestServer, TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

eachInWorkspace((made) => ({ server, workspace } = made));

const PDF = '%PDF-1.7 a plan';
const FORM: FormDefinition = {
  format: 'haycart.form/1',
  title: 'Send us your plan',
  language: 'en',
  button: 'Send',
  after: { do: 'thank', title: 'Thank you', text: 'We have it.' },
  items: [
    { name: 'name', type: 'text', label: 'Name' },
    { name: 'has', type: 'yes-no', label: 'Is there a plan?' },
    { name: 'plan', type: 'file', label: 'Plan', checks: { fileTypes: ['pdf'], largest: 1_000 } },
    {
      name: 'sketch',
      type: 'file',
      label: 'Sketch',
      shownWhen: { of: { question: 'has' }, test: 'yes' },
    },
  ],
};

async function formKey(): Promise<string> {
  const forms = server.app.get(FormsService);
  return server.database.inWorkspace(workspace.id, async (tx) => {
    const { key } = await forms.add(tx, `Plans ${workspace.key}`, FORM, { slug: `plans-${workspace.key}` });
    await forms.publish(tx, key, 'Robin Nye', {});
    return key;
  });
}

async function send(key: string, parts: Record<string, string | [name: string, bytes: string]>) {
  const form = new FormData();
  for (const [name, part] of Object.entries(parts))
    if (typeof part === 'string') form.append(name, part);
    else form.append(name, new Blob([Buffer.from(part[1], 'latin1')]), part[0]);
  const response = await server.post(`/in/${key}`, form);
  return { status: response.status, body: (await response.json()) as ProblemBody };
}
const taken = ({ token }: TestWorkspace, path: string) =>
  fetch(`${server.base}/api/v1${path}`, { headers: { authorization: `Bearer ${token}` } });
const kept = () => workspace.query<{ name: string }>('select name from submission_file order by name');

test.each([
  ['where the form asks for no file', { name: ['cv.pdf', PDF] }, '/name'],
  ['in a part that the form does not know', { other: ['cv.pdf', PDF] }, '/other'],
  ['of another type', { plan: ['plan.docx', 'PK'] }, '/plan'],
  ['that is not what its name says', { plan: ['plan.pdf', 'MZ\u0090'] }, '/plan'],
  ['that is larger than is asked for', { plan: ['plan.pdf', PDF.padEnd(2_000)] }, '/plan'],
] as [string, Record<string, [string, string]>, string][])('a file %s is refused, and named', async (_, parts, at) => {
  const { status, body } = await send(await formKey(), parts);
  expect([status, body.errors?.map((one) => one.at)]).toEqual([422, [at]]);
  expect([await kept(), await workspace.query('select id from submission')]).toEqual([[], []]);
});

test('a file that answers is kept, and one to a question that was not shown is not', async () => {
  const { status } = await send(await formKey(), {
    name: 'Ada',
    has: 'no',
    plan: ['plan.pdf', PDF],
    sketch: ['s.png', '\u0089PNG'],
  });
  expect([status, await kept()]).toEqual([202, [{ name: 'plan.pdf' }]]);
  const left = readdirSync(tmpdir()).filter((name) => name.startsWith(`haycart-files-${process.pid}-`));
  expect(left.flatMap((folder) => readdirSync(join(tmpdir(), folder)))).toEqual([]);
});

test('an endpoint takes files of any kind, but no program under another name', async () => {
  expect((await send(workspace.endpoint, { photo: ['site.webp', 'RIFF'] })).status).toBe(202);
  const { status, body } = await send(workspace.endpoint, { cv: ['cv.pdf', 'MZ\u0090'] });
  expect([status, body.errors?.[0]?.at]).toEqual([422, '/cv']);
});

test('a quota warns before it, and then takes submissions without files alone', async () => {
  expect((await send(workspace.endpoint, { name: 'Ada', plan: ['plan.pdf', PDF] })).status).toBe(202);
  const use = (share: number) =>
    workspace.query(`update file_usage set bytes = ${Math.round(LIMITS.intakeFiles.most * share)}`);
  const taken = async () =>
    (await workspace.get<IntakeLine[]>('/intake-lines')).find(({ key }) => key === workspace.endpoint)!.filesTaken;
  await use(0.85);
  expect(await taken()).toBeCloseTo(0.85);
  await use(1);
  const { status, body } = await send(workspace.endpoint, { name: 'Bo', plan: ['plan.pdf', PDF] });
  expect([status, body.code, body.errors?.[0]?.at]).toEqual([422, 'files-full', '/plan']);
  expect((await send(workspace.endpoint, { name: 'Bo' })).status).toBe(202);
});

test('a file opens from its submission, and from the contact and the deal that it wrote', async () => {
  const route = await workspace.publish(routeFrom(workspace.endpoint));
  const { status } = await send(workspace.endpoint, {
    email: 'ada@weir.example',
    name: 'Ada',
    company: 'Weir',
    plan: ['plan für Ada.pdf', PDF],
  });
  expect(status).toBe(202);
  const { items } = await until(
    () => workspace.get<Page<SubmissionShape>>(`/submissions?route=${route}&outcome=written`),
    ({ items: arrived }) => arrived.length === 1,
  );
  const { id, files } = await workspace.get<SubmissionDetail>(`/submissions/${items[0]!.id}`);
  expect(files).toMatchObject([{ name: 'plan für Ada.pdf', size: PDF.length }]);
  const opened = await taken(workspace, `/submissions/${id}/files/${files[0]!.id}`);
  expect([opened.status, await opened.text()]).toEqual([200, PDF]);
  expect(opened.headers.get('content-disposition')).toContain('attachment');
  for (const kind of ['contacts', 'deals'] as const) {
    const [record] = (await workspace.get<Page<RecordShape>>(`/${kind}`)).items;
    const sheet = await workspace.get<RecordSheet>(`/${kind}/${record!.id}/sheet`);
    expect(sheet.files).toMatchObject([{ name: 'plan für Ada.pdf', submission: id }]);
  }
  const other = await TestWorkspace.make(server);
  expect((await taken(other, `/submissions/${id}/files/${files[0]!.id}`)).status).toBe(404);
  expect((await taken(workspace, `/submissions/${id}/files/${id}`)).status).toBe(404);
});
