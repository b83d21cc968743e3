import { expect } from '@playwright/test';
import { test } from './journey';
import { fillSurvey, landing } from './support';

const visitor = {
  first: 'ODILE',
  last: 'fournier',
  email: 'Odile@jardinecole.example',
  organisation: 'Jardin École',
  bays: '6',
};

test('from a campaign link over the landing page and the form to a deal with its source; a second enquiry makes no second one', async ({
  page,
  context,
}) => {
  await page.goto(
    landing(page, '/glasshouses/schools?utm_source=spring-newsletter&utm_medium=email&utm_campaign=spring-2026'),
  );
  // The campaign is remembered when the visitor goes on to another page first.
  await page.getByRole('link', { name: 'Prices' }).click();
  await page.getByRole('link', { name: 'Schools' }).click();
  await page.getByRole('link', { name: 'Ask for a site survey' }).click();
  await fillSurvey(page, visitor);
  await page.getByRole('button', { name: 'Ask for a survey' }).click();
  await expect(page.getByRole('heading', { name: /^Thank you, .*, we have it/ })).toBeVisible();

  const sales = await context.newPage();
  await sales.goto('/');
  await sales.getByRole('button', { name: /Robin Nye/ }).click();
  await sales.getByRole('link', { name: /^Submissions/ }).click();
  const first = sales.getByRole('row', { name: /ODILE fournier/ });
  await expect(first).toContainText('New company, new contact, new deal');
  await first.click();
  const panel = sales.getByRole('complementary', { name: 'The submission' });
  await expect(panel).toContainText('Placed in New builds, Enquiry');
  await expect(panel).toContainText('Recorded the source spring-newsletter');
  await panel.getByRole('link', { name: /Created a contact/ }).click();
  await expect(sales.getByRole('heading', { name: 'Odile Fournier' })).toBeVisible();
  await expect(sales.getByRole('button', { name: 'Edit First source: spring-newsletter' })).toBeVisible();
  await sales.getByRole('button', { name: 'Where First source came from' }).click();
  await expect(sales.getByRole('list', { name: 'Trace of First source' })).toContainText('visit: source');
  await sales.getByRole('button', { name: 'Where First name came from' }).click();
  await expect(sales.getByRole('list', { name: 'Trace of First name' })).toContainText('ODILE');
  await sales.getByRole('link', { name: 'Jardin École, Odile Fournier' }).click();
  await expect(sales.getByLabel('Stage', { exact: true })).toHaveValue('enquiry');

  await page.bringToFront();
  await page.goto(landing(page, '/glasshouses/schools?utm_source=show-stand'));
  await page.getByRole('link', { name: 'Ask for a site survey' }).click();
  await fillSurvey(page, { ...visitor, email: 'odile@JARDINECOLE.example', bays: '9' });
  await page.getByRole('button', { name: 'Ask for a survey' }).click();
  await expect(page.getByRole('heading', { name: /^Thank you, .*, we have it/ })).toBeVisible();

  // The deal's page shows what the second enquiry changed, by itself.
  await sales.bringToFront();
  await expect(sales.getByRole('button', { name: 'Edit Bays: 9' })).toBeVisible();
  await sales.getByRole('link', { name: 'Odile Fournier', exact: true }).click();
  await expect(sales.getByRole('button', { name: 'Edit First source: spring-newsletter' })).toBeVisible();
  await expect(sales.getByRole('link', { name: 'Jardin École, Odile Fournier' })).toHaveCount(1);
  await sales.goto('/records/contacts?q=jardinecole');
  await expect(sales.getByRole('table', { name: 'Contacts' }).getByRole('row')).toHaveCount(2);
});

test('wrong input on the form is told beside its question, and what was typed stays', async ({ page }) => {
  await page.goto('/f/survey');
  await page.getByLabel('First name').fill(visitor.first);
  await page.getByLabel('Work e-mail').fill('odile at jardinecole');
  await page.getByRole('button', { name: 'Next' }).click();
  await expect(page.getByText('Please fill this in.')).toBeVisible();
  await expect(page.getByText('Please check the address')).toBeVisible();
  await expect(page.getByLabel('Last name')).toBeFocused();
  await expect(page.getByLabel('First name')).toHaveValue('ODILE');
  await page.reload();
  await expect(page.getByLabel('Work e-mail')).toHaveValue('odile at jardinecole');
});

test.describe('without JavaScript', () => {
  test.use({ javaScriptEnabled: false });
  test('the server checks the form, keeps what was typed, and takes it when it is right', async ({ page }) => {
    await page.goto('/f/survey?utm_source=school-gardens');
    await fillSurvey(page, { ...visitor, email: 'no address' });
    await page.getByRole('button', { name: 'Ask for a survey' }).click();
    await expect(page.getByRole('alert')).toContainText('Work e-mail');
    await expect(page.getByLabel('First name')).toHaveValue('ODILE');
    await expect(page.getByLabel('Teaching garden')).toBeChecked();
    await page.getByLabel('Work e-mail').fill('odile@example.net');
    await page.getByRole('button', { name: 'Ask for a survey' }).click();
    await expect(page.getByRole('heading', { name: /^Thank you, .*, we have it/ })).toBeVisible();
  });
});
