import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { signIn } from './support';

const outline = (page: Page) => page.getByRole('list', { name: 'Outline' });

test.beforeEach(({ page }) => signIn(page));

test('several fields are asked for at once, a question gets its key, options come as lines, pictures from the computer', async ({
  page,
}, { retry }) => {
  await page.goto('/intakes');
  await page.getByRole('button', { name: 'New form' }).click();
  await page.getByLabel('Name', { exact: true }).fill(`Craft ${retry}`);
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.getByRole('button', { name: 'Add a question' }).click();
  const adding = page.getByRole('dialog', { name: 'Add a question' });
  await adding.getByRole('checkbox', { name: 'Ask for Job title too, contact' }).check();
  await adding.getByRole('checkbox', { name: 'Ask for Bays too, deal' }).check();
  await adding.getByRole('button', { name: 'Ask for these 2 fields' }).click();
  await expect(outline(page).getByRole('button', { name: 'Job title' }).last()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Remove Bays' })).toBeVisible();

  const key = page.getByLabel('Key', { exact: true });
  await key.fill('email');
  await expect(page.getByRole('alert')).toContainText('Another question has the key email.');
  await key.press('Escape');
  await expect(key).toHaveValue('bays');
  await key.fill('how_many');
  await key.press('Enter');
  await expect(page.getByRole('button', { name: 'Remove Bays' })).toBeVisible();
  await expect(page.frameLocator('iframe').locator('[name="how_many"]')).toBeAttached();

  await page.getByRole('button', { name: 'Add a question' }).click();
  await adding.getByLabel('Find a field, or name a new one').fill('one of');
  await adding.getByRole('button', { name: 'One of several', exact: false }).last().click();
  await page.getByRole('button', { name: 'As lines' }).click();
  await page.getByLabel('Options, one on each line').fill('• Ferns\n• Mosses\n\nOrchids');
  await page.getByRole('button', { name: 'One by one' }).click();
  await expect(page.getByLabel('Words of option 3')).toHaveValue('Orchids');

  await page.getByRole('button', { name: 'Add content' }).click();
  await page.getByRole('dialog', { name: 'Add content' }).getByRole('button', { name: 'Picture', exact: true }).click();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Upload: Picture' }).click();
  await (await chooser).setFiles({ name: 'not.png', mimeType: 'image/png', buffer: Buffer.from('<svg/>') });
  await expect(page.getByRole('alert')).toContainText('no PNG, JPEG, GIF or WebP picture');
  const again = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Upload: Picture' }).click();
  await (await again).setFiles('docs/screenshots/form-visitor.png');
  await expect(page.getByLabel('Picture', { exact: true })).toHaveValue(/^\/f\/pictures\//);
  const shown = page.frameLocator('iframe').locator('img[src^="/f/pictures/"]');
  await expect.poll(() => shown.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(100);

  await page.getByRole('button', { name: /^After sending/ }).click();
  await page.getByLabel('Then').selectOption('lead on to a page');
  await page.getByLabel('Page', { exact: true }).fill('https://www.quillfern.example/thanks');
  await page.getByRole('button', { name: 'Allow it' }).click();
  await expect(page.getByLabel('Allowed sites')).toHaveValue('https://www.quillfern.example');
  await expect(page.getByRole('status').filter({ hasText: 'Draft checked' })).toBeVisible();
});
