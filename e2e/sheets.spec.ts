import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { draftFor, publish, signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

async function bring(page: Page, name: string, content: string): Promise<void> {
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('File').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(content) });
  await dialog.getByRole('button', { name: 'Bring it in' }).click();
  await expect(dialog).toBeHidden();
}

test('a messy file is brought in, its refused rows are put right and brought again', async ({ page }, { retry }) => {
  const name = ['Orchid fair', 'Trade evening', 'Open weekend'][retry]!;
  const at = `stand${retry}.example`;
  await page.goto('/intakes');
  await page.getByRole('button', { name: 'Import file' }).click();
  await bring(
    page,
    `${name}.csv`,
    `\ufeffFirst name;Last name;E-mail;Phone\r\nHanneke;Ottenhoff;hanneke@${at};07700 900641\r\nHanneke;Ottenhoff;hanneke@${at};\r\n"Broken;Row;broken@${at};\r\nBerend;Looman;not an address;\r\n`,
  );
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  await expect(page.getByText('3 rows read, 1 refused; 4 columns, semicolons, utf-8')).toBeVisible();
  await expect(page.getByText('3 rows no route has taken yet')).toBeVisible();

  await draftFor(page, name);
  await publish(page, 1);
  await page.getByRole('button', { name: 'More about this route' }).click();
  await page.getByRole('menuitem', { name: /Process missed/ }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Route/ })
    .click();

  await page.goto('/intakes');
  await page.getByRole('link', { name }).click();
  const became = page.getByRole('listitem').filter({ hasText: 'written' });
  await expect(became).toContainText('2');
  await expect(page.getByRole('listitem').filter({ hasText: 'failed' })).toContainText('1');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Export the 2 refused rows' }).click();
  const text = await readFile((await (await download).path())!, 'utf8');
  expect(text).toContain('Berend');
  expect(text).toContain('A quote begins in this row and is never closed.');

  await page.getByRole('button', { name: 'Bring another' }).click();
  await bring(page, 'again.csv', `First name,Last name,E-mail\nBerend,Looman,berend@${at}\nBroken,Row,row@${at}\n`);
  await expect(became).toContainText('4');
  await page.goto(`/records/contacts?q=${at}`);
  await expect(page.getByRole('row', { name: /Looman/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Ottenhoff/ })).toHaveCount(1);
});

test('a file is taken back as a whole, but for what somebody works with since', async ({ page }, { retry }) => {
  const name = ['Garden club', 'Allotment day', 'Seed swap'][retry]!;
  const at = `club${retry}.example`;
  await page.goto('/intakes');
  await page.getByRole('button', { name: 'Import file' }).click();
  await bring(
    page,
    `${name}.csv`,
    `First name,Last name,E-mail\nJorrit,Haverkamp,jorrit@${at}\nWietske,Palland,wietske@${at}\n`,
  );
  await page.getByRole('link', { name: 'Make a route from this intake' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Name')).toHaveValue(name);
  await dialog.getByRole('button', { name: 'Make the draft' }).click();
  await publish(page, 1);
  await page.getByRole('button', { name: 'More about this route' }).click();
  await page.getByRole('menuitem', { name: /Process missed/ }).click();
  await dialog.getByRole('button', { name: /^Route/ }).click();
  await page.goto(`/records/contacts?q=${at}`);
  await page.getByRole('link', { name: /Jorrit/ }).click();
  await expect(page.getByText('Brought in from a file').first()).toBeVisible();
  await page.getByLabel('New note').fill('Rang him.');
  await page.getByRole('button', { name: 'Note', exact: true }).click();
  await expect(page.getByText('Rang him.').first()).toBeVisible();

  await page.goto('/intakes');
  await page.getByRole('link', { name }).click();
  await page.getByRole('button', { name: 'Take back…' }).click();
  await expect(dialog).toContainText('would be removed');
  await expect(dialog.getByLabel('What stays')).toContainText('others work with it');
  await dialog.getByRole('button', { name: 'Take back 2 runs' }).click();
  await expect(page.getByText(/^Taken back: .*1 contact/)).toBeVisible();
  await page.goto(`/records/contacts?q=${at}`);
  await expect(page.getByRole('row', { name: /Haverkamp/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Palland/ })).toHaveCount(0);
});

test('a file whose encoding is a guess is brought in as somebody says', async ({ page }, { retry }) => {
  await page.goto('/intakes');
  await page.getByRole('button', { name: 'Import file' }).click();
  const dialog = page.getByRole('dialog');
  const buffer = Buffer.from('Ad;Soyad\nI\xfe\xfdl;G\xfcne\xfe\n', 'latin1');
  await dialog.getByLabel('File').setInputFiles({ name: `izmir-${retry}.csv`, mimeType: 'text/csv', buffer });
  await expect(dialog.getByRole('cell', { name: 'Iþýl' })).toBeVisible();
  await dialog.getByLabel('Its letters are read as').selectOption('Turkish (Windows-1254)');
  await expect(dialog.getByRole('cell', { name: 'Işıl' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Bring it in' }).click();
  await expect(page.getByText('1 row read; 2 columns, semicolons, windows-1254')).toBeVisible();
});
