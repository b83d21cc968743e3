import { describe, expect, test } from '@jest/globals';
import type {
  ChannelRulesShape,
  SourceChange,
  SourceMoves,
  SourcesReport,
  SubmissionDetail,
  TouchShape,
} from '@haycart/api';
import { USUAL_RULES } from '@haycart/core';
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

let bays = 0;
/** Somebody asks, having come by something. Answers the submission's id. */
async function came(visit: object, name = 'Ada Weir'): Promise<string> {
  const email = `${name.split(' ')[0]!.toLowerCase()}@weir.example`;
  const payload = { name, email, company: 'Weir', bays: (bays += 1), _visit: JSON.stringify(visit) };
  const id = await workspace.submit(payload);
  await workspace.handled();
  return id;
}

const PARTNER = { when: { utm_source: { test: 'is', value: ['weekly', 'growers weekly'] } }, channel: 'partner' };
const rules = { rules: [PARTNER, ...USUAL_RULES.rules], names: [{ name: 'Growers Weekly', spellings: ['weekly'] }] };
const save = (given: object = rules) => person('PUT', '/channel-rules', given);
async function bySource(): Promise<unknown[]> {
  await server.app.get(JourneysService).follow(workspace.id);
  const { rows } = await workspace.get<SourcesReport>('/reports/sources?by=channel,source');
  return rows.map(({ channel, source, submissions, deals }) => [channel, source, submissions, deals]);
}

describe('channel rules', () => {
  test('are the usual ones until somebody makes others', async () =>
    expect(await workspace.get<ChannelRulesShape>('/channel-rules')).toEqual({
      ...USUAL_RULES,
      usual: true,
      alike: [],
    }));

  test('decide about what comes from then on, in records, lists and reports alike', async () => {
    expect(await save()).toMatchObject({ status: 200, body: { usual: false } });
    const id = await came({ utm_source: 'weekly', utm_medium: 'cpc' });
    expect(await workspace.get<SubmissionDetail>(`/submissions/${id}`)).toMatchObject({
      channel: 'partner',
      source: 'Growers Weekly',
      medium: 'cpc',
    });
    expect(await bySource()).toEqual([['partner', 'Growers Weekly', 1, 1]]);
    const [deal] = (await workspace.get<{ items: { id: string }[] }>('/deals')).items;
    expect(await workspace.get(`/deals/${deal!.id}/touches`)).toMatchObject([{ source: 'Growers Weekly' }]);
  });

  test('are rehearsed over the past, applied to it, and taken back', async () => {
    await came({ utm_source: 'weekly', utm_medium: 'cpc' });
    await came({ utm_source: 'Growers Weekly' });
    await came({ utm_source: 'news', utm_medium: 'email' });
    const before = await bySource();
    const rehearsed = await person('POST', '/channel-rules/rehearsal', rules);
    expect(rehearsed.body as SourceMoves).toEqual({
      looked: 3,
      touches: 2,
      more: 0,
      moves: [
        {
          from: { channel: 'paid', source: 'weekly' },
          to: { channel: 'partner', source: 'Growers Weekly' },
          touches: 1,
        },
        {
          from: { channel: 'campaign', source: 'Growers Weekly' },
          to: { channel: 'partner', source: 'Growers Weekly' },
          touches: 1,
        },
      ],
    });
    expect(await bySource()).toEqual(before);
    await save();
    expect(await bySource()).toEqual(before);
    const applied = (await person('POST', '/source-changes')).body as { change: SourceChange };
    expect(applied.change).toMatchObject({ touches: 2, takenBack: null, kind: 'rules' });
    expect(await bySource()).toEqual([
      ['partner', 'Growers Weekly', 2, 1],
      ['e-mail', 'news', 1, 1],
    ]);
    // What came since stays where the rules put it.
    await came({ utm_source: 'weekly', utm_medium: 'cpc' });
    const back = `/source-changes/${applied.change.id}/take-back`;
    expect((await person('POST', back)).body).toMatchObject({ touches: 2, takenBack: {} });
    const after = await bySource();
    expect(after).toHaveLength(4);
    expect(after).toEqual(expect.arrayContaining([...before, ['partner', 'Growers Weekly', 1, 1]]));
    expect(await person('POST', back)).toMatchObject({ status: 409 });
    expect((await workspace.get<SourceChange[]>('/source-changes')).map(({ text }) => text)).toEqual([
      'Moved 2 touches, most of them from weekly (paid) to Growers Weekly (partner)',
    ]);
  });

  test('decide about visits that were kept before what was seen of them was', async () => {
    await came({ utm_source: 'weekly', utm_medium: 'cpc' });
    await workspace.query('update visit set way_id = null');
    await save();
    expect((await person('POST', '/source-changes')).body).toMatchObject({ change: { touches: 1 } });
    expect(await bySource()).toEqual([['partner', 'Growers Weekly', 1, 1]]);
    expect((await person('POST', '/source-changes')).body).toEqual({ change: null });
  });

  test('tell sources that look like spellings of one name, until they are joined', async () => {
    await came({ utm_source: 'Growers Weekly' });
    await came({ utm_source: 'growersweekly' });
    await came({ utm_source: 'GW-ads' });
    const { alike } = await workspace.get<ChannelRulesShape>('/channel-rules');
    expect(alike).toEqual([{ name: 'Growers Weekly', spellings: ['growersweekly', 'GW-ads'] }]);
    const joined = { rules: USUAL_RULES.rules, names: [{ name: 'Growers Weekly', spellings: ['GW-ads'] }] };
    expect((await save(joined)).body).toMatchObject({ alike: [] });
    // What somebody keeps apart is not suggested again.
    const apart = [{ name: 'Growers Weekly', spellings: ['GW-ads'] }];
    expect((await save({ ...joined, names: [], apart })).body).toMatchObject({
      apart,
      alike: [{ spellings: ['growersweekly'] }],
    });
  });

  test.each<[object, string]>([
    [{ rules: [{ when: {}, channel: '' }], names: [] }, 'Row 1 names no channel.'],
    [
      { rules: [{ when: { site: { test: 'is', value: [] } }, channel: 'a' }], names: [] },
      'Row 1, Referring site: Type what to compare with.',
    ],
    [
      { rules: [{ when: { site: { test: 'in-set', value: 'gone' } }, channel: 'a' }], names: [] },
      'There is no value set',
    ],
    [{ rules: [{ when: { weather: { test: 'filled' } }, channel: 'a' }], names: [] }, 'This does not fit'],
    [
      {
        rules: [],
        names: [
          { name: 'A', spellings: ['b'] },
          { name: 'C', spellings: ['B'] },
        ],
      },
      '“B” is a spelling of “A” already.',
    ],
    [{ rules: Array.from({ length: 1_001 }, () => ({ when: {}, channel: 'a' })), names: [] }, 'This does not fit'],
    [{ rules: 'all' }, 'rules'],
  ])('are refused with what is wrong: %#', async (given, why) => {
    const refused = await save(given);
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.body)).toContain(why);
    expect(await workspace.get('/channel-rules')).toMatchObject({ usual: true });
  });
});

test('one visit with an address of somebody in its link keeps none, and says which part it was', async () => {
  const id = await came({ utm_source: 'news', utm_term: 'ada%40weir.example' });
  expect((await workspace.get<SubmissionDetail>(`/submissions/${id}`)).visit).toMatchObject({
    utm_term: '(an e-mail address)',
    masked: 'utm_term',
  });
  expect(await workspace.query(`select 1 from touch_way where way::text like '%weir.example%'`)).toEqual([]);
});

test('an intake says where what it takes comes from, and which answers tell it', async () => {
  const source = {
    constant: { source: 'Garden fair', channel: 'event' },
    answers: { said: 'heard', utm_source: 'src' },
  };
  const change = (more: object) => person('PATCH', `/intakes/${workspace.endpoint}`, { source: more });
  expect(await change(source)).toMatchObject({ status: 200, body: { source } });
  await came({});
  await came({ utm_source: 'news' });
  await workspace.submit({
    name: 'Bo Weir',
    email: 'bo@weir.example',
    bays: 9,
    src: 'Trade letter',
    heard: 'A neighbour',
  });
  await workspace.handled();
  const places = (await bySource()).map((row) => (row as string[]).slice(0, 2).join(', '));
  expect(places.sort()).toEqual(['campaign, Trade letter', 'campaign, news', 'event, Garden fair']);
  expect(await workspace.query(`select way ->> 'said' as said from touch_way where way ? 'said'`)).toEqual([
    { said: 'A neighbour' },
  ]);
  expect(await change({ constant: { weather: 'fine' } })).toMatchObject({ status: 422 });
  expect(await change({})).toMatchObject({ status: 200, body: { source: {} } });
});

test('a person says where a touch came from: rules leave it, what was seen stays beside, and it can be taken back', async () => {
  await came({ utm_source: 'weekly', utm_medium: 'cpc', page: 'https://quillfern.example/survey' });
  const [deal] = (await workspace.get<{ items: { id: string }[] }>('/deals')).items;
  const touches = () => workspace.get<TouchShape[]>(`/deals/${deal!.id}/touches`);
  const [touch] = await touches();
  expect(touch).toMatchObject({ channel: 'paid', seen: null });
  const fair = { channel: 'event', source: 'Garden fair' };
  const said = await person<SourceChange>('POST', '/source-changes/corrections', { visits: [touch!.visit], ...fair });
  expect(said).toMatchObject({ status: 200, body: { touches: 1, kind: 'correction' } });
  const page = 'https://quillfern.example/survey';
  expect(await touches()).toMatchObject([
    { ...fair, page, seen: { channel: 'paid', source: 'weekly', medium: 'cpc' } },
  ]);
  expect(await bySource()).toEqual([['event', 'Garden fair', 1, 1]]);
  await save();
  expect((await person('POST', '/source-changes')).body).toEqual({ change: null });
  // One on top of it, taken back, leaves the first.
  const again = { visits: [touch!.visit], channel: 'event', source: 'Show' };
  const later = await person<SourceChange>('POST', '/source-changes/corrections', again);
  await person('POST', `/source-changes/${later.body.id}/take-back`);
  expect(await touches()).toMatchObject([{ ...fair, seen: { channel: 'partner' } }]);
  await person('POST', `/source-changes/${said.body.id}/take-back`);
  expect(await touches()).toMatchObject([{ channel: 'paid', source: 'weekly', seen: null }]);
  expect((await person('POST', '/source-changes')).body).toMatchObject({ change: { touches: 1 } });
  const nobody = { visits: ['00000000-0000-4000-8000-000000000000'], ...fair };
  expect(await person('POST', '/source-changes/corrections', nobody)).toMatchObject({ status: 404 });
});

test('whatever a link says, however long and in whatever script, is kept as far as it may be and routed', async () => {
  await person('POST', '/campaigns', { name: 'Spring', code: 'spring' });
  const source = { answers: { said: 'heard' } };
  await person('PATCH', `/intakes/${workspace.endpoint}`, { source });
  await workspace.submit({ name: 'Bo', email: 'bo@weir.example', bays: 3, heard: 'a\0b\ud800c' });
  const long = '春🌷'.repeat(5_000);
  await came({
    utm_source: long,
    utm_medium: long,
    utm_campaign: long,
    utm_term: long,
    utm_content: long,
    clickId: long,
  });
  const [row] = await workspace.query<{ length: number }>(
    `select length(way ->> 'utm_campaign') as length from touch_way where way ? 'utm_campaign'`,
  );
  expect(row!.length).toBeGreaterThan(0);
  expect(await bySource()).toHaveLength(2);
  expect(await workspace.get('/channel-rules')).toMatchObject({ alike: [] });
  expect(await workspace.query(`select 1 from run where outcome <> 'written'`)).toEqual([]);
});
