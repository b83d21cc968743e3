import { expect } from '@playwright/test';
import { test } from './journey';
import { signIn } from './support';

test('a changed mapping changes the rehearsal, and once published the next submission follows it', async ({
  page,
  request,
  baseURL,
}) => {
  await signIn(page);
  await page.getByRole('link', { name: /^Routes/ }).click();
  await page.getByRole('link', { name: /Price list readers/ }).click();
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await rehearsal.getByRole('button', { name: 'Edit the sample by hand' }).click();
  await rehearsal
    .getByLabel('The sample, as JSON')
    .fill(
      '{"first_name": "Bram", "last_name": "Vos", "email": "bram@voskwekerij.example", "organisation": "Vos Kwekerij"}',
    );
  await expect(rehearsal).toContainText(/contact is created/i);
  await expect(rehearsal).not.toContainText('Head gardener');

  await page.getByRole('button', { name: 'Feed another field of the contact' }).click();
  await page.getByRole('button', { name: 'Job title', exact: true }).click();
  await page.getByRole('button', { name: 'Add what feeds Job title' }).click();
  await page.getByPlaceholder('Find an answer, or type a text').fill('Head gardener');
  await page.getByRole('option', { name: 'the text “Head gardener”' }).click();
  await expect(rehearsal).toContainText('Head gardener');
  await expect(page.getByText('The draft is saved and differs from what runs')).toBeVisible();

  // The draft does not run.
  const send = (email: string) =>
    request.post(`${baseURL}/in/pricelist`, { data: { first_name: 'Bram', last_name: 'Vos', email } });
  await send('before@voskwekerij.example');
  await page.getByRole('button', { name: 'Publish…' }).click();
  await expect(page.getByRole('dialog')).toContainText('The contact’s Job title is fed.');
  await page.getByLabel('Note for the others').fill('They asked for it');
  await page.getByRole('button', { name: /^Publish version/ }).click();
  await expect(page.getByText('live, version 3')).toBeVisible();
  await send('after@voskwekerij.example');

  await page.goto('/records/contacts?q=voskwekerij');
  await page
    .getByRole('row', { name: /after@/ })
    .getByRole('link', { name: 'Bram Vos' })
    .click();
  await expect(page.getByRole('button', { name: 'Edit Job title: Head gardener' })).toBeVisible();
  await page.goto('/records/contacts?q=before@voskwekerij');
  await page.getByRole('link', { name: 'Bram Vos' }).click();
  await expect(page.getByRole('button', { name: /^Edit E-mail: before@/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Edit Job title/ })).toHaveCount(0);
});

test('a required field that nothing feeds stands in the way, says so, and can be undone', async ({ page }) => {
  await signIn(page);
  await page.goto('/routes');
  await page
    .getByRole('link', { name: /Site survey request/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Remove Last name' }).click();
  await expect(page.getByText('nothing feeds it')).toBeVisible();
  await expect(page.getByRole('button', { name: /Mapping.*1 thing in the way/ })).toBeVisible();
  await page.getByRole('button', { name: 'Publish…' }).click();
  await expect(page.getByRole('dialog')).toContainText('Last name is required on a contact, and nothing feeds it.');
  await expect(page.getByRole('button', { name: /^Publish version/ })).toBeDisabled();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('No unpublished changes')).toBeVisible();
});

test('a paused route holds what arrives until it is resumed', async ({ page, request, baseURL }) => {
  await signIn(page);
  await page.goto('/routes');
  await page.getByRole('link', { name: /Price list readers/ }).click();
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  await expect(page.getByText(/^paused, version/)).toBeVisible();
  await request.post(`${baseURL}/in/pricelist`, {
    data: { first_name: 'Lena', last_name: 'Aust', email: 'lena@example.com' },
  });
  await page.getByRole('link', { name: /^Submissions/ }).click();
  await expect(page.getByRole('row', { name: /lena@example.com/ })).toContainText('paused');
  await page.goBack();
  await page.getByRole('button', { name: 'Resume…' }).click();
  await page.getByRole('button', { name: 'Resume, and route what waits' }).click();
  await page.getByRole('link', { name: /^Submissions/ }).click();
  await expect(page.getByRole('row', { name: /lena@example.com/ })).toContainText('New contact');
});

test('nothing is said to stand in the way of a route that runs', async ({ page }) => {
  await signIn(page);
  const routes = (await (await page.request.get('/api/v1/routes')).json()) as {
    id: string;
    name: string;
    state: string;
  }[];
  const live = routes.filter(({ state, name }) => state === 'live' && /survey|readers|application|calls/i.test(name));
  expect(live).toHaveLength(4);
  for (const { id } of live) {
    await page.goto(`/routes/${id}`);
    const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
    await expect(rehearsal.getByText('The same in sentences')).toBeVisible();
    await expect(rehearsal.getByText('In the way')).toBeHidden();
  }
});

test('the list of routes is searched, sorted and grouped, and a route is paused and resumed in its row', async ({
  page,
}) => {
  await signIn(page);
  await page.goto('/routes');
  const rows = page.getByRole('row').filter({ has: page.getByRole('link') });
  await page.getByRole('button', { name: 'Failed' }).click();
  await page.getByRole('button', { name: 'Failed' }).click();
  await expect(page).toHaveURL(/sort=-failed/);
  await expect(rows.first()).toContainText('Dealer application');
  await page.getByRole('searchbox', { name: 'Find a route' }).fill('partner lead');
  await expect(rows).toHaveCount(1);
  await page.getByRole('button', { name: 'Pause Partner calls' }).click();
  await expect(rows.first()).toContainText('paused, version');
  await page.getByRole('button', { name: 'Resume Partner calls' }).click();
  await page.getByRole('button', { name: 'Resume, and route what waits' }).click();
  await expect(rows.first()).toContainText('live, version');
  await page.getByRole('searchbox', { name: 'Find a route' }).fill('orchids');
  await expect(page.getByText('No route matches')).toBeVisible();
  await page.getByRole('searchbox', { name: 'Find a route' }).fill('');
  await page.getByLabel('group by').selectOption('intake');
  await expect(page.getByRole('heading', { name: 'Partner call log' })).toBeVisible();
});
