import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

test('a person’s days are checked where they are typed, and kept', async ({ page }) => {
  await page.goto('/set-up/people/corin-ash');
  await page.getByLabel('Time zone').fill('Europe/Atlantis');
  await page.getByRole('button', { name: 'Save Corin Ash' }).click();
  await expect(page.getByRole('alert')).toContainText('Europe/Atlantis');
  await page.getByLabel('Time zone').fill('Europe/Dublin');
  await page.getByLabel('Capacity').fill('25');
  await page.getByRole('button', { name: 'Save Corin Ash' }).click();
  await expect(page.getByText('Corin Ash is saved.')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Capacity')).toHaveValue('25');
});

test('a team is made and filled, and found by the search of the set-up', async ({ page }, { retry }) => {
  const name = `Night watch${' again'.repeat(retry)}`;
  await page.goto('/set-up/teams');
  await page.getByRole('button', { name: 'New team' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill(name);
  await page.getByRole('button', { name: 'Make the team' }).click();
  await expect(page.getByLabel('Name of the team')).toHaveValue(name);
  await page.getByLabel(/Farid Amrani/).click();
  await expect(page.getByRole('link', { name: `${name} 1 person` })).toBeVisible();
  await page.goto('/set-up/ready');
  await page.getByLabel('Find in the set-up').fill(name.toLowerCase());
  await page.keyboard.press('Enter');
  await expect(page.getByLabel(/Farid Amrani/)).toBeChecked();
});

test('two tags are merged on every record, and the merge undone', async ({ page }, { retry }) => {
  // Two tags of its own, and one contact that carries both: it counts once.
  const [stays, goes] = [`Trade fair${' again'.repeat(retry)}`, `Fairs${' again'.repeat(retry)}`];
  const [first, second] = await Promise.all([stays, goes].map((name) => addTag(page, name)));
  const contacts = (await (await page.request.get('/api/v1/contacts?limit=3')).json()) as {
    items: { id: string; values: { tags?: string[] } }[];
  };
  for (const [i, added] of [[first], [first, second], [second]].entries()) {
    const { id, values } = contacts.items[i]!;
    await page.request.patch(`/api/v1/contacts/${id}`, {
      data: { values: { tags: [...(values.tags ?? []), ...added] } },
    });
  }
  await page.goto('/set-up/tags');
  const records = (name: string) =>
    page
      .getByRole('row')
      .filter({ has: page.getByLabel(`Name of ${name}`, { exact: true }) })
      .getByRole('cell')
      .nth(2);
  await expect(records(stays)).toHaveText('2');
  await expect(records(goes)).toHaveText('2');
  await page.getByLabel(`Merge ${goes} into`).selectOption(stays);
  await expect(records(stays)).toHaveText('3');
  await expect(page.getByLabel(`Name of ${goes}`, { exact: true })).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(records(stays)).toHaveText('2');
});

test('a field is moved from the contact to the deal, shown before it is done', async ({ page }) => {
  await page.request.post('/api/v1/fields', { data: { record: 'contact', label: 'Ground', type: 'text' } });
  const contacts = (await (await page.request.get('/api/v1/contacts?limit=20')).json()) as {
    items: { id: string; links: object }[];
  };
  const contact = contacts.items.find(({ links }) => 'deals' in links)!;
  await page.request.patch(`/api/v1/contacts/${contact.id}`, { data: { values: { ground: 'clay' } } });
  await page.goto('/set-up/fields/contact');
  await page.getByRole('button', { name: 'More about Ground' }).click();
  await page.getByLabel('Move to').selectOption('moves to the deal');
  await expect(page.getByText(/gets? a value from what is linked/)).toBeVisible();
  await page.getByRole('button', { name: 'Move it to the deal' }).click();
  await expect(page.getByRole('table', { name: 'Fields of the deal' }).getByLabel('Label of Ground')).toBeVisible();
});

test('the grid is narrowed by owner, closing asks why, and a stage’s worth is added up', async ({ page }) => {
  await page.goto('/pipeline/new-builds');
  await page.getByRole('button', { name: 'Filter' }).click();
  await page.getByRole('button', { name: 'Test', exact: true }).click();
  await page.getByLabel('Field', { exact: true }).selectOption('Owner');
  await page.getByLabel('Test', { exact: true }).selectOption('is in the team');
  await page.getByLabel('Team').selectOption('Continental');
  await page.keyboard.press('Escape');
  await expect(page.getByText('Owner is in the team continental')).toBeVisible();
  await expect(page.getByRole('table', { name: /in New builds$/ })).toHaveAttribute('aria-busy', 'false');
  const card = page.getByRole('button', { name: /in this stage/ }).first();
  await card.focus();
  await page.keyboard.press('7');
  await page.getByRole('button', { name: 'Too dear' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Lost' }).click();
  await expect(page.getByText(/ is in Lost now\.$/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('link', { name: 'As a table' }).click();
  await expect(page.getByRole('table', { name: 'Deals' })).toBeVisible();
});

test('a workspace’s word for a deal is used everywhere', async ({ page }) => {
  const word = (dealWord: string) => page.request.patch('/api/v1/workspace', { data: { dealWord } });
  await word('opportunity');
  try {
    await page.goto('/records/deals');
    await expect(page.getByRole('heading', { name: 'Opportunities' })).toBeVisible();
    await expect(page.getByRole('button', { name: 'New opportunity' })).toBeVisible();
    await page.goto('/pipeline/new-builds');
    await expect(page.getByText(/opportunities open/)).toBeVisible();
    await page.goto('/routes');
    await expect(page.getByText(/contact and opportunity in New builds/).first()).toBeVisible();
  } finally {
    await word('deal');
  }
});

test('is it ready? names what is not, and leads there', async ({ page }) => {
  await page.goto('/set-up');
  await expect(page.getByRole('heading', { name: 'Is every stage reached by something?' })).toBeVisible();
  await page.getByRole('link', { name: 'External IDs of the company, empty everywhere' }).click();
  await expect(page.getByRole('table', { name: 'Fields of the company' })).toBeVisible();
});

/** A new tag's key. */
async function addTag(page: Page, name: string): Promise<string> {
  const made = await page.request.post('/api/v1/tags', { data: { name } });
  return ((await made.json()) as { key: string }).key;
}
