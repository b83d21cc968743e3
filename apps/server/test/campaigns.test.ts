import { describe, expect, test } from '@jest/globals';
import type {
  CampaignLink,
  CampaignShape,
  Decided,
  DecisionList,
  DecisionShape,
  SourceRecords,
  SourcesReport,
} from '@haycart/api';
import { parse } from 'csv-parse/sync';
import { WrongLinks } from '../src/campaigns/wrong-links.service';
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

const SPRING = { name: 'Spring price list', code: 'spring', source: 'news', medium: 'email' };
const add = (more: object = {}) => person<CampaignShape>('POST', '/campaigns', { ...SPRING, ...more });
const cost = (more: object = {}, over?: string) =>
  person('POST', '/campaign-costs', {
    costs: [{ campaign: 'spring', from: '2026-03-01', to: '2026-03-02', amount: 100_01, currency: 'GBP', ...more }],
    ...(over ? { over } : {}),
  });
const costs = (key = 'spring-price-list') =>
  workspace.get<{ day: string; amount: number }[]>(`/campaigns/${key}/costs`);
async function report(query: string): Promise<SourcesReport> {
  await server.app.get(JourneysService).follow(workspace.id);
  return workspace.get<SourcesReport>(`/reports/sources?${query}`);
}
let bays = 0;
async function came(visit: object): Promise<void> {
  const payload = { name: 'Ada Weir', email: 'ada@weir.example', company: 'Weir', bays: (bays += 1) };
  await workspace.submit({ ...payload, _visit: JSON.stringify(visit) });
  await workspace.handled();
}

describe('the register', () => {
  test('keeps campaigns, of which no two have the same name or code', async () => {
    expect(await add({ starts: '2026-03-01', ends: '2026-05-31' })).toMatchObject({
      status: 201,
      body: { key: 'spring-price-list', code: 'spring', starts: '2026-03-01', links: 0, cost: [] },
    });
    expect(await add({ name: 'Another' })).toMatchObject({ status: 409 });
    expect(await add({ code: 'another' })).toMatchObject({ status: 409 });
    expect(await person('PATCH', '/campaigns/spring-price-list', { ends: '2026-02-01' })).toMatchObject({
      status: 422,
    });
    expect(await person('PATCH', '/campaigns/spring-price-list', { owner: 'nobody' })).toMatchObject({ status: 422 });
    expect(await person('PATCH', '/campaigns/none', { name: 'A' })).toMatchObject({ status: 404 });
    expect(await person('DELETE', '/campaigns/spring-price-list')).toMatchObject({ status: 204 });
    expect(await workspace.get('/campaigns')).toEqual([]);
  });

  test('lets nothing be removed with its costs', async () => {
    await add();
    await cost();
    expect(await person('DELETE', '/campaigns/spring-price-list')).toMatchObject({ status: 409 });
    expect(await person('PATCH', '/campaigns/spring-price-list', { archived: true })).toMatchObject({ status: 200 });
  });
});

describe('costs', () => {
  test('of a period are spread over its days, and those of days that have one are asked about', async () => {
    await add();
    expect(await cost()).toMatchObject({ status: 200, body: { days: 2, replaced: 0 } });
    expect((await costs()).map(({ amount }) => amount)).toEqual([50_01, 50_00]);
    const again = await cost({ to: '2026-03-03', amount: 30_00 });
    expect(again).toMatchObject({ status: 409 });
    expect(JSON.stringify(again.body)).toContain('2 days have a cost already (2026-03-01 to 2026-03-02)');
    expect(await cost({ to: '2026-03-03', amount: 30_00 }, 'add')).toMatchObject({ body: { days: 3, replaced: 2 } });
    expect((await costs()).map(({ amount }) => amount)).toEqual([60_01, 60_00, 10_00]);
    await cost({ to: '2026-03-01', amount: 1_00 }, 'replace');
    expect((await costs()).map(({ amount }) => amount)).toEqual([1_00, 60_00, 10_00]);
    const gone = await person('DELETE', '/campaigns/spring-price-list/costs?from=2026-03-02&to=2026-03-31');
    expect(gone).toMatchObject({ body: { days: 2 } });
    expect(await costs()).toHaveLength(1);
  });

  test('name a campaign of the register, or add it', async () => {
    const unknown = { campaign: 'Harvest Fair' };
    const refused = await cost(unknown);
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.body)).toContain('no campaign “Harvest Fair”');
    const rows = [{ ...unknown, from: '2026-03-01', to: '2026-03-01', amount: 5_00, currency: 'GBP' }];
    const brought = await person('POST', '/campaign-costs', { costs: [...rows, ...rows], addCampaigns: true });
    expect(brought.body).toEqual({ days: 1, replaced: 0, added: ['Harvest Fair'] });
    expect(await workspace.get('/campaigns')).toMatchObject([{ code: 'harvest-fair', cost: [{ amount: 10_00 }] }]);
    expect(
      await person('POST', '/campaign-costs', { costs: [...rows, { ...rows[0], currency: 'EUR' }], over: 'replace' }),
    ).toMatchObject({
      status: 422,
    });
  });

  test('stand in the report where links of the campaign count, and add up in the file', async () => {
    await add();
    await came({ utm_source: 'news', utm_medium: 'email', utm_campaign: 'Spring' });
    const today = new Date().toISOString().slice(0, 10);
    await cost({ from: today, to: today });
    await cost({ from: today, to: today, amount: 10_00, source: 'weekly', medium: 'cpc' });
    await cost({ from: today, to: today, amount: 7_00, currency: 'EUR', source: 'abroad', medium: 'cpc' });
    const { rows, groups, total, costsWithoutRate, campaigns } = await report('by=channel,source,campaign');
    expect(total.cost).toBe(110_01);
    expect(costsWithoutRate).toEqual(['EUR']);
    expect(campaigns).toEqual([{ key: 'spring-price-list', code: 'spring', name: 'Spring price list' }]);
    // What a link wrote in capitals is the same campaign.
    expect(
      rows.map(({ channel, source, campaign, submissions, cost: paid }) => [
        channel,
        source,
        campaign,
        submissions,
        paid,
      ]),
    ).toEqual([
      ['e-mail', 'news', 'spring', 1, 100_01],
      ['paid', 'weekly', 'spring', 0, 10_00],
    ]);
    expect(groups.find(({ channel, source }) => channel === 'paid' && !source)).toMatchObject({ cost: 10_00 });
    const behind = await workspace.get<SourceRecords>('/reports/sources/records?figure=cost&channel=paid');
    expect(behind).toMatchObject({ total: 1, items: [{ kind: 'campaign', id: 'spring-price-list', worth: 10_00 }] });
    const answer = await fetch(`${server.base}/api/v1/reports/sources/export?format=csv`, {
      headers: { authorization: `Bearer ${workspace.token}` },
    });
    const file = await answer.text();
    const lines: Record<string, string>[] = parse(file, { bom: true, columns: true });
    expect(lines.reduce((sum, line) => sum + Number(line.Cost), 0)).toBeCloseTo(110.01, 5);
    await person('PUT', '/exchange-rates', { rates: [{ currency: 'EUR', from: '2020-01-01', rate: '0.85' }] });
    expect(await report('by=channel')).toMatchObject({ total: { cost: 115_96 }, costsWithoutRate: [] });
  });
});

describe('links', () => {
  const make = (...links: object[]) => person<CampaignLink[]>('POST', '/campaigns/spring-price-list/links', { links });
  const page = 'https://quillfern.example/prices';

  test('are made by the rules, many at once, and tell what each brought', async () => {
    await add();
    const made = await make(
      { page, parameters: {} },
      { page, parameters: { utm_content: 'top' } },
      { page, parameters: {} },
    );
    expect(made.status).toBe(201);
    expect(made.body.map(({ address }) => address).sort()).toEqual([
      `${page}?utm_source=news&utm_medium=email&utm_campaign=spring`,
      `${page}?utm_source=news&utm_medium=email&utm_campaign=spring&utm_content=top`,
    ]);
    await came({ utm_source: 'news', utm_medium: 'email', utm_campaign: 'spring', utm_content: 'top' });
    await came({ utm_source: 'news', utm_medium: 'email', utm_campaign: 'spring', utm_content: 'top' });
    const links = await workspace.get<CampaignLink[]>('/campaigns/spring-price-list/links');
    expect(links.map(({ parameters, submissions, deals }) => [parameters.utm_content, submissions, deals])).toEqual(
      expect.arrayContaining([
        ['top', 2, 1],
        [undefined, 0, 0],
      ]),
    );
  });

  test('with the same parameters count by the page that they lead to', async () => {
    await add();
    const [one, other] = ['https://quillfern.example/prices', 'https://quillfern.example/schools'];
    await make({ page: one, parameters: {} }, { page: other, parameters: {} });
    const spring = { utm_source: 'news', utm_medium: 'email', utm_campaign: 'spring' };
    await came({ ...spring, page: `${one}/?x=1` });
    await came({ ...spring, page: 'https://quillfern.example/contact' });
    await came({ ...spring, page: 'https://quillfern.example/contact', landing: other });
    const links = await workspace.get<CampaignLink[]>('/campaigns/spring-price-list/links');
    // Of what was sent from another page, it is not known by which unless the page is told where the visitor came in.
    expect(links.map(({ address, submissions }) => [address.split('?')[0], submissions]).sort()).toEqual([
      [one, 2],
      [other, 2],
    ]);
  });

  test('against the rules are refused, each with what is wrong', async () => {
    await add({ source: '', medium: '' });
    await person('PUT', '/link-rules', {
      required: ['utm_source'],
      lowerCase: true,
      space: '-',
      words: { utm_medium: ['email'] },
    });
    const refused = await make(
      { page, parameters: { utm_source: 'News Letter' } },
      { page: 'nowhere', parameters: { utm_source: 'news', utm_medium: 'print' } },
    );
    expect(refused).toMatchObject({
      status: 422,
      body: {
        errors: [
          { at: '/links/0/utm_source', message: 'Source “News Letter” is written “news-letter”.' },
          { at: '/links/1/utm_medium', message: 'Medium “print” is none of the allowed words.' },
          { at: '/links/1/page' },
        ],
      },
    });
    expect(await person('PUT', '/link-rules', { required: ['utm_shoe'] })).toMatchObject({ status: 422 });
  });
});

describe('links that people came by', () => {
  const waiting = async () => {
    await server.app.get(WrongLinks).look(workspace.id);
    return (await workspace.get<DecisionList>('/decisions')).items.filter(({ kind }) => kind === 'link');
  };
  const decide = (id: string, action: string) => person<Decided>('POST', '/decisions/decide', { ids: [id], action });

  test('are watched once there are campaigns, and told where they are not as links are to be', async () => {
    await came({ utm_source: 'Older Mill', utm_medium: 'email' });
    await workspace.query(`update visit set at = at - interval '31 days'`);
    await came({ utm_source: 'Old Mill', utm_medium: 'email' });
    expect(await waiting()).toEqual([]);
    await add();
    await came({ utm_source: 'news', utm_medium: 'email', utm_campaign: 'spring' });
    await came({ utm_source: 'news', utm_medium: 'email', utm_campaign: 'autumn' });
    await came({ referrer: 'https://search.example/' });
    const lines = await waiting();
    expect(lines.map(({ subject, detail, count }) => [subject, detail, count]).sort()).toEqual([
      ['Old Mill, email', 'Source “Old Mill” is written “old-mill”.', 1],
      ['news, email, autumn', 'The register has no campaign “autumn”.', 1],
    ]);
    const autumn = lines.find(({ subject }) => subject.includes('autumn'))!;
    const shape = await workspace.get<DecisionShape>(`/decisions/${autumn.id}`);
    expect(shape).toMatchObject({ choices: [{ action: 'add' }, { action: 'leave' }], examples: [{}] });
    expect((await decide(autumn.id, 'add')).body.text).toBe('The register has a campaign autumn now.');
    const campaigns = await workspace.get<CampaignShape[]>('/campaigns');
    expect(campaigns.find(({ code }) => code === 'autumn')).toMatchObject({ source: 'news', medium: 'email' });
    const [left] = await waiting();
    expect(await decide(left!.id, 'leave')).toMatchObject({ status: 200 });
    expect(await waiting()).toEqual([]);
  });

  test('a slip away from a campaign count as it, also in the past, and that can be taken back', async () => {
    await add({ name: 'Spring price list', code: 'spring-2026' });
    await came({ utm_source: 'news', utm_medium: 'email', utm_campaign: 'sprng-2026' });
    const [line] = await waiting();
    const shape = await workspace.get<DecisionShape>(`/decisions/${line!.id}`);
    expect(shape.choices[0]).toMatchObject({ action: 'join', label: 'It is Spring price list' });
    expect((await decide(line!.id, 'join')).body.text).toBe(
      '“sprng-2026” counts as Spring price list; 1 touch of the past moved.',
    );
    expect(await waiting()).toEqual([]);
    const campaigns = async () => (await report('by=channel,source,campaign')).rows.map(({ campaign }) => campaign);
    expect(await campaigns()).toEqual(['spring-2026']);
    await came({ utm_source: 'news', utm_medium: 'email', utm_campaign: 'sprng-2026', utm_content: 'top' });
    expect(await waiting()).toEqual([]);
    const [change] = await workspace.get<{ id: string }[]>('/source-changes');
    await person('POST', `/source-changes/${change!.id}/take-back`);
    expect((await campaigns()).sort()).toEqual(['sprng-2026', 'spring-2026'].sort());
  });
});
