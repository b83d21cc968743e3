import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { parse } from 'csv-parse/sync';
import excel from 'exceljs';
import { test } from './journey';
import { signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

const row = (page: Page, text: string | RegExp) => page.getByRole('row').filter({ hasText: text });

async function filterBy(page: Page, field: string, choose: () => Promise<void>): Promise<void> {
  await page.getByRole('button', { name: 'Filter' }).click();
  await page.getByRole('button', { name: 'Test', exact: true }).click();
  await page.getByLabel('Field', { exact: true }).selectOption(field);
  await choose();
  await page.keyboard.press('Escape');
}

test('a list is filtered, sorted and kept as a view, all of it in the address', async ({ page }) => {
  await page.goto('/records/contacts');
  await filterBy(page, 'Growing for', () => page.getByLabel('Ornamentals').click());
  await expect(page.getByText('Growing for is any of Ornamentals')).toBeVisible();
  await page.getByRole('button', { name: 'Full name' }).click();
  await expect(page.getByRole('columnheader', { name: 'Full name' })).toHaveAttribute('aria-sort', 'ascending');
  await page.getByRole('button', { name: 'Columns' }).click();
  await page.getByLabel('Find a column').fill('growing');
  await page.getByRole('dialog', { name: 'Columns' }).getByLabel('Growing for').click();
  await page.keyboard.press('Escape');
  await expect(row(page, 'Ornamentals').first()).toBeVisible();

  await page.getByRole('button', { name: 'Views' }).click();
  await page.getByLabel('Keep what is shown as').fill('Flower growers');
  await page.getByRole('button', { name: 'Keep the view' }).click();
  await expect(page.getByRole('button', { name: 'Flower growers' })).toBeVisible();
  const first = await page.getByRole('row').nth(1).textContent();
  const address = page.url();
  expect(address).toContain('view=');

  await page.goto('/records/contacts');
  await page.goto(address);
  await expect(page.getByText('Growing for is any of Ornamentals')).toBeVisible();
  await expect(page.getByRole('row').nth(1)).toHaveText(first!);
  await page.getByRole('button', { name: 'No longer: Growing for is any of Ornamentals' }).click();
  await expect(page.getByRole('button', { name: 'Flower growers, changed' })).toBeVisible();
});

test('many records are tagged in one act, which is undone in one', async ({ page }) => {
  await page.goto('/records/companies');
  await expect(page.getByRole('row').nth(3)).toBeVisible();
  const box = page.getByRole('table').getByRole('checkbox', { name: /^Choose (?!all)/ });
  await box.nth(0).check();
  await box.nth(1).check();
  await expect(page.getByText('2 companies chosen')).toBeVisible();
  await page.getByRole('button', { name: 'Tag', exact: true }).click();
  await page.getByLabel('Press').check();
  await page.getByRole('button', { name: 'Put on' }).click();
  await expect(page.getByText('Changed Tags of 2 companies.')).toBeVisible();
  const filter = JSON.stringify({ all: [{ of: { field: 'tags' }, test: 'is-any-of', value: ['press'] }] });
  const count = async () =>
    (
      (await (await page.request.get(`/api/v1/companies/count?filter=${encodeURIComponent(filter)}`)).json()) as {
        total: number;
      }
    ).total;
  expect(await count()).toBe(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(count).toBe(0);
});

test('a record is edited in its place, traced, and the edit undone', async ({ page }) => {
  // Somebody of the demo, rather than whom another journey has just made by hand.
  await page.goto('/records/contacts?q=-botanic.example');
  await page.getByRole('row').nth(2).getByRole('link').first().click();
  // A list of one is no blank: another can be added to it.
  await expect(page.getByText(/^Blank:/)).not.toContainText('All e-mails');
  await expect(page.getByText(/^Holds one, add another to:/)).toContainText('All e-mails');
  await page.getByRole('button', { name: /^Edit First name:/ }).click();
  const input = page.getByRole('textbox', { name: 'First name' });
  const before = await input.inputValue();
  await input.fill('Wilhelmina');
  await input.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Wilhelmina');
  await page.getByRole('button', { name: 'Where First name came from' }).click();
  const trace = page.getByRole('list', { name: 'Trace of First name' });
  await expect(trace.getByText('Robin Nye changed it')).toBeVisible();
  await expect(trace.getByText('A submission')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(before);

  await page.getByRole('button', { name: /^Edit E-mail:/ }).click();
  await page.getByRole('textbox', { name: 'E-mail' }).fill('nobody');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert')).toContainText('nobody');
});

test('two people who edit one field are told, and nothing is overwritten unseen', async ({ page }) => {
  await page.goto('/records/companies');
  await page.getByRole('row').nth(4).getByRole('link').first().click();
  await expect(page.getByRole('heading', { name: 'Values' })).toBeVisible();
  const id = page.url().split('/').at(-1)!;
  await page.getByRole('button', { name: /^Edit Name:/ }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Mine Ltd');
  await page.request.patch(`/api/v1/companies/${id}`, { data: { values: { name: 'Theirs Ltd' } } });
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert')).toContainText('“Theirs Ltd”');
  await page.getByRole('button', { name: 'Put mine in its place' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Mine Ltd');
});

test('what was deleted is found again later, and brought back', async ({ page }) => {
  await page.goto('/records/companies');
  const row = page.getByRole('table').getByRole('row').nth(1);
  await row.waitFor();
  await page.keyboard.press('j');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/companies\/[0-9a-f-]{36}/);
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText('Companies');
  const name = (await page.getByRole('heading', { level: 1 }).textContent())!;
  const address = page.url();
  await page.getByRole('button', { name: 'Delete this company' }).click();
  await page.getByText('Deleted ' + name).waitFor();
  await page.goto(address);
  await page.getByRole('link', { name: 'what was deleted' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Deleted companies');
  const gone = page.getByRole('row').filter({ hasText: name }).first();
  await expect(gone).toContainText('Robin Nye');
  await gone.getByRole('button', { name: 'Bring back' }).click();
  await page.getByRole('button', { name: 'Open it' }).click();
  await expect(page).toHaveURL(address);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(name);
});

test('a lead is rehearsed, qualified, and its deal points back to it', async ({ page }) => {
  const values = { name: 'Odile Tarn', email: 'odile@tarn-lab.example', company_name: 'Tarn Lab', message: 'Two bays' };
  const made = await page.request.post('/api/v1/leads', { data: { values } });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/records/leads/${id}`);
  await page.getByRole('button', { name: 'Qualify' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('heading', { name: 'New contact' })).toBeVisible();
  await expect(dialog.getByRole('heading', { name: 'New deal' })).toBeVisible();
  await dialog.getByLabel('Stage').selectOption('Site survey');
  await dialog.getByRole('button', { name: 'Qualify' }).click();
  await expect(page.getByRole('heading', { name: 'Tarn Lab, Odile Tarn' })).toBeVisible();
  await page.getByRole('link', { name: 'Odile Tarn', exact: true }).first().click();
  await expect(page.getByRole('heading', { name: 'Odile Tarn' })).toBeVisible();
});

test('a lead is set aside with a reason, and opened again', async ({ page }) => {
  const made = await page.request.post('/api/v1/leads', { data: { values: { name: 'Far Away' } } });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/records/leads/${id}`);
  await page.getByRole('button', { name: 'Set aside' }).click();
  await page.getByRole('button', { name: 'Too far away' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Set aside', exact: true }).click();
  await expect(page.getByText('set aside: Too far away')).toBeVisible();
  await page.getByRole('button', { name: 'Open again' }).click();
  await expect(page.getByRole('button', { name: 'Qualify' })).toBeVisible();
});

/** What “Export” gives of the list that is shown. */
async function takenAway(page: Page, format: string): Promise<Buffer> {
  await page.getByRole('button', { name: 'Export' }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: new RegExp(`^${format}`) }).click(),
  ]);
  await page.keyboard.press('Escape');
  return readFile(await file.path());
}

test('submissions of one intake are taken away with a column for each of its fields, narrowed as the list is', async ({
  page,
}) => {
  await page.goto('/submissions?intake=dealers&outcome=written');
  await expect(row(page, 'Dealer application').first()).toBeVisible();
  const rows = parse(await takenAway(page, 'CSV'), { bom: true, columns: true }) as Record<string, string>[];
  expect(rows.map(({ Outcome }) => Outcome)).toEqual(rows.map(() => 'written'));
  expect(rows.length).toBeGreaterThan(50);
  expect(rows[0]).toMatchObject({ Intake: 'Dealer application', 'E-mail': expect.stringMatching(/@/) });
  expect(Object.keys(rows[0]!)).toEqual(expect.arrayContaining([expect.stringMatching(/surname/i)]));
});

test('a list is taken away as files that readers of those formats open', async ({ page }) => {
  await page.goto('/records/deals?filter=' + encodeURIComponent('{"of":{"field":"status"},"test":"is","value":"won"}'));
  await expect(row(page, 'New builds').first()).toBeVisible();
  const rows = parse(await takenAway(page, 'CSV'), { bom: true, columns: true }) as Record<string, string>[];
  expect(rows.length).toBeGreaterThan(50);
  expect(rows[0]).toMatchObject({
    Name: expect.stringMatching(/./),
    Stage: expect.stringMatching(/^(won|kept|signed)$/),
  });
  const workbook = new excel.Workbook();
  await workbook.xlsx.load((await takenAway(page, 'XLSX')) as unknown as ArrayBuffer);
  expect(workbook.worksheets[0]!.rowCount).toBe(rows.length + 1);
  const lines = (await takenAway(page, 'JSON Lines')).toString().trim().split('\n');
  expect(lines.map((line) => (JSON.parse(line) as { values: { status: string } }).values.status)).toEqual(
    rows.map(() => 'won'),
  );
});

test('notes, tasks and consent are kept with a contact and stand in its history', async ({ page }) => {
  await page.goto('/records/contacts');
  await page.getByRole('row').nth(6).getByRole('link').first().click();
  await page.getByLabel('New note').fill('Wants the drawings first.');
  await page.getByRole('button', { name: 'Note', exact: true }).click();
  await page.getByLabel('New task').fill('Send the drawings');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByLabel('Send the drawings is done').click();
  await page.getByRole('button', { name: 'Record consent' }).click();
  await page.getByLabel('In these words').fill('Call me whenever');
  await page.getByLabel('Channel').selectOption('Phone');
  await page.getByLabel('Where', { exact: true }).fill('by phone');
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  const history = page.locator('section').filter({ has: page.getByRole('heading', { name: 'History' }) });
  for (const words of ['Wants the drawings first.', 'Done: Send the drawings', 'Consent to phone given'])
    await expect(history.getByText(words)).toBeVisible();
  await history.getByLabel('Show').selectOption('notes');
  await expect(history.getByText('Done: Send the drawings')).toBeHidden();
});
