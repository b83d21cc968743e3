import { describe, expect, test } from '@jest/globals';
import type {
  DecisionList,
  HistoryEntry,
  IntakeShape,
  Page,
  ProblemBody,
  RecordShape,
  SheetLook,
  SheetShape,
  SheetTakeBackRehearsal,
  SubmissionDetail,
  SubmissionShape,
  TouchShape,
} from '@haycart/api';
import excel from 'exceljs';
import { SheetsService } from '../src/sheets/sheets.service';
import { SubmissionInbox } from '../src/submissions/inbox/submission-inbox.service';
import { SubmissionQueue } from '../src/submissions/submission-queue';
import { SheetReading } from '../src/sheets/sheet-reading.service';
import { routeFrom } from './support/routes';
import { eachInWorkspace, newDatabase, TestServer, TestWorkspace, until } from './support/test-server';
import { workbookOf } from './support/zip';

/** Entities that unfold to billions of letters, if somebody unfolds them. */
const ENTITIES = `<!DOCTYPE w [${Array.from({ length: 12 }, (_, n) => `<!ENTITY e${n + 1} "${`&e${n};`.repeat(10)}">`).join('')}]><worksheet><sheetData><row><c t="str"><v>&e12;</v></c></row></sheetData></worksheet>`;

let server: TestServer;
let workspace: TestWorkspace;

eachInWorkspace((made) => ({ server, workspace } = made));

type Brought = { intake: IntakeShape; file: string } & ProblemBody;

const bring = (name: string, content: string | Uint8Array, query = '', headers: Record<string, string> = {}) =>
  sendFile<Brought>('', name, content, query, headers);

async function sendFile<Body>(
  path: string,
  name: string,
  content: string | Uint8Array,
  query = '',
  headers: Record<string, string> = {},
): Promise<{ status: number; body: Body }> {
  const form = new FormData();
  form.append('file', new Blob([content as BlobPart]), name);
  const response = await fetch(`${server.base}/api/v1/sheets${path}${query}`, {
    method: 'POST',
    headers: { authorization: `Bearer ${workspace.token}`, ...headers },
    body: form,
  });
  return { status: response.status, body: (await response.json()) as Body };
}
const sheet = (key: string) => workspace.get<SheetShape>(`/sheets/${key}`);
const read = (key: string) =>
  until(
    () => sheet(key),
    ({ files }) => files.every(({ state }) => state !== 'reading'),
  );
async function broughtIn(name: string, content: string | Uint8Array): Promise<{ key: string; told: SheetShape }> {
  const { status, body } = await bring(name, content);
  expect(status).toBe(201);
  return { key: body.intake.key, told: await read(body.intake.key) };
}
const payloads = async (key: string) =>
  (await workspace.get<Page<SubmissionShape>>(`/submissions?intake=${key}&limit=100`)).items.map(
    ({ payload }) => payload,
  );
const contacts = async () =>
  (await workspace.get<Page<RecordShape>>('/contacts?limit=100')).items.map(({ values }) => values.full_name).sort();
const refused = async (key: string) =>
  (
    await fetch(`${server.base}/api/v1/sheets/${key}/refused.csv`, {
      headers: { authorization: `Bearer ${workspace.token}` },
    })
  ).text();

describe('a file', () => {
  test('of delimited values becomes submissions, with a byte order mark, semicolons and old line ends', async () => {
    const { key, told } = await broughtIn('people.csv', '\ufeffname;email\rAda;ada@weir.example\rBo;bo@weir.example\r');
    expect(told).toMatchObject({
      rows: 2,
      refused: 0,
      files: [
        { name: 'people.csv', state: 'read', columns: ['name', 'email'], delimiter: ';', encoding: 'utf-8', kept: 2 },
      ],
    });
    expect(await payloads(key)).toContainEqual({ name: 'Ada', email: 'ada@weir.example' });
    expect((await workspace.get<IntakeShape>(`/intakes/${key}`)).kind).toBe('sheet');
  });

  test('with rows that cannot be read tells them one by one', async () => {
    const { key, told } = await broughtIn(
      'people.csv',
      'name,email\nAda,ada@weir.example\n"Bo,bo@weir.example\nCleo,c@weir.example,more',
    );
    expect(told).toMatchObject({ rows: 1, refused: 2, files: [{ kept: 1, refused: 2 }] });
    const text = await refused(key);
    expect(text).toContain('A quote begins in this row and is never closed.');
    expect(text).toContain('people.csv, row 4');
  });

  test('is a workbook, a list of cards, or JSON Lines', async () => {
    const book = new excel.Workbook();
    const page = book.addWorksheet('People');
    page.addRows([
      ['name', 'email', 'since', 'owed'],
      ['Ada', 'ada@weir.example', new Date('2026-03-01'), { error: '#N/A' }],
    ]);
    const workbook = await broughtIn('people.xlsx', new Uint8Array(await book.xlsx.writeBuffer()));
    expect(await payloads(workbook.key)).toEqual([{ name: 'Ada', email: 'ada@weir.example', since: '2026-03-01' }]);
    const cards = await broughtIn('people.vcf', 'BEGIN:VCARD\nFN:Bo Vos\nEMAIL:bo@weir.example\nEND:VCARD');
    expect(await payloads(cards.key)).toEqual([{ full_name: 'Bo Vos', email: 'bo@weir.example' }]);
    const lines = await broughtIn('people.jsonl', '{"name":"Cleo"}\nnone\n');
    expect(lines.told).toMatchObject({ rows: 1, refused: 1 });
  });

  test.each([
    ['nothing.csv', '', 'There is nothing in the file.'],
    ['header.csv', 'name,email\n', 'There is a header in the file, and no row below it.'],
    ['words.xlsx', 'this is no workbook', 'There is a header in the file, and no row below it.'],
    ['old.xls', new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 1, 2]), 'This is a workbook of an old kind'],
    ['picture.png', new Uint8Array([0x89, 0x50, 0, 0, 0, 0x0d]), 'This is no text and no workbook'],
    ['broken.xlsx', new Uint8Array([0x50, 0x4b, 3, 4, 1, 2, 3]), 'cannot be read as one'],
    ['lying.xlsx', bomb(1_000), 'cannot be read as one'],
    ['entities.xlsx', workbookOf(ENTITIES), 'cannot be read as one'],
    ['bomb.xlsx', bomb(), 'Unpacked, the workbook is larger than'],
    ['wide.csv', Array.from({ length: 6_000 }, (_, n) => `c${n}x`).join(','), 'The file has 6,000 columns'],
  ])('that is %s says why it cannot be read', async (name, content, problem) => {
    const { told } = await broughtIn(name, content);
    expect(told.files[0]!.state).toBe('unreadable');
    expect(told.files[0]!.problem).toContain(problem);
  });

  test('tells which of its worksheets were left, and reads one of them when asked, once', async () => {
    const book = new excel.Workbook();
    book.addWorksheet('Notes');
    book.addWorksheet('People').addRows([['Visitors of 2027'], ['name', 'email'], ['Ada', 'ada@weir.example']]);
    book.addWorksheet('Old list').addRows([['name'], ['Bo']]);
    const { key, told } = await broughtIn('people.xlsx', new Uint8Array(await book.xlsx.writeBuffer()));
    expect(told.files[0]).toMatchObject({ worksheet: 'People', left: ['Old list'], kept: 1, refused: 1 });
    const ask = (name: string) =>
      workspace.call<ProblemBody>('POST', `/sheets/files/${told.files[0]!.id}/worksheets`, { name });
    expect((await ask('Notes')).status).toBe(422);
    expect((await ask('Old list')).status).toBe(204);
    expect((await ask('Old list')).status).toBe(422);
    const { files } = await read(key);
    expect(files.map(({ worksheet, left, kept }) => ({ worksheet, left, kept }))).toEqual([
      { worksheet: 'Old list', left: [], kept: 1 },
      { worksheet: 'People', left: [], kept: 1 },
    ]);
    expect(await payloads(key)).toEqual([{ name: 'Bo' }, { name: 'Ada', email: 'ada@weir.example' }]);
  });

  test('is read on from where it stopped, and no row twice; cancelled, it is read no further', async () => {
    const rows = Array.from({ length: 1_500 }, (_, n) => `Person ${n},p${n}@weir.example`);
    const { key, told } = await broughtIn('many.csv', ['name,email', ...rows].join('\n'));
    expect(told.rows).toBe(1_500);
    const { id } = told.files[0]!;
    // As if the machine had stopped after the first portion.
    await workspace.query(`update sheet_file set state = 'reading', looked = 1000, kept = 1000 where id = '${id}'`);
    await server.app.get(SheetReading).read(workspace.id, id);
    expect((await sheet(key)).files[0]).toMatchObject({ state: 'read', kept: 1_500 });
    await workspace.query(`update sheet_file set state = 'reading', looked = 0 where id = '${id}'`);
    await workspace.call('POST', `/sheets/files/${id}/cancel`);
    await server.app.get(SheetReading).read(workspace.id, id);
    expect((await sheet(key)).files[0]).toMatchObject({ state: 'cancelled', kept: 1_500 });
  });
});

test('people are brought in through a route: duplicates in the file found, failures put right and brought again', async () => {
  const { key } = await broughtIn(
    'people.csv',
    'name,email,phone\nAda Weir,ada@weir.example,07700 900318\nAda Weir,ada@weir.example,\nBo Vos,,\nCleo Moss,cleo@moss.example,',
  );
  const route = routeFrom(key);
  const person = route.writes.find(({ as }) => as === 'person')!;
  const id = await workspace.publish({
    ...route,
    writes: [
      {
        ...person,
        links: [],
        fills: person.fills.map((fill) => (fill.field === 'email' ? { ...fill, ifEmpty: 'fail' } : fill)),
      },
    ],
  });
  expect(
    (
      await workspace.call('POST', `/routes/${id}/catch-up`, {
        since: '2020-01-01T00:00:00Z',
        before: '2100-01-01T00:00:00Z',
      })
    ).status,
  ).toBeLessThan(300);
  await workspace.handled();
  expect(await contacts()).toEqual(['Ada Weir', 'Cleo Moss']);
  expect(await sheet(key)).toMatchObject({ rows: 4, written: 3, failed: 1 });
  // Nobody came by it, so it is no direct visit either.
  const { items } = await workspace.get<Page<RecordShape>>('/contacts?email=cleo@moss.example');
  const touches = await workspace.get<TouchShape[]>(`/contacts/${items[0]!.id}/touches`);
  expect(touches).toMatchObject([{ channel: 'file', source: 'people' }]);

  const text = await refused(key);
  expect(text).toContain('Bo Vos');
  expect(text).toContain('E-mail is needed for the contact');
  const corrected = text.replace('Bo Vos,', 'Bo Vos,bo@vos.example,').replace('name,Why', 'name,email,Why');
  expect((await bring('again.csv', corrected, `?into=${key}`)).status).toBe(201);
  await read(key);
  await workspace.handled();
  expect(await contacts()).toEqual(['Ada Weir', 'Bo Vos', 'Cleo Moss']);
});

test('a file that is sent twice under one key is brought in once', async () => {
  const sent = () => bring('people.csv', 'name\nAda', '', { 'idempotency-key': 'k1' });
  const [one, two] = await Promise.all([sent(), sent()]);
  expect([one.status, two.status]).toEqual([201, 201]);
  expect(two.body.file).toBe(one.body.file);
  expect((await read(one.body.intake.key)).rows).toBe(1);
  expect((await bring('people.csv', 'name\nAda')).body.file).not.toBe(one.body.file);
  expect((await bring('people.csv', 'name\nAda', '', { 'idempotency-key': 'k'.repeat(256) })).status).toBe(422);
});

describe('a file is taken back', () => {
  const person = (key: string) =>
    routeFrom(key)
      .writes.filter(({ as }) => as === 'person')
      .map((write) => ({ ...write, links: [] }));
  const catchUp = (route: string) =>
    workspace.call('POST', `/routes/${route}/catch-up`, {
      since: '2020-01-01T00:00:00Z',
      before: '2100-01-01T00:00:00Z',
    });
  const takeBack = (file: string) => workspace.call<ProblemBody>('POST', `/sheets/files/${file}/take-back`);
  const takenBack = (key: string, name: string) =>
    until(
      async () => (await sheet(key)).files.find((file) => file.name === name)!,
      (file) => file.takenBack?.done === true,
    );

  test('whole, and no other file of its intake; what somebody changed since stays', async () => {
    const { key, told } = await broughtIn('first.csv', 'name,email\nAda Weir,ada@weir.example\nBo Vos,bo@vos.example');
    const route = await workspace.publish({ ...routeFrom(key), writes: person(key) });
    await catchUp(route);
    await workspace.handled();
    await bring('second.csv', 'name,email\nCleo Moss,cleo@moss.example', `?into=${key}`);
    await read(key);
    await workspace.handled();
    expect(await contacts()).toEqual(['Ada Weir', 'Bo Vos', 'Cleo Moss']);
    const { items } = await workspace.get<Page<RecordShape>>('/contacts?email=ada@weir.example');
    const history = await workspace.get<HistoryEntry[]>(`/contacts/${items[0]!.id}/history`);
    expect(history.map(({ cause }) => cause.kind)).toEqual(['import']);
    await workspace.call('POST', `/contacts/${items[0]!.id}/notes`, { text: 'Rang.' });

    const first = told.files[0]!.id;
    const shown = await workspace.call<SheetTakeBackRehearsal>('POST', `/sheets/files/${first}/take-back/rehearse`);
    expect(shown.body).toMatchObject({ runs: 2, of: 2, removed: { contact: 1 }, left: 1 });
    expect((await takeBack(first)).status).toBe(202);
    const { takenBack: done } = await takenBack(key, 'first.csv');
    expect(done).toMatchObject({ runs: 2, of: 2, removed: { contact: 1 }, left: 1 });
    expect(await contacts()).toEqual(['Ada Weir', 'Cleo Moss']);
    expect(await sheet(key)).toMatchObject({ rows: 3, written: 1, takenBack: 2 });
    expect(await takeBack(first)).toMatchObject({ status: 409, body: { code: 'conflict' } });
  });

  test('with what of it waits for a person, which asks no more', async () => {
    const { key, told } = await broughtIn('people.csv', 'name,email\nAda Weir,ada@weir.example');
    const asking = person(key).map((write) => ({ ...write, whenNone: 'ask' as const }));
    await catchUp(await workspace.publish({ ...routeFrom(key), writes: asking }));
    await workspace.handled();
    const waiting = async () => (await workspace.get<DecisionList>('/decisions')).items;
    expect(await waiting()).toHaveLength(1);
    expect((await takeBack(told.files[0]!.id)).status).toBe(202);
    expect((await takenBack(key, 'people.csv')).takenBack).toMatchObject({ runs: 0, of: 0 });
    expect(await waiting()).toEqual([]);
    const { items } = await workspace.get<Page<SubmissionShape>>(`/submissions?intake=${key}`);
    expect(items[0]!.runs).toMatchObject([
      { outcome: 'skipped', summary: 'Its file was taken back before anybody decided.' },
    ]);
  });

  test('with the rows whose turn has not come: they are cancelled, and routed only when somebody says so', async () => {
    const { key, told } = await broughtIn('people.csv', 'name,email\nAda Weir,ada@weir.example');
    await workspace.handled();
    const [row] = await workspace.query<{ id: string }>(
      `update submission set state = 'waiting', due_at = now() + interval '1 hour' where origin ->> 'sheet' = 'people' returning id`,
    );
    expect((await takeBack(told.files[0]!.id)).status).toBe(202);
    const one = () => workspace.get<SubmissionDetail>(`/submissions/${row!.id}`);
    expect(await until(one, ({ state }) => state !== 'waiting')).toMatchObject({ state: 'cancelled', runs: [] });
    expect(await workspace.get('/submission-outcomes')).toEqual({ cancelled: 1 });
    const route = await workspace.publish({ ...routeFrom(key), writes: person(key) });
    await catchUp(route);
    expect((await one()).state).toBe('cancelled');
    await workspace.call('POST', `/submissions/${row!.id}/run-again`);
    expect((await until(one, ({ state }) => state !== 'waiting')).runs).toMatchObject([{ outcome: 'written' }]);
  });

  test('only when it is read and has written something', async () => {
    const { told } = await broughtIn('people.csv', 'name\nAda');
    expect((await takeBack(told.files[0]!.id)).body.detail).toContain('no row of this file has written anything');
    expect((await takeBack('nothing')).status).toBe(404);
  });
});

test('the rows of a file wait behind an enquiry that comes after them', async () => {
  const quiet = await TestServer.start(await newDatabase(), { role: 'web' });
  try {
    const there = await TestWorkspace.make(quiet);
    const bytes = Buffer.from('name,email\nAda,ada@weir.example\nBo,bo@weir.example');
    const { file } = await quiet.database.inWorkspace(there.id, (tx) =>
      quiet.app.get(SheetsService).bringIn(tx, { name: 'people.csv', bytes }, 'Robin Nye'),
    );
    await quiet.app.get(SheetReading).read(there.id, file);
    const enquiry = { workspaceId: there.id, receivedAt: new Date(), format: 'json' as const, visit: {} };
    const [intake] = await there.query<{ id: string }>(`select id from intake where key = '${there.endpoint}'`);
    const inbox = quiet.app.get(SubmissionInbox);
    const later = await inbox.keep({ ...enquiry, intakeId: intake!.id, body: Buffer.from('{"name":"Cleo"}') });
    const claimed = await quiet.database.inWorkspace(there.id, (tx) => quiet.app.get(SubmissionQueue).claim(tx, 3));
    expect(claimed.map(({ id }) => id).indexOf(later)).toBe(0);
    expect(claimed).toHaveLength(3);
  } finally {
    await quiet.stop();
  }
});

test('nothing can be posted to a sheet, and a file goes into no endpoint', async () => {
  const { key } = await broughtIn('people.csv', 'name\nAda');
  expect((await server.postJson(`/in/${key}`, { name: 'Bo' })).status).toBe(404);
  expect(await bring('people.csv', 'name\nAda', `?into=${workspace.endpoint}`)).toMatchObject({ status: 422 });
  expect(await bring('people.csv', 'name\nAda', '?into=nowhere')).toMatchObject({ status: 404 });
});

/** More than is unpacked, in one cell. */
function bomb(size?: number): Uint8Array {
  const begin = '<worksheet><sheetData><row r="1"><c r="A1" t="inlineStr"><is><t>';
  return workbookOf(Buffer.concat([Buffer.from(begin), Buffer.alloc(400 * 1024 * 1024, ' ')]), {}, size);
}

describe('before a file is brought in', () => {
  const look = (content: string | Uint8Array, query = '') =>
    sendFile<SheetLook & ProblemBody>('/look', 'people.csv', content, query);
  const turkish = Buffer.from('Ad;Soyad\nI\xfe\xfdl;G\xfcne\xfe\n', 'latin1');

  test('its first rows are shown as they would be read, and nothing is kept', async () => {
    const before = await workspace.get<IntakeShape[]>('/intakes');
    expect(await look(`Name;Town\n${'Ada;Leeds\n'.repeat(9)}`)).toMatchObject({
      status: 200,
      body: {
        columns: ['Name', 'Town'],
        delimiter: ';',
        encoding: 'utf-8',
        sure: true,
        rows: Array(3).fill({ Name: 'Ada', Town: 'Leeds' }),
      },
    });
    expect(await workspace.get<IntakeShape[]>('/intakes')).toEqual(before);
  });

  test('its encoding is said to be a guess, and is what somebody chooses', async () => {
    expect((await look(turkish)).body.sure).toBe(false);
    const chosen = await look(turkish, '?encoding=windows-1254');
    expect(chosen.body.rows).toEqual([{ Ad: 'Işıl', Soyad: 'Güneş' }]);
    const { body } = await bring('people.csv', turkish, '?encoding=windows-1254');
    expect((await read(body.intake.key)).files[0]).toMatchObject({ encoding: 'windows-1254', kept: 1 });
    expect(await payloads(body.intake.key)).toEqual([{ Ad: 'Işıl', Soyad: 'Güneş' }]);
    expect((await bring('people.csv', turkish, '?encoding=morse')).status).toBe(422);
  });

  test('a beginning that was cut is read up to its last whole line', async () => {
    const long = Buffer.from(`Name,Town\n${'Zoë,Århus\n'.repeat(30_000)}`).subarray(0, 256 * 1024 - 1);
    expect((await look(long)).body).toMatchObject({ encoding: 'utf-8', sure: true, columns: ['Name', 'Town'] });
    expect((await look(Buffer.alloc(300_000, 65))).status).toBe(413);
    expect((await look('')).body).toMatchObject({ detail: 'There is nothing in the file.' });
  });
});
