import { expect } from '@playwright/test';
import { test } from './journey';
import { addStep, addText, draftFor, endpoint, linkTo, publish, signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

test('consent is pending until a mail confirms it; then news goes out, and one press ends that', async ({
  page,
  browser,
}, { retry }) => {
  const name = `News ${retry}`;
  const data = { name, subject: name, text: 'No more: {{ unsubscribe.link }}' };
  await page.request.post('/api/v1/mail-templates', { data });
  const send = await endpoint(page, name);
  const to = `ida.news${retry}@weir.example`;
  await send({ name: 'Ida Weir', email: `first.${to}` });
  await draftFor(page, name);
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  await addStep(page, 'Consent');
  await addText(page, 'the words', 'You may write to me.');
  await page.getByLabel('Confirmed by which mail').selectOption('a new one with the link…');
  await page.getByLabel('Days to confirm').fill('3');
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await expect(rehearsal).toContainText('You may write to me.');
  await expect(rehearsal).toContainText('Please confirm that it is yours');
  await addStep(page, 'Mail');
  await page.getByLabel('By which template').selectOption({ label: name });
  await page.getByRole('checkbox', { name: /only those who agreed to e-mail/ }).check();
  await publish(page, 1);

  await send({ name: 'Ida Weir', email: to });
  const visitor = await (await browser.newContext()).newPage();
  await visitor.goto(await linkTo(page, to, '/consent/'));
  await expect(visitor.getByText('You may write to me.')).toBeVisible();
  await page.goto(`/records/contacts?q=${to}`);
  await page.getByRole('link', { name: 'Ida Weir' }).first().click();
  await expect(page.getByText('pending, to be confirmed')).toBeVisible();
  await visitor.getByRole('button', { name: 'Yes, you may' }).click();
  await expect(visitor.getByRole('heading', { name: 'Thank you' })).toBeVisible();

  await send({ name: 'Ida Weir', email: to });
  await visitor.goto(await linkTo(page, to, '/consent/', name));
  await visitor.getByRole('button', { name: 'No more, please' }).click();
  await expect(visitor.getByRole('heading', { name: 'It is done' })).toBeVisible();
  await page.reload();
  const consents = page.locator('details').filter({ hasText: 'E-mail' });
  await consents.locator('summary').click();
  await expect(consents).toContainText(`withdrawn by the link in a mail`);
  await expect(consents).toContainText(`noted by ${to}`);
});
