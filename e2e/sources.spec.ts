import { expect } from '@playwright/test';
import { test } from './journey';
import { signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

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
  const found = async () => {
    const list = await page.request.get(`/api/v1/deals?q=${encodeURIComponent(firm)}`);
    return ((await list.json()) as { items: { id: string }[] }).items[0]?.id;
  };
  await expect.poll(found).toBeTruthy();
  const deal = (await found())!;
  await page.request.patch(`/api/v1/deals/${deal}`, { data: { values: { value: '£ 9,876.54' } } });
  expect((await page.request.post(`/api/v1/deals/${deal}/move`, { data: { stage: 'signed' } })).ok()).toBe(true);

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

test('all that was acknowledged is accounted for, by intake and day', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /accounted for/ }).click();
  await expect(page.getByRole('heading', { name: 'Balance', level: 1 })).toBeVisible();
  await expect(page.getByText(/all \d+ are accounted for/)).toBeVisible();
  await page.getByLabel('days').selectOption('the last 90 days');
  const lines = page.getByRole('table', { name: 'Balance by intake and day' }).getByRole('row');
  await expect(lines.filter({ hasText: 'Site survey request' }).first()).toContainText('yes');
});
