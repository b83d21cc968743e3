import { expect } from '@playwright/test';
import { test } from './journey';
import { signIn } from './support';

test('a new endpoint shows what is posted to it, and a route made from that writes it', async ({ page, request }) => {
  await signIn(page);
  await page.getByRole('link', { name: /^Intakes/ }).click();
  await page.getByRole('button', { name: 'New endpoint' }).click();
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('alert')).toContainText('Give it a name');
  await page.getByLabel('Name').fill('Allotment fair');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByText('Nothing has arrived yet.')).toBeVisible();
  const address = (await page.getByLabel('The address', { exact: true }).textContent())!;
  expect(address).toMatch(/\/in\/[\w-]{22}$/);

  const payload = {
    visitor: { first_name: 'wanjiru', last_name: 'MOSS', 'e-mail': 'wanjiru@mossfarm.example' },
    plots: 3,
  };
  expect((await request.post(address, { data: payload })).status()).toBe(202);
  await expect(page.getByRole('table').getByText('visitor.first_name')).toBeVisible();
  await expect(page.getByRole('button', { name: /wanjiru MOSS/ })).toContainText('no route takes it');

  await page.getByRole('link', { name: 'New route from it' }).click();
  await expect(page.getByLabel('Takes from').getByRole('option', { selected: true })).toHaveText('Allotment fair');
  await expect(page.getByLabel('Name')).toHaveValue('Allotment fair');
  await page.getByLabel('Name').fill('Fair visitors');
  await page.getByRole('button', { name: 'Make the draft' }).click();
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await expect(rehearsal).toContainText('Wanjiru');
  await expect(rehearsal).toContainText('nothing is written');
  await page.getByRole('button', { name: 'Publish…' }).click();
  await page.getByRole('button', { name: 'Publish version 1' }).click();
  await expect(page.getByText('live, version 1')).toBeVisible();

  await page.getByRole('link', { name: /^Submissions/ }).click();
  await page.getByRole('row', { name: /wanjiru MOSS/ }).click();
  await page.getByRole('button', { name: 'Run again' }).click();
  await expect(page.getByRole('row', { name: /wanjiru MOSS/ })).toContainText('New contact, new deal');
});

test('the dealers’ nested JSON becomes a deal, seen on the pipeline by itself', async ({ page, request, baseURL }) => {
  await signIn(page);
  await page.goto('/pipeline/dealers');
  await expect(page.getByRole('table')).toBeVisible();
  await request.post(`${baseURL}/in/dealers`, {
    data: {
      person: { name: { first: 'Joost', last: 'de Ruiter' }, email: 'joost@vanderlaan.example' },
      business: { name: 'Van der Laan', website: 'https://vanderlaan.example' },
    },
  });
  await expect(page.getByRole('button', { name: /Dealership Van der Laan/ })).toBeVisible();
});
