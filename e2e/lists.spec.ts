import { expect } from '@playwright/test';
import { test } from './journey';
import { signIn } from './support';

test.beforeEach(async ({ page }) => signIn(page));

test('submissions are narrowed by words in one line, kept in the address', async ({ page }) => {
  await page.goto('/submissions');
  await page.getByRole('button', { name: /^Failed \d+$/ }).click();
  await expect(page).toHaveURL(/outcome=failed/);
  const first = page.getByRole('table').getByRole('row').nth(1);
  await expect(first).toContainText('Last name is needed');
  await page.getByRole('button', { name: 'add a filter' }).click();
  await page.getByRole('dialog', { name: 'Add a filter' }).getByLabel('intake').selectOption('Site survey request');
  await expect(page.getByRole('heading', { name: 'No submission is like this' })).toBeVisible();
  await page.getByRole('button', { name: 'Any intake' }).click();
  await expect(first).toContainText('Last name is needed');
  await page.reload();
  await expect(first).toContainText('Last name is needed');
});

test('how many ended how is said in words, and narrows the list', async ({ page }) => {
  await page.goto('/submissions');
  const failed = page.getByRole('button', { name: /^Failed \d+$/ });
  await failed.click();
  await expect(page).toHaveURL(/outcome=failed/);
  await expect(failed).toHaveAttribute('aria-pressed', 'true');
  const written = page.getByRole('button', { name: /^Written [\d,]+$/ });
  await written.click();
  await expect(failed).toHaveAttribute('aria-pressed', 'false');
  await expect(page.getByRole('table').getByRole('row').nth(1)).toContainText(/Contact|Company|deal/i);
  await page.getByRole('button', { name: /^All [\d,]+$/ }).click();
  await expect(page).not.toHaveURL(/outcome/);
});

test('a submission is found by a word of any answer, sorted, shown in other columns, and found from everywhere', async ({
  page,
}) => {
  await page.goto('/submissions');
  const table = page.getByRole('table', { name: 'Submissions' });
  const first = table.getByRole('row').nth(1);
  await first.waitFor();
  await page.keyboard.press('/');
  await page.keyboard.type('fernleigh');
  await expect(page).toHaveURL(/q=fernleigh/);
  await expect(page.getByRole('heading', { name: 'Nothing was sent with “fernleigh”' })).toBeVisible();
  await page.getByRole('button', { name: 'Search for nothing' }).click();
  await expect(page).not.toHaveURL(/q=/);
  await table.getByRole('button', { name: 'E-mail' }).click();
  await expect(table.getByRole('columnheader', { name: 'E-mail' })).toHaveAttribute('aria-sort', 'ascending');
  await table.getByRole('button', { name: 'E-mail' }).click();
  // Those without an address stand last now, once the list has come.
  await expect(first.getByRole('cell').nth(3)).toHaveText(/@/);
  const email = await first.getByRole('cell').nth(3).textContent();
  await page.getByLabel('Find submissions').fill(email!);
  await expect(first).toContainText(email!);
  await expect
    .poll(async () => (await table.getByRole('row').allTextContents()).slice(1).every((row) => row.includes(email!)))
    .toBe(true);
  await page.getByRole('button', { name: 'Columns' }).click();
  await page.getByRole('checkbox', { name: 'Campaign' }).click();
  await page.keyboard.press('Escape');
  await expect(table.getByRole('columnheader', { name: 'Campaign' })).toBeVisible();
  await page.reload();
  await expect(table.getByRole('columnheader', { name: 'Campaign' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder(/^A name, an e-mail/).fill(email!);
  await page.getByRole('option', { name: /^Sent/ }).first().click();
  await expect(page.getByRole('complementary', { name: 'The submission' })).toContainText(email!);
});

test('boxes take a range with Shift held down, and each is called like its row', async ({ page }) => {
  await page.goto('/submissions');
  const boxes = page.getByRole('checkbox', { name: /^Choose (?!all)/ });
  await boxes.nth(1).check();
  await boxes.nth(4).click({ modifiers: ['Shift'] });
  await expect(page.getByText('4 chosen')).toBeVisible();
  await expect(boxes.first()).toHaveAccessibleName(/^Choose .+, .+/);
  await boxes.nth(3).click({ modifiers: ['Shift'] });
  await expect(page.getByText('2 chosen')).toBeVisible();
});

test('a failed run says why, shows what was sent, and leads to the route with that sample', async ({ page }) => {
  await page.goto('/submissions?outcome=failed');
  await page.getByRole('table').getByRole('row').nth(1).click();
  const panel = page.getByRole('complementary', { name: 'The submission' });
  await expect(panel).toContainText('Last name is needed for the contact');
  await expect(panel.getByRole('heading', { level: 2 })).toHaveText('Nothing was written');
  await expect(panel.getByRole('region', { name: 'What was sent' })).toContainText('person.name.surname');
  await panel.getByText('As it came, and the visit').click();
  await expect(panel).toContainText('"surname"');
  // One steps through what the list is narrowed to.
  await expect(panel).toContainText(/1 of \d/);
  await panel.getByRole('button', { name: 'The one after (j)' }).click();
  await expect(panel).toContainText(/2 of \d/);
  await page.keyboard.press('k');
  await expect(panel).toContainText(/1 of \d/);
  await expect(panel.getByRole('button', { name: 'Run again' })).toBeVisible();
  await panel.getByRole('link', { name: 'Rehearse with the draft' }).click();
  await expect(page.getByRole('complementary', { name: 'Rehearsal' })).toContainText('The run would fail');
  const unfed = page.getByText('Unmapped fields:');
  await expect(unfed).toContainText('person.name.surname');
  // It is pressed, and given the field that was missing: the same sample would be written.
  await unfed.getByRole('button', { name: /person\.name\.surname/ }).click();
  await page.getByLabel('Find a field').fill('last');
  await page.getByRole('button', { name: /^Last name/ }).click();
  await expect(page.getByRole('complementary', { name: 'Rehearsal' })).not.toContainText('The run would fail');
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await expect(page.getByRole('complementary', { name: 'Rehearsal' })).toContainText('The run would fail');
});

test('what a run wrote is taken back and run again, with both accounts to read', async ({ page, request, baseURL }, {
  retry,
}) => {
  await request.post(`${baseURL}/in/dealers`, {
    data: {
      person: { name: { first: 'Tjeerd', last: 'Bosch' }, email: `tjeerd${retry}@boschglas.example` },
      business: { name: 'Bosch Glas', website: 'https://boschglas.example' },
    },
  });
  await page.goto('/submissions?intake=dealers&outcome=written');
  await page.getByRole('row', { name: new RegExp(`tjeerd${retry}@`) }).click();
  const panel = page.getByRole('complementary', { name: 'The submission' });
  await panel.getByRole('button', { name: 'Take back…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Take back 1 run' }).click();
  await expect(panel.getByText(/took it back/)).toBeVisible();
  await panel.getByRole('button', { name: 'Run again' }).click();
  await expect(panel.getByRole('button', { name: 'Take back…' })).toBeVisible();
  const earlier = panel.getByRole('button', { name: /^taken back/ });
  await earlier.click();
  await expect(earlier).toHaveAttribute('aria-expanded', 'true');
  await expect(
    panel
      .getByRole('list')
      .last()
      .getByText(/took it|arrived|Recognised|Made/i)
      .first(),
  ).toBeVisible();
});

test('a long list is read on as one scrolls', async ({ page }) => {
  await page.goto('/records/contacts');
  const table = page.getByRole('table', { name: 'Contacts' });
  const last = async () => Number(await table.getByRole('row').last().getAttribute('aria-rowindex'));
  await expect.poll(last).toBeGreaterThan(5);
  await expect
    .poll(async () => {
      await table.evaluate((rows) => rows.scrollTo(0, rows.scrollHeight));
      return last();
    })
    .toBeGreaterThan(250);
});

test('records are found by a part of their name, and lead to what they are linked to', async ({ page }) => {
  await page.goto('/records/companies');
  await page.getByLabel('Find companies').fill('academy');
  await expect(page).toHaveURL(/q=academy/);
  await page.getByRole('table').getByRole('row').nth(1).getByRole('link').first().click();
  await expect(page.getByRole('heading', { name: 'Linked' })).toBeVisible();
  await page
    .getByRole('link', { name: 'Contacts' })
    .or(page.getByRole('listitem').filter({ hasText: 'contact' }).getByRole('link'))
    .first()
    .click();
  await expect(page).toHaveURL(/\/records\/contacts\//);
  await expect(page.getByRole('heading', { name: 'History' })).toBeVisible();
});

test('the theme is chosen and kept', async ({ page }) => {
  await page.getByRole('button', { name: 'You: Robin Nye' }).click();
  await page.getByRole('menuitemradio', { name: 'Dark theme' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
});

test('an address that is nothing says so and helps on', async ({ page }) => {
  await page.goto('/nowhere');
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
  await page.goto('/records/contacts/00000000-0000-4000-8000-000000000000');
  await expect(page.getByRole('heading', { name: 'This record is not there' })).toBeVisible();
});
