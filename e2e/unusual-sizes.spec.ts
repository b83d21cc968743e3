import { expect } from '@playwright/test';
import { test } from './journey';
import { draftFor, endpoint, publish, signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

test('a payload of 2,000 fields, hostile values among them, is mapped like any other', async ({ page }, { retry }) => {
  const name = `Long sheet ${retry}`;
  const send = await endpoint(page, name);
  const columns = Object.fromEntries(Array.from({ length: 1_990 }, (_, n) => [`column_${n}`, `value ${n}`]));
  await send({
    ...columns,
    name: 'Ada Weir',
    email: `ada@long${retry}.example`,
    'a.b"[0]': '<img src=x onerror=alert(1)>',
    __proto__x: '\u202Edlrow',
    remark: '{{ answers.email }} {% for a in (1..9999999) %}x{% endfor %}',
  });
  const alerts: string[] = [];
  page.on('dialog', (dialog) => void dialog.dismiss().then(() => alerts.push(dialog.message())));
  await draftFor(page, name);
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await expect(rehearsal).toContainText('Weir');
  await page.getByRole('button', { name: 'Feed another field of the contact' }).click();
  await page.getByRole('button', { name: 'Job title', exact: true }).click();
  await page.getByRole('button', { name: 'Add what feeds Job title' }).click();
  await page.getByPlaceholder('Find an answer, or type a text').fill('onerror');
  await page.getByRole('option', { name: /a\.b/ }).click();
  await expect(rehearsal).toContainText('<img src=x onerror=alert(1)>');
  await page.getByRole('button', { name: 'Add what feeds Job title' }).click();
  await page.getByPlaceholder('Find an answer, or type a text').fill('column_1989');
  await page.getByRole('option', { name: /^column_1989/ }).click();
  await expect(rehearsal).toContainText('value 1989');
  expect(alerts).toEqual([]);
});

test('an answer for a field of 5,000 options is placed by typing a part of its name', async ({ page }, { retry }) => {
  const [name, label] = [`Nursery list ${retry}`, `Plant ${retry}`];
  const options = Array.from({ length: 5_000 }, (_, n) => ({ label: `Plant no. ${n}` }));
  const made = await page.request.post('/api/v1/fields', {
    data: { record: 'contact', label, type: 'one-of', options },
  });
  expect(made.status()).toBe(201);
  const { key } = (await made.json()) as { key: string };
  const send = await endpoint(page, name);
  const grower = (first: string, plant: string) => ({
    name: `${first} Weir`,
    email: `${first}@nursery${retry}.example`,
    [key]: plant,
  });
  await send(grower('ada', 'Plant no. 7'));
  await draftFor(page, name);
  await publish(page, 1);
  await send(grower('bo', `Gunnera ${retry}`));

  await page.goto('/decide');
  await page.getByRole('navigation', { name: 'To decide' }).getByText(`“Gunnera ${retry}”`).click();
  await expect(page.getByText('4940 more. Type to find one.')).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('no. 4711');
  await page.keyboard.press('Enter');
  await expect(page.getByText(`“Gunnera ${retry}” means Plant no. 4711 now.`)).toBeVisible();
  // The field goes again, so that others find the workspace as it was.
  expect((await page.request.patch(`/api/v1/fields/contact/${key}`, { data: { retired: true } })).ok()).toBe(true);
});
