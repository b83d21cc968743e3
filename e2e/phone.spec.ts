import { expect } from '@playwright/test';
import { test } from './journey';
import { fillSurvey, landing, signIn } from './support';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

test('on a phone an enquiry is sent, read and followed to its deal', async ({ page }) => {
  await page.goto(landing(page, '/glasshouses/schools?utm_source=phone-campaign'));
  await page.getByRole('link', { name: 'Ask for a site survey' }).tap();
  await fillSurvey(page, { first: 'Yusuf', last: 'Tarn', email: 'yusuf@tarnpark.example', organisation: 'Tarn Park' });
  await page.getByRole('button', { name: 'Ask for a survey' }).tap();
  await expect(page.getByRole('heading', { name: /^Thank you, .*, we have it/ })).toBeVisible();

  await page.goto('/');
  await signIn(page);
  await page.getByRole('button', { name: 'Menu, at Home' }).tap();
  await page.getByRole('menuitem', { name: /^Submissions/ }).tap();
  await expect(page.getByRole('button', { name: 'Menu, at Submissions' })).toBeVisible();
  await page.getByRole('row', { name: /Yusuf Tarn/ }).tap();
  const panel = page.getByRole('complementary', { name: 'The submission' });
  await expect(panel).toContainText('Recorded the source phone-campaign');
  await panel.getByRole('link', { name: /Created a contact/ }).tap();
  await expect(page.getByRole('heading', { name: 'Yusuf Tarn' })).toBeVisible();
  await page.getByRole('link', { name: 'Tarn Park, Yusuf Tarn' }).tap();
  await expect(page.getByLabel('Stage', { exact: true })).toHaveValue('enquiry');
});

test('on a phone a stage is added and taken away, and a field is made', async ({ page }) => {
  await signIn(page);
  await page.getByRole('link', { name: 'Set up' }).tap();
  await page.getByRole('link', { name: 'Pipelines' }).tap();
  await page.getByRole('link', { name: /^Care plans/ }).tap();
  await expect(page.getByRole('row').filter({ has: page.getByLabel('Name of Call booked') })).toContainText(
    /\d deals?/,
  );
  await page.getByLabel('Name of a new stage').fill('Waiting');
  await page.getByRole('button', { name: 'Add the stage' }).tap();
  await expect(page.getByLabel('Name of Waiting')).toBeVisible();
  await page.getByRole('button', { name: 'Remove Waiting' }).tap();
  await expect(page.getByLabel('Name of Waiting')).toHaveCount(0);

  await page.getByRole('link', { name: 'Fields' }).tap();
  await page.getByRole('link', { name: /^Company/ }).tap();
  await expect(page.getByRole('row').filter({ has: page.getByLabel('Label of Domain') })).toContainText(
    /text, \d+ % filled, Site survey request \+ \d/,
  );
  await page.getByRole('button', { name: 'New fields' }).tap();
  await page.getByLabel('Labels').fill('Number of pupils');
  await expect(page.getByLabel('Type of Number of pupils')).toHaveValue('whole-number');
  await page.getByRole('button', { name: 'Make the field' }).tap();
  await expect(page.getByLabel('Label of Number of pupils')).toBeVisible();
});
