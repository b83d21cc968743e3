import { expect } from '@playwright/test';
import { test } from './journey';
import { draftFor, endpoint, publish, signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

test('a field renamed at the sender is told, and repaired in two clicks, with nothing lost in between', async ({
  page,
}, { retry }) => {
  const name = `Glass fair ${retry}`;
  const send = await endpoint(page, name);
  const visitor = (first: string, phone: object) => ({
    visitor: { name: `${first} Weir`, email: `${first}@fair${retry}.example`, ...phone },
  });
  await send(visitor('ada', { telephone: '07700 900318' }));
  await send(visitor('bo', { telephone: '07700 900319' }));
  await draftFor(page, name);
  await expect(page.getByRole('complementary', { name: 'Rehearsal' })).toContainText('+44 7700 900319');
  await publish(page, 1);
  await send(visitor('cleo', { cellphone: '07700 900320' }));

  const decide = page.getByRole('link', { name: /^To decide/ });
  await decide.click();
  await page.getByRole('navigation', { name: 'To decide' }).getByText(`telephone → cellphone, ${name}`).click();
  await expect(page.getByRole('heading', { name: 'Is “cellphone” the new name of “telephone”?' })).toBeVisible();
  await expect(page.getByText('Repair: 1 route reads both names, blanks are filled in 1 record.')).toBeVisible();
  await expect(page.getByText(/blank → \+44 7700 900320/).first()).toBeVisible();
  await page.getByRole('button', { name: /^Repair/ }).click();
  await expect(
    page.getByText(`${name} reads “visitor.cellphone” now and blanks were filled in 1 record.`),
  ).toBeVisible();
  await expect(page.getByText(`telephone → cellphone, ${name}`)).toBeHidden();

  await page.goto(`/records/contacts?q=cleo@fair${retry}`);
  await expect(page.getByRole('row', { name: /cleo/i })).toContainText('+44 7700 900320');
});

test('an address that leads to no decision says so, beside those that wait', async ({ page }) => {
  await page.goto('/decide/nope');
  await expect(page.getByRole('heading', { name: 'There is no such decision' })).toBeVisible();
  await page.getByRole('navigation', { name: 'To decide' }).getByRole('button').first().click();
  await expect(page.getByRole('article').getByRole('heading', { level: 1 })).toBeVisible();
});

test('what waits is decided by keyboard alone, and what is left comes back when more of it comes', async ({ page }, {
  retry,
}) => {
  const name = `Answers ${retry}`;
  const send = await endpoint(page, name);
  const asked = (first: string, growing: string) => ({
    name: `${first} Weir`,
    email: `${first}@answers${retry}.example`,
    growing_for: growing,
  });
  await send(asked('ida', 'Teaching garden'));
  await draftFor(page, name);
  await publish(page, 1);
  await send(asked('jo', `Moss wall ${retry}`));
  await send(asked('kit', `Bee house ${retry}`));
  await send(asked('lou', `Bee house ${retry}`));

  await page.goto('/decide');
  await page.waitForURL(/\/decide\/./);
  const list = page.getByRole('navigation', { name: 'To decide' });
  await expect(list.getByText(`Growing for: “Moss wall ${retry}”, ${name}`)).toBeVisible();
  await expect(list.getByText(`Growing for: “Bee house ${retry}”, ${name}`)).toBeVisible();
  const goTo = async (value: string) => {
    const wanted = list.getByRole('button').filter({ hasText: `“${value} ${retry}”` });
    await expect(list.locator('[aria-current=true]')).toBeVisible();
    await expect(wanted).toBeVisible();
    // What waits comes in the order of how often it came, which changes meanwhile.
    const way = () =>
      wanted.evaluate((button) => {
        const lines = [...button.closest('ul')!.querySelectorAll('button')];
        return lines.indexOf(button as HTMLButtonElement) - lines.findIndex((line) => line.ariaCurrent === 'true');
      });
    for (let steps = 0, by = await way(); steps < 60 && by !== 0; steps += 1, by = await way())
      await page.keyboard.press(by > 0 ? 'j' : 'k');
    await expect(page.getByRole('heading', { name: `What does “${value} ${retry}” mean?` })).toBeVisible();
  };
  await goTo('Bee house');
  await page.keyboard.press('1');
  await expect(page.getByText(`“Bee house ${retry}” means Teaching garden now.`)).toBeVisible();
  await expect(list.getByText(`“Bee house ${retry}”`)).toBeHidden();
  await page.goto('/decide');
  await page.waitForURL(/\/decide\/./);
  await goTo('Moss wall');
  await page.keyboard.press('x');
  await expect(list.getByText(`“Moss wall ${retry}”`)).toBeHidden();
  await send(asked('mo', `Moss wall ${retry}`));
  await expect(list.getByText(`“Moss wall ${retry}”`)).toBeVisible();

  await page.goto(`/records/contacts?q=answers${retry}`);
  await expect(page.getByRole('row', { name: /kit/i })).toBeVisible();
  const contacts = await page.request.get(`/api/v1/contacts?q=answers${retry}`);
  const { items } = (await contacts.json()) as { items: { values: { first_name: string; growing_for?: string } }[] };
  const growing = new Map(items.map(({ values }) => [values.first_name, values.growing_for]));
  expect([growing.get('Kit'), growing.get('Lou'), growing.get('Mo')]).toEqual([
    'teaching-garden',
    'teaching-garden',
    undefined,
  ]);
});
