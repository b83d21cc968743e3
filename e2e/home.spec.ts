import { expect } from '@playwright/test';
import { test } from './journey';
import { endpoint, signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

test('home tells how the last day compares, and each of its figures leads to what it counts', async ({ page }, {
  retry,
}) => {
  const name = `Counted at home ${retry}`;
  const send = await endpoint(page, name);
  await send({ name: 'Ida Weir', email: `ida.home${retry}@weir.example` });
  await page.goto('/');
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/submissions since yesterday .* a week ago/);
  for (const figure of ['Received', 'Written', 'Failed', 'Median to record', 'New in pipeline'])
    await expect(page.getByRole('region', { name: figure })).toBeVisible();
  await expect(page.getByRole('img', { name: 'Received on each of the last 14 days' })).toBeVisible();
  const row = page.getByRole('row').filter({ hasText: name });
  await expect(row.getByRole('cell').nth(1)).toHaveText('1');
  await expect(page.getByText('where no route takes from the intake')).toBeVisible();
  await row.getByRole('link', { name: '1', exact: true }).click();
  await expect(page).toHaveURL(/\/submissions\?intake=/);
  await expect(page.getByRole('main')).toContainText('Ida Weir');
});

test('what needs somebody stands at home once, with the way to decide it', async ({ page }) => {
  const needs = page.getByRole('heading', { name: 'Needs you' }).locator('..');
  await needs.getByRole('link', { name: 'Decide' }).first().click();
  await expect(page).toHaveURL(/\/decide\//);
  await expect(page.getByRole('main').getByRole('heading', { level: 1 })).toBeVisible();
});
