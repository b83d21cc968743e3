import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

/** Waits for the deal of a firm and wins it. */
async function winDealOf(page: Page, firm: string, value: string): Promise<void> {
  const found = async () => {
    const list = await page.request.get(`/api/v1/deals?q=${encodeURIComponent(firm)}`);
    return ((await list.json()) as { items: { id: string }[] }).items[0]?.id;
  };
  await expect.poll(found).toBeTruthy();
  const deal = (await found())!;
  await page.request.patch(`/api/v1/deals/${deal}`, { data: { values: { value } } });
  expect((await page.request.post(`/api/v1/deals/${deal}/move`, { data: { stage: 'signed' } })).ok()).toBe(true);
}

test('what an enquiry came by brings the deal that is won, to the record behind the figure; the total stays with any credit', async ({
  page,
}, { retry }) => {
  const source = `growers-fair-${retry}`;
  const campaign = `autumn-${retry}`;
  const firm = `Yewhurst ${retry} Growers`;
  const sent = await page.request.post('/in/dealers', {
    data: {
      application: { id: `Y-${retry}`, submitted: new Date().toISOString() },
      person: { name: { first: 'Yara', last: 'Holt' }, email: `yara@yewhurst${retry}.example`, phones: [] },
      business: { name: firm, website: `https://yewhurst${retry}.example`, country: 'GB', glass_m2: 900 },
      plans: { units_per_year: 12, message: 'We would like to sell yours.' },
      terms: true,
      _visit: {
        utm_source: source,
        utm_medium: 'stand',
        utm_campaign: campaign,
        page: 'https://dealers.example/apply',
      },
    },
  });
  expect(sent.status()).toBe(202);
  await winDealOf(page, firm, '£ 9,876.54');

  await page.goto('/sources');
  const table = page.getByRole('table', { name: 'Where business came from' });
  const total = table.getByRole('row', { name: /^All/ });
  await table.getByRole('button', { name: 'Campaign', exact: true }).click();
  await table.getByRole('button', { name: source }).click();
  const row = table.getByRole('row', { name: new RegExp(`^${campaign}`) });
  await expect(row).toContainText('£ 9,876.54');
  const whole = await total.innerText();
  await page.getByLabel('credit').selectOption('last');
  await expect(page.getByText('All goes to what somebody came by last')).toBeVisible();
  await expect(total).toHaveText(whole.replaceAll('\t', ''));
  await expect(row).toContainText('£ 9,876.54');

  await row.getByRole('button', { name: '£ 9,876.54' }).last().click();
  const behind = page.getByRole('dialog', { name: `Deals won: Campaign, ${source}, ${campaign}` });
  await expect(behind.getByRole('row')).toHaveCount(2);
  await behind.getByRole('link').click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(firm);
});

test('a campaign’s link, from the builder to the deal that it won on the report, beside what it cost', async ({
  page,
}, { retry }) => {
  const name = `Glass week ${retry}`;
  const firm = `Hazelbank ${retry}`;
  await page.goto('/sources/campaigns');
  await page.getByRole('button', { name: 'New campaign' }).click();
  const made = page.getByRole('dialog', { name: 'New campaign' });
  await made.getByLabel('Name', { exact: true }).fill(name);
  await expect(made.getByLabel('Its links say')).toHaveValue(`glass-week-${retry}`);
  await made.getByLabel('Source', { exact: true }).fill('garden-radio');
  await made.getByLabel('Medium').fill('audio');
  await made.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();

  await page.getByRole('button', { name: 'Make links' }).click();
  const builder = page.getByRole('dialog', { name: `Links of ${name}` });
  await builder.getByLabel('Page it leads to').fill('quillfern.example/prices');
  await builder.getByLabel('Content (if any)').fill('Morning Show');
  await builder.getByLabel('Term (if any)').focus();
  await expect(builder.getByText(/utm_content=morning-show/)).toBeVisible();
  await builder.getByRole('button', { name: 'Make the link' }).click();
  const link = page.getByRole('table', { name: 'Links' }).getByRole('row', { name: /morning-show/ });
  await expect(link).toBeVisible();
  await link.getByRole('button', { name: /QR code/ }).click();
  await expect(page.getByRole('dialog', { name: /QR code/ }).getByRole('img')).toBeVisible();
  await page.keyboard.press('Escape');

  await page.getByLabel('From', { exact: true }).fill(new Date().toISOString().slice(0, 10));
  await page.getByLabel('Cost', { exact: true }).fill('£ 250');
  await page.getByRole('button', { name: 'Add the cost' }).click();
  const costs = page.getByRole('table', { name: 'Costs by month' });
  await expect(costs).toContainText('£ 250.00');
  await costs.getByRole('button', { name: /^Remove the costs of/ }).click();
  await expect(costs).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Undo' })).toBeHidden();
  await expect(costs).toContainText('£ 250.00');
  await link.getByRole('button', { name: /^Remove the link/ }).click();
  await expect(link).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(link).toBeVisible();

  const listed = await page.request.get(`/api/v1/campaigns/glass-week-${retry}/links`);
  const [first] = (await listed.json()) as { address: string }[];
  const said = Object.fromEntries(new URL(first!.address).searchParams);
  const sent = await page.request.post('/in/dealers', {
    data: {
      application: { id: `Z-${retry}`, submitted: new Date().toISOString() },
      person: { name: { first: 'Zora', last: 'Lund' }, email: `zora@hazelbank${retry}.example`, phones: [] },
      business: { name: firm, website: `https://hazelbank${retry}.example`, country: 'GB', glass_m2: 900 },
      plans: { units_per_year: 12, message: 'We heard of you on the radio.' },
      terms: true,
      _visit: { ...said, page: 'https://dealers.example/apply' },
    },
  });
  expect(sent.status()).toBe(202);
  await winDealOf(page, firm, '£ 4,321.09');

  await page.goto('/sources');
  const table = page.getByRole('table', { name: 'Where business came from' });
  await table.getByRole('button', { name: 'Campaign', exact: true }).click();
  await table.getByRole('button', { name: 'garden-radio' }).click();
  const row = table.getByRole('row', { name: new RegExp(`^${name}`) });
  await expect(row).toContainText('£ 4,321.09');
  await expect(row.getByRole('button', { name: '£ 250.00' })).toBeVisible();
  await row.getByRole('button', { name: '£ 250.00' }).click();
  await page
    .getByRole('dialog', { name: /What campaigns cost/ })
    .getByRole('link', { name })
    .click();
  await expect(link).toContainText('1');
});

test('a wrong channel is corrected for the past and taken back; spellings of one source are joined', async ({
  page,
}) => {
  await page.goto('/set-up/sources');
  const past = page.getByRole('region', { name: 'The past' });
  await expect(past).toContainText('None of the last year’s');
  const names = page.getByRole('region', { name: 'Names' });
  await names.getByRole('button', { name: 'Join' }).first().click();
  await expect(past).toContainText('would come from elsewhere');
  const apply = past.getByRole('button', { name: 'Apply to the past' });
  await expect(apply).toBeDisabled();

  const grid = page.getByRole('grid', { name: 'Channels' });
  await grid.getByRole('gridcell', { name: 'sm' }).dblclick();
  await page.getByRole('combobox', { name: 'Cell' }).fill('event');
  await page.keyboard.press('Enter');
  await expect(past.getByRole('row', { name: /campaign, show-stand\s+social, show-stand/ })).toBeVisible();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('What comes from now on goes by these rules')).toBeVisible();
  await apply.click();
  await expect(past).toContainText('None of the last year’s');
  const change = past.getByRole('listitem').first();
  await expect(change).toContainText('Moved');

  const social = async () => {
    const answer = await page.request.get('/api/v1/reports/sources?by=channel');
    const { rows } = (await answer.json()) as { rows: { channel: string; submissions: number }[] };
    return rows.find(({ channel }) => channel === 'social')?.submissions ?? 0;
  };
  await expect.poll(social).toBeGreaterThan(0);
  await change.getByRole('button', { name: 'Take back' }).click();
  await expect(change).toContainText('taken back');
  await expect.poll(social).toBe(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Saved' })).toBeVisible();
});

test('all that was acknowledged is accounted for, by intake and day', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /accounted for/ }).click();
  await expect(page.getByRole('heading', { name: 'Balance', level: 1 })).toBeVisible();
  await expect(page.getByText(/all \d+ are accounted for/)).toBeVisible();
  await page.getByLabel('days').selectOption('the last 90 days');
  const lines = page.getByRole('table', { name: 'Balance by intake and day' }).getByRole('row');
  await expect(lines.filter({ hasText: 'Site survey request' }).first()).toContainText('yes');
});

test('the report is narrowed to a pipeline, told apart by it, and its funnel says where deals are lost', async ({
  page,
}) => {
  await page.goto('/sources?period=365');
  const table = page.getByRole('table', { name: 'Where business came from' });
  const dealsOf = async (row: RegExp) => (await table.getByRole('row', { name: row }).innerText()).split('\t');
  await page.getByLabel('rows by').selectOption({ label: 'Pipeline of the deal' });
  await expect(table.getByRole('row', { name: /^Dealers/ })).toBeVisible();
  const [, deals] = await dealsOf(/^Dealers/);
  await page.getByRole('button', { name: 'Any rows by' }).click();

  await page.getByRole('button', { name: 'Filter' }).click();
  await page.getByRole('button', { name: 'Test', exact: true }).click();
  await page.getByLabel('Field', { exact: true }).selectOption({ label: 'Pipeline' });
  await page.getByLabel('Wanted').selectOption('Dealers');
  await page.keyboard.press('Escape');
  await expect(page.getByText('Deal: Pipeline is Dealers')).toBeVisible();
  await expect(
    table.getByRole('row', { name: /^All/ }).getByRole('button', { name: deals!, exact: true }),
  ).toBeVisible();

  await page.getByRole('link', { name: 'Funnel' }).click();
  await page.getByLabel(/^pipeline/).selectOption('Dealers');
  const funnel = page.getByRole('table', { name: 'How far it came' });
  await expect(funnel.getByRole('row', { name: /^All/ })).toContainText(deals!);
  await expect(funnel.getByRole('row', { name: /^All/ })).toContainText('lost');
  const all = funnel.getByRole('row', { name: /^All/ });
  await all.getByRole('button', { name: deals!, exact: true }).first().click();
  await expect(page.getByRole('dialog', { name: 'Deals begun: all' })).toContainText(deals!);
  await page.keyboard.press('Escape');
  const lost = all.getByRole('button', { name: / lost$/ }).first();
  const count = (await lost.textContent())!.replace(' lost', '');
  await lost.click();
  await expect(page.getByRole('dialog', { name: /^Deals begun: all, lost at / })).toContainText(count);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'No longer: Deal: Pipeline is Dealers' }).click();
  await expect(page.getByText('Deal: Pipeline is Dealers')).toBeHidden();
});

test('a view is mailed each Monday, tried at once, and ended', async ({ page }, { retry }) => {
  const name = `Paid alone ${retry}`;
  await page.goto('/sources?period=last-week');
  await page.getByRole('button', { name: 'Mail', exact: true }).click();
  await page.getByLabel('Mail this view to me each Monday, as').fill(name);
  await page.keyboard.press('Enter');
  const mails = page.getByRole('list', { name: 'What is mailed to you' });
  const line = mails.getByRole('listitem').filter({ hasText: name });
  await line.getByRole('button', { name: 'Send now' }).click();
  await expect(line).toContainText(/mailed \d\d:\d\d/);
  await line.getByRole('button', { name: `Mail “${name}” no more` }).click();
  await expect(line).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Mail', exact: true }).click();
  await expect(line).toBeVisible();
});

test('a form tells on one picture how many looked, left, sent and were won', async ({ page }) => {
  await page.goto('/intakes/survey/form');
  await page.getByRole('button', { name: 'More about this form' }).click();
  await page.getByRole('menuitem', { name: 'What happens at it' }).click();
  await page.getByLabel('over the last').selectOption('365 days');
  const steps = page.getByRole('table', { name: 'From looking to won' });
  await expect(steps.getByRole('row', { name: /^Looked/ })).toContainText('100 %');
  await expect(steps.getByRole('row', { name: /left here/ }).first()).toBeVisible();
  await expect(steps.getByRole('row', { name: /^Won deals [1-9]/ })).toBeVisible();
});
