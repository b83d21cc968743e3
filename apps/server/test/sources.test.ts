import { describe, expect, test } from '@jest/globals';
import {
  type AnswerSpeed,
  type FunnelRow,
  type JourneyPaths,
  type MergeShape,
  SOURCE_PARTS,
  type Page,
  type RecordShape,
  type SourceCohort,
  type SourceFunnel,
  type SourceRecords,
  SOURCE_FIGURES,
  type SourceRow,
  type SourcesReport,
  type UnknownSources,
} from '@haycart/api';
import { CREDIT_MODELS, creditModel, daysToWon } from '@haycart/core';
import { parse } from 'csv-parse/sync';
import excel from 'exceljs';
import { JourneysService } from '../src/attribution/journeys.service';
import { eachInWorkspace, type TestServer, type TestWorkspace } from './support/test-server';

let workspace: TestWorkspace;
let server: TestServer;
let person: TestWorkspace['call'];

eachInWorkspace(async (made) => {
  ({ workspace, server } = made);
  person = await workspace.signIn();
  await workspace.publish();
});

const NEWS = { utm_source: 'news', utm_medium: 'email', utm_campaign: 'spring' };
const AUTUMN = { ...NEWS, utm_campaign: 'autumn' };
const SEARCH = { referrer: 'https://search.example/?q=glass', page: 'https://quillfern.example/survey?ref=7' };

/** Somebody asks for one bay more than before, having come by something. */
let bays = 0;
async function came(visit: object, name = 'Ada Weir', company = 'Weir'): Promise<void> {
  const email = `${name.split(' ')[0]!.toLowerCase()}@${company.toLowerCase()}.example`;
  await workspace.submit({ name, email, company, bays: (bays += 1), _visit: JSON.stringify(visit) });
  await workspace.handled();
}
const followed = () => server.app.get(JourneysService).follow(workspace.id);
const deals = async () => (await workspace.get<Page<RecordShape>>('/deals')).items;

async function win(value: string, deal?: RecordShape): Promise<void> {
  const { id } = deal ?? (await deals())[0]!;
  expect(await person('PATCH', `/deals/${id}`, { values: { value } })).toMatchObject({ status: 200 });
  expect(await person('POST', `/deals/${id}/move`, { stage: 'won' })).toMatchObject({ status: 200 });
}

async function report(query = ''): Promise<SourcesReport> {
  await followed();
  return workspace.get<SourcesReport>(`/reports/sources?${query}`);
}
/** What each row is credited with of what was won, and how many deals were won there. */
async function won(query: string): Promise<unknown> {
  const { rows, groups, total } = await report(query);
  const told = (row: Partial<SourcesReport['rows'][number]>) => [
    [row.channel, row.source, row.campaign].filter((part) => part !== undefined).join(' / '),
    row.won,
    row.wonDeals,
  ];
  return [...groups, ...rows, total].filter((row) => row.wonDeals).map(told);
}

describe('what was won', () => {
  test('goes to the touches that led to it, by each model, and always adds up', async () => {
    await came(NEWS);
    await came(SEARCH);
    await came(AUTUMN);
    await win('1,000.01');
    // What came after it was won led to nothing.
    await came({ utm_source: 'late' });
    expect(await won('by=channel&credit=first')).toEqual([
      ['e-mail', 1_000_01, 1],
      ['search', 0, 1],
      ['', 1_000_01, 1],
    ]);
    expect(await won('by=channel&credit=last')).toMatchObject([['e-mail', 1_000_01, 1], {}, {}]);
    expect(await won('by=channel,source,campaign&credit=equal')).toEqual([
      ['e-mail', 666_67, 1],
      ['e-mail / news', 666_67, 1],
      ['search', 333_34, 1],
      ['search / search.example', 333_34, 1],
      ['e-mail / news / autumn', 333_34, 1],
      ['e-mail / news / spring', 333_33, 1],
      ['search / search.example / ', 333_34, 1],
      ['', 1_000_01, 1],
    ]);
    expect(await won('by=channel&credit=position')).toEqual([
      ['e-mail', 800_01, 1],
      ['search', 200_00, 1],
      ['', 1_000_01, 1],
    ]);
  });

  test('by a deal’s own touches, those of its contact, or of all people of its company', async () => {
    await came(NEWS, 'Ada Weir');
    await came(SEARCH, 'Bo Weir');
    const [bo] = await deals();
    await win('100', bo);
    const channels = async (basis: string) =>
      (await report(`credit=equal&basis=${basis}`)).rows.filter((row) => row.won).map((row) => [row.channel, row.won]);
    expect(await channels('deal')).toEqual([['search', 100_00]]);
    expect(await channels('contact')).toEqual([['search', 100_00]]);
    expect(await channels('company')).toEqual([
      ['e-mail', 50_00],
      ['search', 50_00],
    ]);
  });

  test('is told where nothing led to it, and where it was longer ago than counts', async () => {
    const values = { name: 'By phone', value: '£ 50' };
    await person('POST', '/deals', { values, pipeline: 'new-builds', stage: 'enquiry' });
    await win('£ 50');
    expect(await won('by=channel')).toEqual([
      ['', 50_00, 1],
      ['', 50_00, 1],
    ]);
  });

  test('in another currency is converted at the rate of its day, and without one is told apart', async () => {
    await came(NEWS);
    await win('EUR 1,000.00');
    expect(await report()).toMatchObject({
      total: { wonDeals: 1, won: 0 },
      withoutRate: [{ currency: 'EUR', deals: 1 }],
    });
    await person('PUT', '/exchange-rates', { rates: [{ currency: 'EUR', from: '2020-01-01', rate: '0.8535' }] });
    expect(await report()).toMatchObject({ total: { won: 853_50 }, withoutRate: [] });
  });
});

test('a report says how many changes are not counted in yet', async () => {
  await came(NEWS);
  expect((await report()).waiting).toBe(0);
  await workspace.query(
    'insert into journey_due (workspace_id, record_id) select workspace_id, id from contact, generate_series(1, 1200)',
  );
  expect((await workspace.get<SourcesReport>('/reports/sources')).waiting).toBe(1_000);
});

test('touches of a taken-back run do not count, and the total stays the same', async () => {
  await came(NEWS);
  await came(SEARCH);
  const [deal] = await deals();
  await win('100', deal);
  const runs = await workspace.query<{ id: string }>(
    `select r.id from run r join visit v on v.id = r.submission_id join touch_source s on s.id = v.source_id where s.channel = 'search'`,
  );
  expect(await won('credit=last')).toMatchObject([['search', 100_00, 1], {}, {}]);
  expect(await person('POST', '/runs/take-back', { runs: runs.map(({ id }) => id) })).toMatchObject({ status: 200 });
  expect(await won('credit=last')).toEqual([
    ['e-mail', 100_00, 1],
    ['', 100_00, 1],
  ]);
});

test('credit follows contacts that are merged and taken apart, and the total stays the same', async () => {
  await came(NEWS, 'Ada Weir', 'Weir');
  await came(SEARCH, 'Bo Lund', 'Lund');
  await win('100', (await deals()).at(-1));
  const apart = await won('credit=equal');
  expect(apart).toMatchObject([['e-mail', 100_00, 1], {}]);
  const { items } = await workspace.get<Page<RecordShape>>('/contacts');
  const ids = items.map(({ id }) => id);
  const merged = await person<{ survivor: string }>('POST', '/merges', { kind: 'contact', ids });
  expect(merged.status).toBe(201);
  expect(await won('credit=equal')).toEqual([
    ['e-mail', 50_00, 1],
    ['search', 50_00, 1],
    ['', 100_00, 1],
  ]);
  expect((await report()).total.contacts).toBe(1);
  const [merge] = await workspace.get<MergeShape[]>(`/merges?record=${merged.body.survivor}`);
  expect(await person('POST', `/merges/${merge!.id}/undo`, { goes: {} })).toMatchObject({ status: 200 });
  expect(await won('credit=equal')).toEqual(apart);
  expect((await report()).total.contacts).toBe(2);
});

test('counts submissions, contacts and deals where they came from, and once wherever several led to one', async () => {
  await came(NEWS);
  await came(AUTUMN);
  await came(SEARCH, 'Bo Lund', 'Lund');
  const { rows, groups, total } = await report('by=channel,source,campaign');
  const counts = (row: Partial<SourcesReport['total']>) => [row.submissions, row.contacts, row.deals];
  expect(counts(total)).toEqual([3, 2, 2]);
  expect(groups.find((row) => row.channel === 'e-mail')).toMatchObject({ submissions: 2, contacts: 1, deals: 1 });
  expect(rows.filter(({ source }) => source === 'news').map((row) => [row.campaign, ...counts(row)])).toEqual([
    ['autumn', 1, 1, 1],
    ['spring', 1, 1, 1],
  ]);
});

/** Deals of several people and companies by several ways, some of them won. */
async function severalDeals(): Promise<void> {
  const visits = [NEWS, SEARCH, AUTUMN, {}, { utm_source: 'show', utm_medium: 'stand' }];
  for (const [nth, name] of ['Ada', 'Bo', 'Cy', 'Ada', 'Bo', 'Dee', 'Ada'].entries())
    await came(visits[nth % visits.length]!, `${name} Weir`, nth % 2 ? 'Weir' : 'Lund');
  const values = { name: 'By phone', value: '£ 70' };
  await person('POST', '/deals', { values, pipeline: 'new-builds', stage: 'enquiry' });
  for (const [nth, deal] of (await deals()).entries()) if (nth % 3 < 2) await win(`${100 + nth}.01`, deal);
}

/** Every figure of every row that differs from its list of records: from their number, or the sum of their credit. */
async function figuresThatDiffer(wish: string): Promise<unknown[]> {
  const { rows, groups, total, figures } = await report(wish);
  const differ: unknown[] = [];
  for (const row of [...rows, ...groups, total] as Partial<SourceRow>[])
    for (const figure of SOURCE_FIGURES.filter((one) => figures.includes(one))) {
      const path = (['splitValue', ...SOURCE_PARTS] as const).flatMap((part) =>
        row[part] === undefined ? [] : [[part, row[part]]],
      );
      const query = new URLSearchParams([...new URLSearchParams(wish), ['figure', figure], ...path] as string[][]);
      const behind = await workspace.get<SourceRecords>(`/reports/sources/records?${String(query)}`);
      const sum = behind.items.reduce((all, { credited = 0 }) => all + credited, 0);
      const isMoney = figure === 'won' || figure === 'value';
      if (isMoney ? Math.abs(sum - row[figure]!) >= 1 : behind.total !== row[figure])
        differ.push([row, figure, behind]);
    }
  return differ;
}
const asFilter = (kind: string, field: string, test: string, value?: string | string[]) =>
  `${kind}Filter=${encodeURIComponent(JSON.stringify({ of: { field }, test, ...(value === undefined ? {} : { value }) }))}`;

test('each figure of each row equals its list of records: their number, or the sum of their credit', async () => {
  await severalDeals();
  for (const credit of ['first', 'position', 'decay'])
    for (const basis of ['deal', 'contact', 'company'])
      expect(await figuresThatDiffer(`by=channel,source,campaign&credit=${credit}&basis=${basis}`)).toEqual([]);
  expect(await figuresThatDiffer('by=channel,source,campaign,page')).toEqual([]);
});

describe('narrowed', () => {
  test.each([
    asFilter('deal', 'status', 'is', 'won'),
    asFilter('deal', 'name', 'contains', 'phone'),
    asFilter('contact', 'full_name', 'contains', 'a'),
    asFilter('company', 'name', 'is', 'Lund'),
    `intake=HERE&${asFilter('company', 'name', 'is', 'Weir')}&${asFilter('deal', 'status', 'is', 'won')}`,
    'split=intake',
    'split=deal.status',
    'split=contact.source',
    'split=company.source&window=30',
    `split=deal.stage&${asFilter('contact', 'full_name', 'contains', 'a')}`,
  ])('by %s each figure equals its list, and the parts add up', async (wish) => {
    await severalDeals();
    const query = `by=channel,source&credit=equal&${wish.replace('HERE', workspace.endpoint)}`;
    expect(await figuresThatDiffer(query)).toEqual([]);
    const { groups, rows, total, split } = await report(query);
    const whole = await report('by=channel');
    const sum = (of: typeof rows) => of.reduce((all, { won: one }) => all + one, 0);
    expect([sum(rows), sum(groups.filter(({ channel }) => (channel === undefined) === Boolean(split)))]).toEqual([
      total.won,
      total.won,
    ]);
    expect(total.won).toBeGreaterThan(0);
    if (wish.startsWith('split') && !wish.includes('Filter')) expect(total.won).toBe(whole.total.won);
    else expect(total.deals).toBeLessThan(whole.total.deals);
  });

  test('apart by the team of whoever has a deal, with those of no team in a row of their own', async () => {
    await severalDeals();
    await person('POST', '/teams', { name: 'North', people: ['robin-nye'] });
    const [one] = await deals();
    await person('PATCH', `/deals/${one!.id}`, { values: { owner: 'robin-nye' } });
    const { groups, total, split } = await report('split=team&by=channel');
    expect(split).toEqual({ label: 'Team', names: { north: 'North' } });
    const teams = groups.filter(({ channel }) => channel === undefined);
    expect(teams.map(({ splitValue, deals: of }) => [splitValue, of]).sort()).toEqual([
      ['', total.deals - 1],
      ['north', 1],
    ]);
    expect(await figuresThatDiffer('split=team&by=channel')).toEqual([]);
  });

  test('by nobody’s field is nothing at all', async () => {
    await severalDeals();
    const { rows, total } = await report(asFilter('contact', 'full_name', 'is', 'Nobody'));
    expect([rows, total.submissions, total.won]).toEqual([[], 0, 0]);
  });

  test('a report by a field of deals tells nothing of people, and costs only as a whole', async () => {
    await came(NEWS);
    const { figures, split, rows } = await report('split=deal.pipeline&by=channel');
    expect(figures).toEqual(['deals', 'wonDeals', 'wonDays', 'value', 'won']);
    expect(split).toMatchObject({ label: 'Pipeline', names: { 'new-builds': 'New builds' } });
    expect(rows).toMatchObject([{ splitValue: 'new-builds', channel: 'e-mail', deals: 1 }]);
    expect((await report(`intake=${workspace.endpoint}`)).figures).not.toContain('cost');
  });

  test.each([
    'split=deal.nothing',
    'split=deal.message',
    'split=contact.lists',
    'split=lead.status',
    'dealFilter=nonsense',
    asFilter('deal', 'nothing', 'is', 'x'),
    'dealFilter=%7B%7D',
  ])('refuses %s', async (query) =>
    expect((await person('GET', `/reports/sources?${query}`)).status).toBeGreaterThanOrEqual(400),
  );
});

test('the days to won are those from when a deal was begun, on average', async () => {
  await came(NEWS);
  await came(SEARCH, 'Bo Lund', 'Lund');
  for (const deal of await deals()) await win('100', deal);
  await workspace.query(
    `update deal set created_at = closed_at - (case when number = (select min(number) from deal) then interval '10 days' else interval '5 days' end)`,
  );
  await workspace.query('insert into journey_due (workspace_id, record_id) select workspace_id, id from deal');
  const { rows, total } = await report('by=channel');
  expect([...rows, total].map(daysToWon).sort()).toEqual([10, 5, 7.5]);
});

test('a spreadsheet made from the export adds up to the same total', async () => {
  await came(NEWS);
  await came({ utm_source: '=1+1', utm_campaign: 'x'.repeat(10_000) });
  await came(SEARCH);
  await win('1,234.57');
  const { total } = await report();
  const file = (query: string) =>
    fetch(`${server.base}/api/v1/reports/sources/export?${query}`, {
      headers: { authorization: `Bearer ${workspace.token}` },
    });
  const csv = await (await file('format=csv&credit=position')).text();
  const rows = parse(csv, { columns: true, bom: true }) as Record<string, string>[];
  expect(rows.reduce((sum, row) => sum + Math.round(Number(row['Won value']) * 100), 0)).toBe(total.won);
  expect(total.won).toBe(1_234_57);
  const apart = await (await file('format=csv&split=deal.pipeline&by=channel')).text();
  expect(parse(apart, { columns: true, bom: true })).toContainEqual(
    expect.objectContaining({ Pipeline: 'New builds', 'Won deals': '1' }),
  );
  expect(apart).not.toContain('Submissions');
  // What a spreadsheet would work out is kept as a text.
  expect(rows.map(({ Source }) => Source)).toContain("'=1+1");
  const workbook = new excel.Workbook();
  await workbook.xlsx.load(await (await file('format=xlsx')).arrayBuffer());
  const sheet = workbook.worksheets[0]!;
  const heads = sheet.getRow(1).values as string[];
  const sum = sheet.getColumn(heads.indexOf('Won value')).values.slice(2) as number[];
  expect(sum.reduce((all, one) => all + Math.round(one * 100), 0)).toBe(total.won);
});

test('reports give the credit that the core gives each journey, for any model, half-life and window', async () => {
  const made = new Date(Date.now() - 3_600_000);
  // Journeys of one to seven touches, days apart that are nowhere regular.
  const journeys = Array.from({ length: 30 }, (_, nth) =>
    Array.from({ length: 1 + (nth % 7) }, (_, step) => Math.round(((nth * 37 + step * step * 53) % 97) * 10) / 10).sort(
      (one, other) => other - one,
    ),
  );
  await workspace.query(
    `insert into deal (workspace_id, id, number, name, pipeline, stage, status, stage_since, value_amount, value_currency, created_at, updated_at, closed_at)
     select current_workspace(), md5(n::text)::uuid, 1000 + n, n::text, 'new-builds', 'won', 'won', $1, 1000000, 'GBP', $1, $1, $1
     from generate_series(0, 29) n`,
    [made],
  );
  const ways = await workspace.query<{ id: number }>(
    `insert into touch_source (workspace_id, channel, source) select current_workspace(), 'direct', 'way ' || n from generate_series(0, 6) n returning id`,
  );
  for (const [nth, days] of journeys.entries())
    await workspace.query(
      `with visited as (
         insert into visit (workspace_id, id, at, source_id)
         select current_workspace(), md5($1 || ' ' || n)::uuid, $2::timestamptz - d * interval '1 day', w
         from unnest($3::float8[], $4::int[]) with ordinality s (d, w, n) returning id)
       insert into touch (workspace_id, id, record_kind, record_id, attempt_id, visit_id)
       select current_workspace(), id, 'deal', md5($1)::uuid, id, id from visited`,
      [String(nth), made, days, ways.slice(0, days.length).map(({ id }) => id)],
    );
  await followed();
  for (const { key } of CREDIT_MODELS)
    for (const halfLife of key === 'decay' ? [7, 11] : [7])
      for (const window of [null, 30, 45]) {
        const query = `by=channel,source&credit=${key}&halfLife=${halfLife}${window ? `&window=${window}` : ''}`;
        const { rows } = await workspace.get<SourcesReport>(`/reports/sources?${query}`);
        const expected = new Map<string, number>();
        for (const days of journeys) {
          const within = days.map((day, step) => ({ day, step })).filter(({ day }) => window === null || day <= window);
          const times = within.map(({ day }) => -day * 86_400_000);
          const shares = times.length ? creditModel(key)!.shares(times, { halfLife }) : [1];
          shares.forEach((share, at) => {
            const name = within[at] ? `way ${within[at].step}` : '';
            expected.set(name, (expected.get(name) ?? 0) + share * 1_000_000);
          });
        }
        for (const [name, credit] of expected)
          expect([query, name, Math.abs((rows.find(({ source }) => source === name)?.won ?? 0) - credit) < 2]).toEqual([
            query,
            name,
            true,
          ]);
      }
});

test.each([
  'from=2026-02-30',
  'from=2026-03-02&to=2026-03-01',
  'credit=magic',
  'by=campaign',
  'window=0',
  'from=1900-01-01',
])('refuses %s', async (query) =>
  expect((await person('GET', `/reports/sources?${query}`)).status).toBeGreaterThanOrEqual(400),
);

test('visits before that a site kept are touches of the same journey, each once however often it is handed over', async () => {
  const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString();
  const before = (n: number, ago: number, utm_source: string) => ({
    id: `00000000-0000-4000-8000-00000000000${n}`,
    at: day(ago),
    utm_source,
  });
  const earlier = [before(1, 9, 'fair'), before(2, 2, 'news')];
  await came({ utm_source: 'search-ad', utm_medium: 'cpc', earlier });
  await came({ utm_source: 'again', earlier: [...earlier, before(3, -1, 'tomorrow')] });
  // A visit without a submission counts as none.
  expect((await report()).total.submissions).toBe(2);
  await win('100');
  expect(await won('by=channel,source&credit=equal')).toEqual([
    ['campaign', 75_00, 1],
    ['paid', 25_00, 1],
    ['campaign / again', 25_00, 1],
    ['campaign / fair', 25_00, 1],
    ['campaign / news', 25_00, 1],
    ['paid / search-ad', 25_00, 1],
    ['', 100_00, 1],
  ]);
  expect((await won('credit=first&by=channel,source')) as unknown[]).toContainEqual(['campaign / fair', 100_00, 1]);
});

test('the ways that journeys went are told with how many were won, the same channel twice in a row as one step', async () => {
  await came(NEWS);
  await came(AUTUMN);
  await came(SEARCH);
  await win('100');
  await came(SEARCH, 'Bo Holt', 'Holt');
  await followed();
  expect(await workspace.get<JourneyPaths>('/reports/sources/paths')).toEqual({
    paths: [
      { steps: ['e-mail', 'search'], won: 1, notWon: 0 },
      { steps: ['search'], won: 0, notWon: 1 },
    ],
    journeys: 2,
    more: 0,
  });
  expect(await workspace.get<JourneyPaths>('/reports/sources/paths?window=30')).toMatchObject({ journeys: 2 });
});

test('what is not known is told with its causes, and where it comes from', async () => {
  const page = 'https://quillfern.example/survey';
  await came({});
  await came({ page });
  await came({ page, referrer: 'https://quillfern.example/' });
  await came({ page, click: 'adclid', clickId: '7' });
  await came(NEWS);
  const values = { name: 'By phone', value: '£ 50' };
  await person('POST', '/deals', { values, pipeline: 'new-builds', stage: 'enquiry' });
  await followed();
  const { touches, causes, byHand } = await workspace.get<UnknownSources>('/reports/sources/unknown');
  expect([touches, byHand]).toEqual([5, 1]);
  expect(causes.map(({ cause, touches: of, intakes }) => [cause, of, intakes.length])).toEqual([
    ['lost-within', 1, 1],
    ['click-alone', 1, 1],
    ['no-visit', 1, 1],
    ['no-referrer', 1, 1],
  ]);
});

test('the deals of a month are told by what became of them, from the first touch on', async () => {
  await came(NEWS);
  await win('100');
  await came(SEARCH, 'Bo Holt', 'Holt');
  await came(SEARCH, 'Cy Marsh', 'Marsh');
  await person('POST', '/pipelines/new-builds/stages', { name: 'Lost', state: 'lost' });
  const [lost] = await deals();
  expect(await person('POST', `/deals/${lost!.id}/move`, { stage: 'lost' })).toMatchObject({ status: 200 });
  await workspace.query(
    `update visit set at = at - interval '70 days' where source_id in (select id from touch_source where channel = 'e-mail')`,
  );
  await workspace.query('insert into journey_due (workspace_id, record_id) select workspace_id, id from deal');
  await followed();
  const cohorts = await workspace.get<SourceCohort[]>('/reports/sources/cohorts');
  expect(cohorts).toHaveLength(2);
  expect(cohorts[0]).toMatchObject({ deals: 1, won: 1, lost: 0, worth: 100_00, daysToWon: 70 });
  expect(cohorts[0]!.wonWithin.slice(0, 3)).toEqual([0, 0, 1]);
  expect(cohorts[1]).toMatchObject({ deals: 2, won: 0, lost: 1, daysToWon: null, wonWithin: [0] });
  expect(await workspace.get('/reports/sources/cohorts?channel=search')).toMatchObject([{ deals: 2 }]);
  expect(await workspace.get('/reports/sources/cohorts?channel=nothing')).toEqual([]);
});

test('a funnel tells how far the deals of each source came, and where they were lost', async () => {
  await came(NEWS);
  await win('100');
  await came(SEARCH, 'Bo Holt', 'Holt');
  await came(NEWS, 'Cy Marsh', 'Marsh');
  await came(SEARCH, 'Cy Marsh', 'Marsh');
  await person('POST', '/pipelines/new-builds/stages', { name: 'Visit', state: 'open' });
  await person('POST', '/pipelines/new-builds/stages', { name: 'Lost', state: 'lost' });
  const [cy, bo] = await deals();
  for (const [deal, stage] of [
    [cy, 'visit'],
    [cy, 'lost'],
  ] as const)
    expect(await person('POST', `/deals/${deal!.id}/move`, { stage })).toMatchObject({ status: 200 });
  await followed();
  const { stages, rows, total } = await workspace.get<SourceFunnel>('/reports/sources/funnel');
  const at = stages.map(({ key }) => key);
  expect([at[0], at.includes('visit')]).toEqual(['enquiry', true]);
  const told = ({ deals: of, won: one, lost, open, reached, lostAt }: FunnelRow) => [
    [of, one, lost, open],
    [reached[0], reached[at.indexOf('visit')]],
    [lostAt[0], lostAt[at.indexOf('visit')]],
  ];
  expect(told(total)).toEqual([
    [3, 1, 1, 1],
    [3, 2],
    [0, 1],
  ]);
  const channels = rows.filter(({ source }) => source === null);
  expect(channels.map(({ channel, deals: of, won: one, lost }) => [channel, of, one, lost])).toEqual([
    ['e-mail', 2, 1, 1],
    ['search', 2, 0, 1],
  ]);
  expect(bo!.id).not.toBe(cy!.id);
  // Each number opens as many deals as it says.
  for (const row of [total, ...rows])
    for (const [nth, { key }] of stages.entries())
      for (const [asked, number] of [
        [`stage=${key}`, row.reached[nth]],
        [`stage=${key}&status=lost`, row.lostAt[nth]],
        ['status=won', row.won],
        ['status=open', row.open],
        ['', row.deals],
      ] as const) {
        const path = [row.channel, row.source].flatMap((value, part) =>
          value === null ? [] : [`&${SOURCE_PARTS[part]!}=${value}`],
        );
        const list = `/reports/sources/records?figure=deals&pipeline=new-builds&${asked}${path.join('')}`;
        expect([list, (await workspace.get<SourceRecords>(list)).total]).toEqual([list, number]);
      }
  expect((await person('GET', '/reports/sources/records?figure=deals&stage=won')).status).toBe(422);
  expect(await workspace.get('/reports/sources/funnel?window=1&credit=last')).toMatchObject({ total: { deals: 3 } });
  expect((await person('GET', '/reports/sources/funnel?pipeline=nothing')).status).toBe(404);
});

test('the report on answers shows the median time by channel and by team', async () => {
  await came(NEWS);
  await came(SEARCH, 'Bo Holt', 'Holt');
  await followed();
  const given = await deals();
  for (const [nth, { id }] of given.entries())
    await workspace.query(
      `insert into assignment (workspace_id, id, record_kind, record_id, person, team, why, at, due_at, touched_at, touched_by)
       values (current_workspace(), gen_random_uuid(), 'deal', $1, 'robin', $2, 'by turn', now() - interval '5 hours', now() - interval '4 hours',
         now() - $3::interval, 'robin')`,
      [id, nth ? 'sales' : null, nth ? '4 hours 30 minutes' : '1 hour'],
    );
  const speed = await workspace.get<AnswerSpeed>('/reports/sources/answers');
  expect(speed.total).toMatchObject({ given: 2, answered: 2, minutes: 135, promised: 2, inTime: 1 });
  expect(speed.channels).toMatchObject([
    { name: 'e-mail', minutes: 30, inTime: 1 },
    { name: 'search', minutes: 240, inTime: 0 },
  ]);
  expect(speed.teams).toMatchObject([{ name: 'sales', given: 1, minutes: 30 }]);
  // Given on a Friday afternoon and answered on Monday morning: by the clock two days and a half, at work an hour.
  await workspace.query(
    `update assignment set at = '2026-03-20T16:30:00Z', due_at = null, touched_at = '2026-03-23T09:30:00Z' where workspace_id = current_workspace()`,
  );
  const march = await workspace.get<AnswerSpeed>('/reports/sources/answers?from=2026-03-20&to=2026-03-20');
  expect(march.total).toMatchObject({ given: 2, answered: 2, minutes: 65 * 60, workMinutes: 60 });
});

test('views of forms stand beside what was sent, where visitors came from, and cannot be told of records', async () => {
  await came(NEWS);
  await workspace.query(
    `insert into form_count (workspace_id, intake_id, day, version, page, channel, source, campaign, device, did, item, count)
     select current_workspace(), id, current_date, 1, '', 'e-mail', 'news', 'spring', 'phone', did, '', n
     from intake, (values ('view', 7), ('start', 3)) as seen (did, n) limit 2`,
  );
  const { rows, total } = await report('by=channel,source,campaign');
  expect(rows).toMatchObject([{ channel: 'e-mail', source: 'news', campaign: 'spring', views: 7, submissions: 1 }]);
  expect(total.views).toBe(7);
  expect((await report(`intake=${workspace.endpoint}`)).total.views).toBe(0);
  expect((await person('GET', '/reports/sources/records?figure=views')).status).toBe(422);
});
