import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  CONDITION_TESTS,
  evaluate,
  listedFields,
  type ConditionSetting,
  type FieldDefinition,
  type FieldValue,
  type JsonValue,
  type RecordCondition,
} from '@haycart/core';
import type { FieldShape, GroupCount, Page, ProblemBody, RecordShape } from '@haycart/api';
import { parse } from 'csv-parse/sync';
import excel from 'exceljs';
import { newDatabase, TestServer, TestWorkspace } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
let fields: FieldDefinition[];
let all: RecordShape[];

const OPTIONS = [{ label: 'Warm' }, { label: 'Cold' }, { label: 'Frost-free' }];
const MADE = [
  { record: 'deal', label: 'Heating', type: 'one-of', options: OPTIONS },
  { record: 'deal', label: 'Extras', type: 'several-of', options: OPTIONS },
  { record: 'deal', label: 'Wanted by', type: 'date' },
  { record: 'deal', label: 'Seen at', type: 'date-time' },
  { record: 'deal', label: 'Ready', type: 'yes-no' },
  { record: 'deal', label: 'Height', type: 'decimal' },
  { record: 'deal', label: 'Deposit', type: 'money' },
  { record: 'deal', label: 'Planner', type: 'person' },
  { record: 'deal', label: 'Remarks', type: 'long-text' },
  { record: 'deal', label: 'Site', type: 'web' },
  { record: 'deal', label: 'Site e-mail', type: 'email' },
  { record: 'deal', label: 'Site phone', type: 'phone' },
];
const DEALS: Record<string, JsonValue>[] = [
  { name: 'Alder 100%', heating: 'warm', extras: ['warm', 'cold'], wanted_by: '2026-03-14', bays: 6, ready: true },
  { name: 'birch_house', heating: 'cold', value: 'EUR 1200', height: 2.5, planner: 'robin-nye', owner: 'robin-nye' },
  { name: 'Cedar\\slash', value: 'GBP 1200', deposit: 'GBP 50', ready: false, tags: ['press'], remarks: 'Ask first' },
  { name: 'ÉPICÉA', bays: -2, seen_at: '2026-03-14T23:30:00Z', site: 'https://weir.example', message: 'Hello\nthere' },
  { name: 'Fir', extras: ['cold'], site_e_mail: 'fir@weir.example', site_phone: '020 7946 0018', source: 'fair' },
  { name: 'elm', value: 'GBP 0.50', height: -1, wanted_by: '2026-12-31', bays: 40, owner: 'robin-nye' },
];

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
  workspace = await TestWorkspace.make(server);
  await workspace.call('POST', '/fields', MADE);
  await workspace.call('POST', '/tags', { name: 'Press' });
  await workspace.call('POST', '/teams', { name: 'Builds', people: ['robin-nye'] });
  for (const values of DEALS) {
    const { status, body } = await workspace.call('POST', '/deals', { values });
    expect({ status, body }).toMatchObject({ status: 201 });
  }
  fields = listedFields('deal', await workspace.get<FieldShape[]>('/fields'));
  all = (await workspace.get<Page<RecordShape>>('/deals')).items;
});
afterAll(() => server.stop());

const list = (query: Record<string, string>) =>
  workspace.call<Page<RecordShape>>('GET', `/deals?${new URLSearchParams(query).toString()}`);
const names = async (query: Record<string, string>) => (await list(query)).body.items.map(({ name }) => name);

const SETTING: ConditionSetting = {
  now: new Date().toISOString(),
  defaultCurrency: 'GBP',
  me: undefined,
  teams: { builds: { people: ['robin-nye'] } },
};
/** What is compared with, for each kind of thing that a test wants. */
const WANTED: Record<string, unknown[]> = {
  none: [undefined],
  texts: ['e', 'FIR', '%', '_', '\\', 'épicéa', ['alder 100%', 'elm'], 'https'],
  number: [6, '1200', -1, 'EUR 1200', 'GBP 50'],
  numbers: [
    [-2, 6],
    ['GBP 0', 'GBP 1200'],
  ],
  date: ['2026-03-14', '2026-12-31'],
  days: [1, 30_000],
  options: [['warm'], ['cold', 'warm'], ['robin-nye'], ['press']],
  team: ['builds'],
};

function valueOf(record: RecordShape, key: string): FieldValue | null {
  const always = { number: record.number, created_at: record.createdAt, updated_at: record.updatedAt };
  return key in always ? always[key as keyof typeof always] : (record.values[key] ?? null);
}

describe('the database finds what the core finds', () => {
  const tests = CONDITION_TESTS.filter(({ name }) => name !== 'me').map((one) => [one.name, one] as const);
  /** One field of each type, built in and made. */
  const looked = (fits: readonly string[]) =>
    fields.filter(
      ({ type, builtIn }, index) =>
        fits.includes(type) && fields.findIndex((one) => one.type === type && one.builtIn === builtIn) === index,
    );
  test.each(tests)('for %s on every kind of field that it fits', async (name, { fits, wanted }) => {
    for (const field of looked(fits)) {
      for (const value of WANTED[wanted]!) {
        for (const caseSensitive of wanted === 'texts' ? [false, true] : [false]) {
          const clause: RecordCondition = { of: { field: field.key }, test: name, value, caseSensitive };
          for (const condition of [clause, { not: clause }]) {
            const reader = { typeOf: () => field.type, valueOf: ({ field: key }: { field: string }) => key };
            const expected = all.filter(
              (record) =>
                evaluate(condition, { ...reader, valueOf: ({ field: key }) => valueOf(record, key) }, SETTING).met,
            );
            const { status, body } = await list({ filter: JSON.stringify(condition) });
            if (status === 422) expect(expected).toEqual([]);
            else
              expect([field.key, value, body.items.map(({ name: found }) => found).sort()]).toEqual([
                field.key,
                value,
                expected.map(({ name: found }) => found).sort(),
              ]);
          }
        }
      }
    }
  });

  test('for all, any and not of them together', async () => {
    const filter = JSON.stringify({
      any: [
        {
          all: [
            { of: { field: 'heating' }, test: 'is-any-of', value: ['warm'] },
            { of: { field: 'ready' }, test: 'yes' },
          ],
        },
        { not: { of: { field: 'value' }, test: 'blank' } },
      ],
    });
    expect((await names({ filter })).sort()).toEqual(['Alder 100%', 'Cedar\\slash', 'birch_house', 'elm']);
  });
});

describe('a list', () => {
  test('is sorted by a field whatever the capitals, with blanks at the end, from either end', async () => {
    expect(await names({ sort: 'name' })).toEqual([
      'Alder 100%',
      'birch_house',
      'Cedar\\slash',
      'elm',
      'Fir',
      'ÉPICÉA',
    ]);
    expect((await names({ sort: '-bays' })).slice(0, 3)).toEqual(['elm', 'Alder 100%', 'ÉPICÉA']);
    expect((await names({ sort: 'wanted_by' })).slice(0, 2)).toEqual(['Alder 100%', 'elm']);
  });

  test.each(['name', '-name', 'bays', '-height', 'value', '-wanted_by', 'seen_at', 'number', '-created_at', 'owner'])(
    'sorted by %s is paged without losing or repeating any',
    async (sort) => {
      const whole = await names({ sort });
      const paged: string[] = [];
      let after = '';
      do {
        const { body } = await list({ sort, limit: '2', ...(after ? { after } : {}) });
        paged.push(...body.items.map(({ name }) => name));
        after = body.next ?? '';
      } while (after);
      expect(paged).toEqual(whole);
      expect(whole).toHaveLength(DEALS.length);
    },
  );

  test('is searched by any part of the name, whatever stands in it', async () => {
    expect(await names({ q: 'épic' })).toEqual(['ÉPICÉA']);
    expect(await names({ q: '0%' })).toEqual(['Alder 100%']);
    expect(await names({ q: 'h_h' })).toEqual(['birch_house']);
    expect(await names({ q: 'r\\s' })).toEqual(['Cedar\\slash']);
  });

  test('is counted by what its records share', async () => {
    const groups = (by: string) => workspace.get<GroupCount[]>(`/deals/groups?by=${by}`);
    expect(await groups('owner')).toEqual([
      { value: null, count: 4 },
      { value: 'robin-nye', count: 2 },
    ]);
    expect(await groups('extras')).toEqual([
      { value: null, count: 4 },
      { value: 'cold', count: 2 },
      { value: 'warm', count: 1 },
    ]);
    expect((await groups('heating')).map(({ count }) => count)).toEqual([4, 1, 1]);
    expect(await workspace.get('/deals/count?q=e')).toEqual({ total: 4 });
  });

  test.each<[string, Record<string, string>]>([
    ['a filter that is no JSON', { filter: '{' }],
    ['a filter with something more in it', { filter: '{"all":[],"colour":1}' }],
    ['a test that does not fit', { filter: '{"of":{"field":"bays"},"test":"contains","value":"x"}' }],
    ['a field that is not there', { filter: '{"of":{"field":"x\'; drop table deal"},"test":"blank"}' }],
    ['a filter without an end', { filter: `${'{"not":'.repeat(30)}{"all":[]}${'}'.repeat(30)}` }],
    ['a sort by what has no order', { sort: 'tags' }],
    ['a sort by nothing', { sort: '-' }],
    ['a cursor that nothing gave', { after: 'e30' }],
  ])('refuses %s, saying so', async (_, query) => {
    const { status, body } = await list(query);
    expect([status, (body as unknown as ProblemBody).detail]).toEqual([422, expect.stringMatching(/\.$/)]);
  });
});

describe('a list is taken away', () => {
  const file = (path: string) =>
    fetch(`${server.base}/api/v1${path}`, { headers: { authorization: `Bearer ${workspace.token}` } });

  test('as CSV that no spreadsheet runs', async () => {
    const formulas = ['=1+1', '+cmd', '-2+3', '@SUM(A1)', '\tx', '-5', 'plain, "quoted"'];
    for (const name of formulas) await workspace.call('POST', '/companies', { values: { name } });
    const text = await (await file('/companies/export?format=csv&columns=name,number&sort=number')).text();
    const rows = parse(text, { bom: true }) as string[][];
    expect(rows[0]).toEqual(['Name', 'Number']);
    expect(rows.slice(1).map(([name]) => name)).toEqual([
      "'=1+1",
      "'+cmd",
      "'-2+3",
      "'@SUM(A1)",
      "'\tx",
      '-5',
      'plain, "quoted"',
    ]);
  });

  test('as XLSX with texts as texts, numbers as numbers, and amounts beside their currency', async () => {
    const response = await file('/deals/export?format=xlsx&columns=name,bays,value,wanted_by,ready,owner&sort=name');
    const workbook = new excel.Workbook();
    await workbook.xlsx.load(await response.arrayBuffer());
    const rows: unknown[][] = [];
    workbook.worksheets[0]!.eachRow((row) => rows.push((row.values as unknown[]).slice(1)));
    expect(rows[0]).toEqual(['Name', 'Bays', 'Value', 'Value currency', 'Wanted by', 'Ready', 'Owner']);
    expect(rows.find(([name]) => name === 'elm')).toEqual([
      'elm',
      40,
      0.5,
      'GBP',
      '2026-12-31',
      undefined,
      'Robin Nye',
    ]);
    expect(rows).toHaveLength(DEALS.length + 1);
  });

  test('as JSON Lines, each record as the API answers it, narrowed as the list is', async () => {
    const text = await (await file('/deals/export?format=jsonl&q=fir')).text();
    const [fir] = text
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as RecordShape);
    expect(fir).toEqual(all.find(({ name }) => name === 'Fir'));
  });

  test('as vCards, contacts only', async () => {
    const values = {
      first_name: 'Ada;',
      last_name: 'Weir, the 3rd',
      emails: ['ada@weir.example', 'a@home.example'],
      phone: '020 7946 0018',
      tags: ['press'],
    };
    await workspace.call('POST', '/contacts', { values });
    const text = await (await file('/contacts/export?format=vcf')).text();
    const card = text.replace(/\r\n /g, '').split('\r\n');
    expect(card).toEqual(
      expect.arrayContaining([
        'BEGIN:VCARD',
        'VERSION:4.0',
        'FN:Ada\\; Weir\\, the 3rd',
        'N:Weir\\, the 3rd;Ada\\;;;;',
        'EMAIL;PREF=1:ada@weir.example',
        'EMAIL;PREF=2:a@home.example',
        'TEL;VALUE=uri;PREF=1:tel:+442079460018',
        'CATEGORIES:press',
        'END:VCARD',
      ]),
    );
    expect(text.split('\r\n').every((line) => Buffer.byteLength(line) <= 75)).toBe(true);
    expect((await file('/deals/export?format=vcf')).status).toBe(422);
  });
});
