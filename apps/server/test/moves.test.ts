import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { HistoryEntry, Page, ProblemBody, RecordShape, SubmissionDetail } from '@haycart/api';
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
});

async function enquire(bays: string): Promise<SubmissionDetail> {
  const id = await workspace.submit({ name: 'Ada Weir', email: 'ada@weir.example', company: 'Weir', bays });
  return until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state }) => state !== 'waiting',
  );
}
const deals = async () => (await workspace.get<Page<RecordShape>>('/deals')).items;
const move = (id: string, stage: string) => person<RecordShape & ProblemBody>('POST', `/deals/${id}/move`, { stage });

describe('a deal that a person moved', () => {
  test('is not dragged back by a second enquiry, which still updates it', async () => {
    await workspace.publish();
    await enquire('3');
    const [deal] = await deals();
    await move(deal!.id, 'design');
    await enquire('7');
    expect((await deals()).map(({ id, values }) => [id, values.stage, values.bays])).toEqual([[deal!.id, 'design', 7]]);
  });

  test('is moved on by a second enquiry whose route places it further, and back only where that is allowed', async () => {
    const definition = routeFrom(workspace.endpoint);
    const { place } = definition.writes[2]!;
    await workspace.publish(definition);
    await enquire('1');
    const [deal] = await deals();
    const stage = async () => (await deals())[0]!.values.stage;
    const republish = async (to: string, backwards: boolean) => {
      Object.assign(place!, { stage: { parts: [{ text: to }] }, backwards });
      const [route] = await workspace.get<{ id: string }[]>('/routes');
      await workspace.call('PUT', `/routes/${route!.id}/draft`, definition);
      await workspace.call('POST', `/routes/${route!.id}/publish`, {});
    };
    await republish('design', false);
    await enquire('2');
    expect(await stage()).toBe('design');
    await republish('enquiry', false);
    await enquire('3');
    expect(await stage()).toBe('design');
    await republish('enquiry', true);
    await enquire('4');
    expect(await stage()).toBe('enquiry');
    expect(await deals()).toHaveLength(1);
    expect(deal!.id).toBe((await deals())[0]!.id);
  });

  test('closes with a time and opens without one; a new enquiry after closing makes another deal', async () => {
    await workspace.publish();
    await enquire('3');
    const [deal] = await deals();
    const closed = await move(deal!.id, 'won');
    expect(closed.body.values).toMatchObject({ status: 'won', closed_at: expect.any(String) });
    await enquire('5');
    expect((await deals()).map(({ values }) => values.status).sort()).toEqual(['open', 'won']);
    const opened = await move(deal!.id, 'enquiry');
    expect(opened.body.values.status).toBe('open');
    expect(opened.body.values.closed_at).toBeUndefined();
  });

  test('tells in its history who moved it from where to where, and nothing for a move to where it is', async () => {
    await workspace.publish();
    await enquire('3');
    const [deal] = await deals();
    await move(deal!.id, 'design');
    await move(deal!.id, 'design');
    const history = await workspace.get<HistoryEntry[]>(`/deals/${deal!.id}/history`);
    expect(history.map(({ cause }) => cause.kind)).toEqual(['person', 'run']);
    expect(history[0]!.values.find(({ field }) => field === 'stage')).toMatchObject({
      before: 'enquiry',
      after: 'design',
      trace: null,
    });
  });

  test('is refused to stages that are not there, and for deals that are not there', async () => {
    await workspace.publish();
    await enquire('3');
    const [deal] = await deals();
    expect((await move(deal!.id, 'gone')).body.errors?.[0]?.at).toBe('/stage');
    expect((await move('01a20bc8-b722-779e-9a06-f5adeb500291', 'design')).status).toBe(404);
    const other = await (await TestWorkspace.make(server)).signIn();
    expect((await other('POST', `/deals/${deal!.id}/move`, { stage: 'design' })).status).toBe(404);
    expect((await deals())[0]!.values.stage).toBe('enquiry');
  });

  test('by two people at once ends in one of their stages, with both in its history', async () => {
    await workspace.publish();
    await enquire('3');
    const [deal] = await deals();
    await Promise.all([move(deal!.id, 'design'), move(deal!.id, 'won')]);
    const history = await workspace.get<HistoryEntry[]>(`/deals/${deal!.id}/history`);
    const { stage, status } = (await deals())[0]!.values;
    expect([
      ['design', 'open'],
      ['won', 'won'],
    ]).toContainEqual([stage, status]);
    expect(history.filter(({ cause }) => cause.kind === 'person')).toHaveLength(2);
  });
});
