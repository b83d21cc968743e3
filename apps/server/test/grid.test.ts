import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { AGE_BANDS, type Page, type PipelineGrid, type RecordShape } from '@haycart/api';
import { routeFrom } from './support/routes';
import { newDatabase, TestServer, TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
let person: TestWorkspace['call'];

beforeAll(async () => {
  server = await TestServer.start(await newDatabase());
});
afterAll(() => server.stop());
beforeEach(async () => {
  workspace = await TestWorkspace.make(server);
  person = await workspace.signIn();
  const definition = routeFrom(workspace.endpoint);
  definition.writes[2]!.fills.push({ field: 'value', value: { parts: [{ answer: 'budget' }] } });
  await workspace.publish(definition);
});

const grid = () => workspace.get<PipelineGrid>('/pipelines/new-builds/grid');
const row = async (stage: string) => (await grid()).rows.find((one) => one.stage === stage)!;
const counts = async (stage: string) => {
  const { cells } = await row(stage);
  return AGE_BANDS.map((band) => cells[band].count);
};

/** Deals of as many people, one for each budget, with their ids in the same order. */
async function deals(...budgets: string[]): Promise<string[]> {
  for (const [n, budget] of budgets.entries())
    await workspace.submit({ name: `P${n}`, email: `p${n}@weir.example`, budget });
  const { items } = await until(
    () => workspace.get<Page<RecordShape>>('/deals?limit=200'),
    (page) => page.items.length === budgets.length,
  );
  const id = (n: number) => items.find(({ name }) => name === `Glass for P${n}`)!.id;
  return budgets.map((_, n) => id(n));
}

const sitSince = (id: string, days: number) =>
  workspace.query(`update deal set stage_since = now() - make_interval(days => ${days}) where id = '${id}'`);

describe('the grid of a pipeline', () => {
  test('puts each deal in the column of how long it has been in its stage', async () => {
    const ids = await deals('1', '2', '3', '4');
    for (const [n, days] of [0, 3, 20, 45].entries()) await sitSince(ids[n]!, days);
    expect(await counts('enquiry')).toEqual([1, 1, 1, 1]);
    expect(await counts('design')).toEqual([0, 0, 0, 0]);
  });

  test('calls a deal stuck by what its stage says, however short that is', async () => {
    const ids = await deals('1', '2', '3');
    for (const [n, days] of [0, 3, 45].entries()) await sitSince(ids[n]!, days);
    await person('PATCH', '/pipelines/new-builds/stages/enquiry', { stuckAfter: 2 });
    expect(await counts('enquiry')).toEqual([1, 0, 0, 2]);
    await person('PATCH', '/pipelines/new-builds/stages/enquiry', { stuckAfter: 60 });
    expect(await counts('enquiry')).toEqual([1, 1, 1, 0]);
    await person('PATCH', '/pipelines/new-builds/stages/enquiry', { stuckAfter: null });
    expect(await counts('enquiry')).toEqual([1, 1, 0, 1]);
  });

  test('adds up what a stage is worth, by currency, the larger first', async () => {
    await deals('£ 1,000', '£ 500', '€ 20.000', '');
    const { count, worth } = await row('enquiry');
    const byCurrency = [
      { currency: 'EUR', amount: 2_000_000 },
      { currency: 'GBP', amount: 150_000 },
    ];
    expect([count, worth]).toEqual([4, { byCurrency, total: byCurrency[1], without: ['EUR'] }]);
    await person('PUT', '/exchange-rates', { rates: [{ currency: 'EUR', from: '2026-01-01', rate: '0.85' }] });
    expect((await row('enquiry')).worth).toEqual({
      byCurrency,
      total: { currency: 'GBP', amount: 1_850_000 },
      without: [],
    });
  });

  test('is narrowed as a list is, its conversion too', async () => {
    const ids = await deals('1', '2', '3');
    await person('PATCH', `/deals/${ids[0]}`, { values: { owner: 'robin-nye' } });
    await person('POST', `/deals/${ids[1]}/move`, { stage: 'design' });
    const filter = JSON.stringify({ of: { field: 'owner' }, test: 'is-any-of', value: ['robin-nye'] });
    const { rows } = await workspace.get<PipelineGrid>(
      `/pipelines/new-builds/grid?days=30&filter=${encodeURIComponent(filter)}`,
    );
    expect(rows.map(({ count, left }) => [count, left])).toEqual([
      [1, 0],
      [0, 0],
    ]);
    expect((await workspace.call('GET', '/pipelines/new-builds/grid?days=0')).status).toBe(422);
  });

  test('tells how many went on from a stage, and what was won', async () => {
    const ids = await deals('£ 10', '£ 20', '£ 30', '£ 40');
    const move = (n: number, stage: string) => person('POST', `/deals/${ids[n]}/move`, { stage });
    await person('POST', '/pipelines/new-builds/stages', { name: 'Lost', state: 'lost' });
    await move(0, 'design');
    await move(1, 'design');
    await move(1, 'won');
    await move(2, 'lost');
    const { rows, closed } = await grid();
    expect(rows.map(({ stage, count, goOn }) => [stage, count, goOn])).toEqual([
      ['enquiry', 1, 2 / 3],
      ['design', 1, 1],
    ]);
    expect(closed.map(({ state, count, worth }) => [state, count, worth.total])).toEqual([
      ['won', 1, { currency: 'GBP', amount: 2_000 }],
      ['lost', 1, { currency: 'GBP', amount: 3_000 }],
    ]);
  });

  test('follows stages that are put in another order', async () => {
    await person('PATCH', '/pipelines/new-builds/stages/design', { position: 0 });
    expect((await grid()).rows.map(({ stage }) => stage)).toEqual(['design', 'enquiry']);
    expect((await workspace.call('GET', '/pipelines/gone/grid')).status).toBe(404);
  });
});
