import { expect } from '@playwright/test';
import { test } from './journey';
import { signIn } from './support';

const PASSWORD = 'eleven bays of glass';

test('a colleague is invited, chooses their own password by a link that works once, and changes it later', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await page.goto('/set-up/people');
  await page.getByRole('button', { name: 'New person' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Tilde Moor');
  await dialog.getByLabel('E-mail').fill('tilde.moor@quillfern.example');
  await dialog.getByRole('button', { name: 'Add the person' }).click();
  const link = await dialog.getByLabel('The link', { exact: true }).textContent();
  await dialog.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('heading', { name: 'Tilde Moor' })).toBeVisible();

  const theirs = await (await browser.newContext()).newPage();
  await theirs.goto(link!);
  await expect(theirs.getByRole('heading', { name: 'Welcome, Tilde Moor' })).toBeVisible();
  await theirs.getByLabel('Password', { exact: true }).fill('password123');
  await theirs.getByLabel('Password again').fill('password123');
  await theirs.getByRole('button', { name: 'Set the password and sign in' }).click();
  await expect(theirs.getByRole('alert')).toContainText('This password is too common');
  await theirs.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await theirs.getByLabel('Password again').fill(PASSWORD);
  await theirs.getByRole('button', { name: 'Set the password and sign in' }).click();
  await expect(theirs.getByRole('button', { name: 'You: Tilde Moor' })).toBeVisible();
  await page.goto(link!);
  await expect(page.getByText('This link was used already')).toBeVisible();

  await theirs.getByRole('button', { name: 'You: Tilde Moor' }).click();
  await theirs.getByRole('menuitem', { name: 'Password and sessions' }).click();
  await expect(theirs.getByText('this browser')).toBeVisible();
  await theirs.getByLabel('Old password').fill('wrong');
  await theirs.getByLabel('New password', { exact: true }).fill('twelve bays of glass');
  await theirs.getByLabel('New password again').fill('twelve bays of glass');
  await theirs.getByRole('button', { name: 'Change password' }).click();
  await expect(theirs.getByText('The old password is wrong.')).toBeVisible();
  await theirs.getByLabel('Old password').fill(PASSWORD);
  await theirs.getByRole('button', { name: 'Change password' }).click();
  await expect(theirs.getByText('Your password is changed.')).toBeVisible();
});

test('a token is made, shown once, works, and is revoked', async ({ page }) => {
  await signIn(page);
  await page.goto('/set-up/tokens');
  await page.getByRole('button', { name: 'New token' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Make the token' }).click();
  await expect(dialog.getByText('Give it a name.')).toBeVisible();
  await dialog.getByLabel('Name').fill('Nightly report');
  await dialog.getByLabel('Ends after').selectOption('30 days');
  await dialog.getByRole('button', { name: 'Make the token' }).click();
  const secret = await dialog.getByLabel('The token', { exact: true }).textContent();
  await dialog.getByRole('button', { name: 'Done' }).click();
  const ask = (method: 'get' | 'post') =>
    page.request[method](`/api/v1/${method === 'get' ? 'contacts' : 'intakes'}`, {
      headers: { authorization: `Bearer ${secret}` },
      ...(method === 'post' ? { data: { kind: 'endpoint', name: 'By a reader' } } : {}),
    });
  expect([(await ask('get')).status(), (await ask('post')).status()]).toEqual([200, 403]);
  await page.reload();
  const row = page.getByRole('row', { name: /Nightly report/ });
  await expect(row).toContainText('Read only');
  await row.getByRole('button', { name: 'Revoke Nightly report' }).click();
  await page.getByRole('button', { name: 'Revoke it' }).click();
  await expect.poll(async () => (await ask('get')).status()).toBe(401);
  await expect(row).toBeHidden();
});
