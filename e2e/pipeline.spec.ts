import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { signIn } from './support';

const row = (page: Page, stage: string) =>
  page.getByRole('row').filter({ has: page.getByRole('heading', { name: stage, exact: true }) });

test.beforeEach(async ({ page }) => {
  await signIn(page);
  await page.getByRole('link', { name: /^Pipeline/ }).click();
  await expect(row(page, 'Enquiry')).toBeVisible();
});

test('a deal is dragged to another stage, and the move can be undone', async ({ page }) => {
  const card = row(page, 'Enquiry')
    .getByRole('button', { name: /in this stage/ })
    .first();
  const name = (await card.locator('b').textContent())!;
  const from = (await card.boundingBox())!;
  const to = (await row(page, 'Site survey').getByRole('cell').first().boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(from.x + 40, from.y + 40, { steps: 4 });
  await page.mouse.move(to.x + 60, to.y + 30, { steps: 8 });
  await page.mouse.up();
  await expect(page.getByText(`${name} is in Site survey now.`)).toBeVisible();
  await expect(row(page, 'Site survey').getByText(name, { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row(page, 'Enquiry').getByText(name, { exact: true })).toBeVisible();
});

test('a deal is moved and opened by keyboard, and its history tells who moved it', async ({ page }) => {
  const card = row(page, 'Design')
    .getByRole('button', { name: /in this stage/ })
    .first();
  const name = (await card.locator('b').textContent())!;
  await card.focus();
  await page.keyboard.press('4');
  const moved = row(page, 'Quote').getByRole('button', { name }).first();
  await expect(moved).toBeVisible();
  await moved.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name, exact: true })).toBeVisible();
  await expect(page.getByText('Changed by Robin Nye').first()).toBeVisible();
});
