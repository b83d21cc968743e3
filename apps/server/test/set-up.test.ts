import { afterAll, beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type {
  HistoryEntry,
  Page,
  PipelineShape,
  PlaceUse,
  ProblemBody,
  RecordShape,
  RouteShape,
  SavedView,
  SetUpChange,
} from '@haycart/api';
import { RecordsService } from '../src/records/records.service';
import { RouteBookService } from '../src/routes/route-book.service';
import { newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
/** Calls the API as a person who is signed in. */
let person: TestWorkspace['call'];

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
});
afterAll(() => server.stop());
beforeEach(async () => {
  workspace = await TestWorkspace.make(server);
  person = await workspace.signIn();
});

const BUILDS = '/pipelines/new-builds';
const builds = () => person<PipelineShape>('PATCH', BUILDS, {}).then(({ body }) => body);
const stageKeys = async () => (await builds()).stages.map(({ key }) => key);
const deals = async () => (await workspace.get<Page<RecordShape>>('/deals?limit=200')).items;

async function enquire(count: number): Promise<string> {
  const route = await workspace.publish();
  for (let n = 0; n < count; n += 1)
    await workspace.submit({ name: `Person ${n}`, email: `p${n}@weir.example`, company: 'Weir' });
  await until(deals, (found) => found.length === count);
  return route;
}

describe('pipelines', () => {
  test('are made with keys of their own, renamed without changing them, and put in order', async () => {
    const made = await person<PipelineShape>('POST', '/pipelines', { name: 'Care plans', record: 'deal' });
    expect(made.status).toBe(201);
    expect(made.body).toMatchObject({
      key: 'care-plans',
      stages: [{ key: 'new' }, { state: 'won' }, { state: 'lost' }],
    });
    const again = await person<ProblemBody>('POST', '/pipelines', { name: 'care PLANS', record: 'deal' });
    expect([again.status, again.body.errors?.[0]?.at]).toEqual([422, '/name']);
    const renamed = await person<PipelineShape>('PATCH', '/pipelines/care-plans', { name: 'Care' });
    expect([renamed.body.key, renamed.body.name]).toEqual(['care-plans', 'Care']);
    const { body } = await person<PipelineShape[]>('POST', '/pipelines/order', { ids: [made.body.id] });
    expect(body.map(({ key }) => key)).toEqual(['care-plans', 'new-builds']);
  });

  test('are made whole by a script, stages and all', async () => {
    const { status, body } = await workspace.call<PipelineShape>('POST', '/pipelines', {
      name: 'Dealers',
      record: 'deal',
      stages: [
        { name: 'Applied', probability: 10, stuckAfter: 14 },
        { name: 'Signed', state: 'won' },
      ],
    });
    expect(status).toBe(201);
    expect(body.stages).toEqual([
      { key: 'applied', name: 'Applied', state: 'open', probability: 10, stuckAfter: 14 },
      { key: 'signed', name: 'Signed', state: 'won' },
    ]);
  });

  test.each<[string, unknown, string]>([
    ['without a name', { name: ' ', record: 'deal' }, '/name'],
    ['of nothing that is known', { name: 'A', record: 'contact' }, '/record'],
    ['without an open stage', { name: 'A', record: 'deal', stages: [{ name: 'Won', state: 'won' }] }, '/stages'],
    [
      'with a probability of 101',
      { name: 'A', record: 'deal', stages: [{ name: 'B', probability: 101 }] },
      '/stages/0/probability',
    ],
    [
      'with two stages of one name',
      { name: 'A', record: 'deal', stages: [{ name: 'B' }, { name: 'b' }] },
      '/stages/1/name',
    ],
    ['with what is not a property', { name: 'A', record: 'deal', colour: 'red' }, '/colour'],
  ])('%s are refused at the place', async (_, body, at) => {
    const answer = await person<ProblemBody>('POST', '/pipelines', body);
    expect([answer.status, answer.body.errors?.map((error) => error.at)]).toEqual([422, expect.arrayContaining([at])]);
  });
});

describe('stages', () => {
  test('are added, moved and changed; a key that has gone is not given again', async () => {
    await person('POST', `${BUILDS}/stages`, { name: 'Quote', probability: 60 });
    expect(await stageKeys()).toEqual(['enquiry', 'design', 'quote', 'won']);
    await person('PATCH', `${BUILDS}/stages/quote`, { position: 0, name: 'Offer', probability: null, stuckAfter: 21 });
    expect((await builds()).stages[0]).toEqual({ key: 'quote', name: 'Offer', state: 'open', stuckAfter: 21 });
    await person('PATCH', `${BUILDS}/stages/quote`, { position: 2 });
    expect(await stageKeys()).toEqual(['enquiry', 'design', 'quote', 'won']);
    expect((await person('DELETE', `${BUILDS}/stages/quote`)).status).toBe(200);
    await person('POST', `${BUILDS}/stages`, { name: 'Quote' });
    expect(await stageKeys()).toEqual(['enquiry', 'design', 'quote-2', 'won']);
  });

  test('that become won make their deals won, and open again', async () => {
    await enquire(2);
    const state = async () => (await deals()).map(({ values }) => [values.status, values.closed_at !== undefined]);
    await person('PATCH', `${BUILDS}/stages/enquiry`, { state: 'won' });
    expect(await state()).toEqual([
      ['won', true],
      ['won', true],
    ]);
    await person('PATCH', `${BUILDS}/stages/enquiry`, { state: 'open' });
    expect(await state()).toEqual([
      ['open', false],
      ['open', false],
    ]);
  });

  test('that are the last open one stay', async () => {
    await person('DELETE', `${BUILDS}/stages/design`);
    const { status, body } = await person<ProblemBody>('DELETE', `${BUILDS}/stages/enquiry`);
    expect([status, body.detail]).toEqual([409, 'New builds needs a stage that is open.']);
    expect((await person<ProblemBody>('PATCH', `${BUILDS}/stages/enquiry`, { state: 'lost' })).status).toBe(422);
  });
});

describe('removing what is in use', () => {
  test('tells what stands there and what names it, and does nothing before it knows where that goes', async () => {
    await enquire(3);
    const use = (await workspace.get<PlaceUse[]>('/set-up/place-uses')).find(({ stage }) => stage === 'enquiry');
    expect(use).toMatchObject({ records: 3, routes: [{ name: 'Enquiries' }] });
    const { status, body } = await person<ProblemBody>('DELETE', `${BUILDS}/stages/enquiry`);
    expect([status, body.code]).toEqual([409, 'in-use']);
    expect(body.detail).toBe('3 deals are in the stage Enquiry of New builds. Say with moveTo where they go.');
    expect(await stageKeys()).toContain('enquiry');
  });

  test.each(['new-builds/enquiry', 'new-builds/gone', 'gone/enquiry'])('refuses %s as the place to go', async (to) => {
    const { status, body } = await person<ProblemBody>('DELETE', `${BUILDS}/stages/enquiry?moveTo=${to}`);
    expect([status, body.errors?.[0]?.at]).toEqual([422, '/moveTo']);
  });

  test('moves the deals and rewrites the route; the next enquiry follows; all of it is taken back', async () => {
    const route = await enquire(2);
    const removed = await person<SetUpChange>('DELETE', `${BUILDS}/stages/enquiry?moveTo=new-builds/design`);
    expect(removed.body.text).toBe(
      'Removed the stage Enquiry of New builds; 2 deals and what 1 route named went to New builds, Design.',
    );
    expect((await deals()).map(({ values }) => values.stage)).toEqual(['design', 'design']);
    const [latest] = await workspace.get<HistoryEntry[]>(`/deals/${(await deals())[0]!.id}/history`);
    expect(latest!.cause).toMatchObject({ kind: 'person', label: 'Robin Nye' });
    expect(await workspace.get<RouteShape>(`/routes/${route}`)).toMatchObject({
      version: 2,
      state: 'live',
      draftDiffers: false,
    });
    await workspace.submit({ name: 'Later', email: 'later@weir.example' });
    await until(deals, (found) => found.length === 3 && found.every(({ values }) => values.stage === 'design'));

    // One of them moves on: taking back leaves it where somebody put it.
    const [moved] = (await deals()).filter(({ name }) => name.includes('Person 0'));
    await person('POST', `/deals/${moved!.id}/move`, { stage: 'won' });
    const back = await person<SetUpChange>('POST', `/set-up/changes/${removed.body.id}/take-back`);
    expect(back.body.takenBackAt).not.toBeNull();
    expect(await stageKeys()).toEqual(['enquiry', 'design', 'won']);
    expect(Object.fromEntries((await deals()).map(({ name, values }) => [name, values.stage]))).toEqual({
      'Glass for Person 0': 'won',
      'Glass for Person 1': 'enquiry',
      'Glass for Later': 'design',
    });
    expect((await workspace.get<RouteShape>(`/routes/${route}`)).version).toBe(3);
    expect((await person<ProblemBody>('POST', `/set-up/changes/${removed.body.id}/take-back`)).status).toBe(409);
    expect((await workspace.get<SetUpChange[]>('/set-up/changes')).map(({ id }) => id)).toEqual([removed.body.id]);
  });

  test('a route that was changed since keeps what a person made of it', async () => {
    const route = await enquire(1);
    const { body } = await person<SetUpChange>('DELETE', `${BUILDS}/stages/enquiry?moveTo=new-builds/design`);
    const { draft } = await workspace.get<RouteShape>(`/routes/${route}`);
    await person('PUT', `/routes/${route}/draft`, { ...draft, name: 'Mine' });
    await person('POST', `/routes/${route}/publish`, {});
    await person('POST', `/set-up/changes/${body.id}/take-back`);
    expect(await workspace.get<RouteShape>(`/routes/${route}`)).toMatchObject({ name: 'Mine', version: 3 });
  });

  test('a stage whose name was given to another meanwhile comes back told apart', async () => {
    const { body } = await person<SetUpChange>('DELETE', `${BUILDS}/stages/design`);
    await person('POST', `${BUILDS}/stages`, { name: 'Design' });
    await person('POST', `/set-up/changes/${body.id}/take-back`);
    expect((await builds()).stages.map(({ key, name }) => [key, name])).toEqual([
      ['enquiry', 'Enquiry'],
      ['design', 'Design (design)'],
      ['design-2', 'Design'],
      ['won', 'Won'],
    ]);
  });

  test('a whole pipeline goes and comes back, with its deals; the only one stays', async () => {
    await enquire(2);
    expect((await person<ProblemBody>('DELETE', BUILDS)).status).toBe(409);
    await person('POST', '/pipelines', { name: 'Care', record: 'deal' });
    const { id } = await builds();
    const removed = await person<SetUpChange>('DELETE', `${BUILDS}?moveTo=care/new`);
    expect(removed.status).toBe(200);
    expect((await deals()).map(({ values }) => values.pipeline)).toEqual(['care', 'care']);
    await person('POST', `/set-up/changes/${removed.body.id}/take-back`);
    expect((await builds()).id).toBe(id);
    expect((await workspace.get<PipelineShape[]>('/pipelines')).map(({ key }) => key)).toEqual(['new-builds', 'care']);
    expect((await deals()).map(({ values }) => [values.pipeline, values.stage])).toEqual([
      ['new-builds', 'enquiry'],
      ['new-builds', 'enquiry'],
    ]);
  });

  test('is done by a person where it moves deals in their name; a script may remove what is empty', async () => {
    const script = (path: string) => workspace.call<ProblemBody>('DELETE', `${BUILDS}/stages/${path}`);
    expect((await script('enquiry?moveTo=new-builds/design')).body.code).toBe('not-allowed');
    expect((await script('enquiry')).status).toBe(200);
  });
});

test('two people who remove the same stage at the same moment remove it once', async () => {
  await enquire(5);
  const remove = (to: string) => person<SetUpChange>('DELETE', `${BUILDS}/stages/enquiry?moveTo=new-builds/${to}`);
  const answers = await Promise.all([remove('design'), remove('won')]);
  expect(answers.map(({ status }) => status).sort()).toEqual([200, 404]);
  expect(new Set((await deals()).map(({ values }) => values.stage)).size).toBe(1);
});

test('a stage removed while enquiries pour in loses none of them: each ends in the stage they were sent to', async () => {
  await enquire(1);
  const sent = Array.from({ length: 80 }, (_, n) =>
    workspace.submit({ name: `Pour ${n}`, email: `pour${n}@weir${n % 5}.example`, company: 'Weir' }),
  );
  const removed = await person<SetUpChange>('DELETE', `${BUILDS}/stages/enquiry?moveTo=new-builds/design`);
  expect(removed.status).toBe(200);
  await Promise.all(sent);
  await workspace.handled();
  const others = `select distinct outcome, reason_code, summary from run where outcome <> 'written'`;
  expect(await workspace.query(others)).toEqual([]);
  const stages = (await deals()).map(({ values }) => values.stage);
  expect([stages.length, new Set(stages)]).toEqual([81, new Set(['design'])]);
});

test('a stage removed between reading what is due and planning it loses nothing', async () => {
  const records = server.app.get(RecordsService);
  const books = server.app.get(RouteBookService);
  let removal: Promise<unknown> | undefined;
  const [lockNames, lockAndLoad] = [records.lockNames.bind(records), records.lockAndLoad.bind(records)];
  const open = books.open.bind(books);
  const spies = [
    jest.spyOn(records, 'lockNames').mockImplementation((...given) => {
      removal ??= person('DELETE', `${BUILDS}/stages/enquiry?moveTo=new-builds/design`);
      return lockNames(...given);
    }),
    jest.spyOn(records, 'lockAndLoad').mockImplementation(async (...given) => {
      await removal;
      return lockAndLoad(...given);
    }),
    jest.spyOn(books, 'open').mockImplementation(async (tx) => {
      await removal;
      return open(tx);
    }),
  ];
  try {
    await enquire(1);
  } finally {
    for (const spy of spies) spy.mockRestore();
  }
  expect(await removal).toMatchObject({ status: 200 });
  expect(await workspace.query('select outcome, summary from run')).toMatchObject([{ outcome: 'written' }]);
  expect((await deals()).map(({ values }) => values.stage)).toEqual(['design']);
});

test('a view that tests for a removed stage tests for the one in its stead, and again for it once it is back', async () => {
  const filter = { all: [{ of: { field: 'stage' }, test: 'is', value: 'design' }] };
  const view = { columns: [{ field: 'name' }], filter };
  await person('POST', '/views', { record: 'deal', name: 'In design', view, shared: true });
  const uses = await workspace.get<PlaceUse[]>('/set-up/place-uses');
  expect(uses.find(({ stage }) => stage === 'design')!.views).toMatchObject([{ name: 'In design' }]);
  const { body } = await person<SetUpChange>('DELETE', '/pipelines/new-builds/stages/design?moveTo=new-builds/enquiry');
  const tested = async () => JSON.stringify((await workspace.get<SavedView[]>('/views'))[0]!.view.filter);
  expect(await tested()).toContain('"value":"enquiry"');
  await person('POST', `/set-up/changes/${body.id}/take-back`);
  expect(await tested()).toContain('"value":"design"');
});
