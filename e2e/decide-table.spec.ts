import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { draftFor, endpoint, publish, signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

/** Pastes rows as a spreadsheet hands them over. */
async function paste(page: Page, rows: string[][]): Promise<void> {
  await page.evaluate((text) => navigator.clipboard.writeText(text), rows.map((row) => row.join('\t')).join('\n'));
  await page.keyboard.press('Control+v');
}

test('rules from a spreadsheet are pasted, checked, corrected where the check says, and decide who gets it', async ({
  page,
  context,
}, { retry }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const name = `Stand in Leeds ${retry}`;
  const send = await endpoint(page, name);
  const enquiry = (first: string, country: string, bays: string) =>
    send({ first_name: first, last_name: `Garth${retry}`, email: `${first}@garth${retry}.example`, country, bays });
  await enquiry('ida', 'GB', '12');
  await enquiry('bo', 'FR', '3');
  await draftFor(page, name);

  await page.getByRole('button', { name: /^5 Decide/ }).click();
  await page.getByRole('button', { name: 'Decide by a table' }).click();
  await expect(page.getByRole('heading', { name: 'Who takes it' })).toBeVisible();
  for (const column of ['country', 'bays']) {
    await page.getByRole('button', { name: 'Add a column' }).click();
    const added = page.getByRole('dialog', { name: 'Add a column' });
    await added.getByLabel('Looks at').selectOption({ label: column });
    await added.getByRole('button', { name: 'Add the test' }).click();
    await page.keyboard.press('Escape');
  }
  await page.getByRole('button', { name: 'Column bays' }).click();
  await expect(page.getByRole('dialog', { name: 'Column bays' }).getByLabel('Read as')).toHaveValue('number');
  await page.keyboard.press('Escape');

  const grid = page.getByRole('grid', { name: 'Who takes it' });
  const check = page.getByRole('complementary', { name: 'Check' });
  await grid.focus();
  await paste(page, [
    ['GB', 'at least 8', 'Robin Nye', 'large'],
    ['GB', '', 'Builds North, in turn', ''],
    ['GB', 'over 20', 'Idris Vale', 'Idris wants the largest'],
    ['NL, DE', 'loads', 'Continental, in turn', ''],
  ]);
  await expect(grid.getByRole('row')).toHaveCount(6);
  await expect(check).toContainText('Row 3 can never fit');
  await expect(check).toContainText('A cell cannot be read');

  // The first correction: the row that never fits goes above the one that takes all of it.
  await check.getByRole('button', { name: 'Move it above row 1' }).click();
  await expect(check).not.toContainText('can never fit');
  await expect(grid.getByRole('row').nth(1)).toContainText('over 20');
  // The second: a cell that means nothing is typed again.
  await check.getByRole('button', { name: 'row 4' }).first().click();
  await page.keyboard.press('Delete');
  await expect(check).not.toContainText('cannot be read');
  // A gap, and what to do about it.
  await expect(check).toContainText('No row fits');
  await check.getByRole('button', { name: 'Add a row for it' }).first().click();
  await expect(grid.getByRole('row')).toHaveCount(7);
  await page.keyboard.press('Control+z');
  await expect(grid.getByRole('row')).toHaveCount(6);
  await grid.focus();
  await page.keyboard.press('Control+End');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.type('Care desk');
  await page.keyboard.press('Enter');
  await expect(check).toContainText('Decided otherwise');
  await expect(check).not.toContainText('No row fits');

  // What came before shows how many each row takes.
  await check.getByRole('button', { name: 'Count them' }).click();
  await expect(check).toContainText('No row fits: 1 of 2');
  await expect(check.getByRole('region', { name: 'This sample' })).toContainText('otherwise');
  await page.keyboard.press(']');
  await expect(check.getByRole('region', { name: 'This sample' })).toContainText('row 2');
  await check.getByRole('button', { name: 'Show them' }).click();
  await page
    .getByRole('dialog', { name: 'What no row took' })
    .getByRole('button', { name: /bo Garth/ })
    .click();
  await expect(check.getByRole('region', { name: 'This sample' })).toContainText('otherwise');
  await grid.focus();
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Alt+Enter');
  await page
    .getByRole('dialog', { name: 'What row 2 took' })
    .getByRole('button', { name: /ida Garth/ })
    .click();
  await expect(check.getByRole('region', { name: 'This sample' })).toContainText('row 2');

  await page.getByRole('link', { name }).click();
  await page.getByRole('button', { name: /^6 Follow up/ }).click();
  await page.getByLabel('Owner of the contact').selectOption({ label: 'Who takes it: Owner' });
  await publish(page, 1);
  await enquiry('cy', 'GB', '30');
  await page.goto(`/submissions?q=cy@garth${retry}.example`);
  await page.getByRole('row').nth(1).click();
  await page.getByRole('link', { name: 'Who takes it: row 1, Owner Idris Vale' }).click();
  await expect(grid.getByRole('row').nth(1)).toContainText('Idris wants the largest');
});

test('a table goes out as CSV and comes back, and a value set is used in its cells', async ({ page }, { retry }) => {
  const set = `Isles ${retry}`;
  await page.goto('/set-up/value-sets');
  await page.getByRole('button', { name: 'New value set' }).click();
  await page.getByLabel('Name').fill(set);
  await page.getByLabel('Values, one a line').fill('GB\nIE\n gb ');
  await expect(page.getByText('2 values. For regions', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('row', { name: new RegExp(set) })).toContainText('no route');

  const name = `Isles stand ${retry}`;
  const send = await endpoint(page, name);
  await send({ first_name: 'Ida', last_name: 'Lock', email: `ida@lock${retry}.example`, country: 'IE' });
  await draftFor(page, name);
  await page.getByRole('button', { name: /^5 Decide/ }).click();
  await page.getByRole('button', { name: 'Decide by a table' }).click();
  await page.getByRole('button', { name: 'Add a column' }).click();
  const added = page.getByRole('dialog', { name: 'Add a column' });
  await added.getByLabel('Looks at').selectOption({ label: 'country' });
  await added.getByRole('button', { name: 'Add the test' }).click();
  await page.keyboard.press('Escape');

  const csv = `Row;country;owner;Continent\n1;in ${set};Robin Nye;Europe\n2;not in ${set};Dealer desk;\n`;
  await page
    .getByLabel('Rows from a CSV file')
    .setInputFiles({ name: 'rows.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(page.getByText('2 rows came from rows.csv.', { exact: false })).toBeVisible();
  await expect(page.getByText('The table has no column “Continent”; left out.')).toBeVisible();
  await expect(page.getByRole('complementary', { name: 'Check' })).toContainText('Every case has its row');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'As CSV' }).click();
  const chunks: Buffer[] = [];
  for await (const chunk of await (await saved).createReadStream()) chunks.push(chunk as Buffer);
  expect(Buffer.concat(chunks).toString()).toBe(
    `Row,Country,→ Owner,Note\r\n1,in ${set},Robin Nye,\r\n2,not in ${set},"Dealer desk, in turn",\r\n`,
  );
  await expect(page.getByText('The draft is saved')).toBeVisible();

  await page.goto('/set-up/value-sets');
  await expect(page.getByRole('row', { name: new RegExp(set) })).toContainText(name);
  await page.getByRole('button', { name: `Remove ${set}` }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByRole('dialog')).toContainText(`is used by ${name}`);
});
