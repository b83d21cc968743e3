import { describe, expect, jest, test } from '@jest/globals';
import type { ProblemBody, SubmissionShape } from '@haycart/api';
import { parse } from 'csv-parse/sync';
import excel from 'exceljs';
import { SubmissionsService } from '../src/submissions/submissions.service';
import { eachInWorkspace, type TestServer, type TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

eachInWorkspace((made) => {
  ({ server, workspace } = made);
  return Promise.resolve();
});

const file = (query: string) =>
  fetch(`${server.base}/api/v1/submissions/export?${query}`, {
    headers: { authorization: `Bearer ${workspace.token}` },
  });
const table = async (query: string) => parse(await (await file(query)).text(), { bom: true }) as string[][];

describe('submissions are taken away', () => {
  test('of one intake with a column for each field that it ever sent, latest first', async () => {
    await workspace.publish();
    await workspace.submit({ name: 'Maren Oduya', email: 'maren@fennwick.example', interests: ['beans', 'peas'] });
    await workspace.submit({ name: '=SUM(A1)', email: 'ada@weir.example', visit: { bays: 6 } });
    await workspace.handled();
    const response = await file(`format=csv&intake=${workspace.endpoint}`);
    expect(response.headers.get('content-disposition')).toBe('attachment; filename="submissions.csv"');
    const [heads, latest, first, ...more] = await table(`format=csv&intake=${workspace.endpoint}`);
    expect(more).toEqual([]);
    const of = (row: string[]) => Object.fromEntries(heads!.map((head, index) => [head, row[index]]));
    expect(of(first!)).toMatchObject({ Who: 'Maren Oduya', Outcome: 'written', name: 'Maren Oduya' });
    expect(of(first!)).toMatchObject({ interests: 'beans; peas' });
    expect(heads).not.toContain('interests[0]');
    expect(of(latest!)).toMatchObject({ name: "'=SUM(A1)", 'visit.bays': '6' });
  });

  test('of several intakes with their answers as they came', async () => {
    await workspace.submit({ name: 'Maren', deep: { er: [1, { x: 'ü' }] } });
    const [heads, row] = await table('format=csv');
    expect(heads!.at(-1)).toBe('Answers');
    expect(JSON.parse(row!.at(-1)!)).toEqual({ name: 'Maren', deep: { er: [1, { x: 'ü' }] } });
  });

  test('as a workbook, where a text longer than a cell says that it is cut, and as JSON Lines whole', async () => {
    const text = 'long '.repeat(8_000);
    await workspace.submit({ name: 'Maren', text });
    const workbook = new excel.Workbook();
    await workbook.xlsx.load(await (await file(`format=xlsx&intake=${workspace.endpoint}`)).arrayBuffer());
    const sheet = workbook.worksheets[0]!;
    const column = (sheet.getRow(1).values as string[]).indexOf('text');
    const cell = String(sheet.getRow(2).getCell(column).value);
    expect(cell.length).toBe(32_767);
    expect(cell).toMatch(/^long long .*CSV and JSON Lines have all of it\)$/);
    const line = JSON.parse(await (await file('format=jsonl')).text()) as SubmissionShape;
    expect(line.payload).toEqual({ name: 'Maren', text });
  });

  test('or not at all: what fails on the way answers with a problem, not with half a file', async () => {
    await workspace.submit({ name: 'Maren' });
    const service = server.app.get(SubmissionsService);
    const whole = service.portions.bind(service);
    const failing = jest.spyOn(service, 'portions').mockImplementation(async function* (...asked) {
      yield* whole(...asked);
      throw new Error('The disk is full.');
    });
    const response = await file('format=csv');
    failing.mockRestore();
    expect(response.status).toBe(500);
    expect(((await response.json()) as ProblemBody).title).toBeTruthy();
    expect((await file('format=csv')).headers.get('content-length')).toMatch(/^\d+$/);
  });

  test('from its beginning on while the rest is still read, and broken off where that fails', async () => {
    await workspace.submit({ name: 'Maren' });
    const service = server.app.get(SubmissionsService);
    const whole = service.portions.bind(service);
    let fail!: () => void;
    const failed = new Promise<void>((resolve) => (fail = resolve));
    const failing = jest.spyOn(service, 'portions').mockImplementation(async function* (...asked) {
      for await (const rows of whole(...asked)) yield Array.from({ length: 5_000 }, () => rows).flat();
      await failed;
      throw new Error('The disk is full.');
    });
    const response = await file('format=jsonl');
    failing.mockRestore();
    expect([response.status, response.headers.get('content-length')]).toEqual([200, null]);
    const rest = response.text();
    fail();
    await expect(rest).rejects.toThrow();
  });

  test('as many as there are, in portions, and only those that the list shows', async () => {
    const people = Array.from({ length: 2_500 }, (_, n) => ({ name: `Person ${n}`, email: `p${n}@weir.example` }));
    for (let begin = 0; begin < people.length; begin += 500)
      await server.postJson(`/in/${workspace.endpoint}`, people.slice(begin, begin + 500));
    const ids = (await table('format=csv')).slice(1).map(([id]) => id);
    expect(new Set(ids).size).toBe(2_500);
    expect(await table('format=csv&outcome=failed')).toHaveLength(1);
  });

  test('but in no other format, and of no intake that there is not', async () => {
    const refused = await file('format=vcf');
    expect([refused.status, ((await refused.json()) as ProblemBody).detail]).toEqual([422, expect.any(String)]);
    expect((await file('format=csv&intake=nowhere')).status).toBe(404);
  });
});
