import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

async function openRoute(page: Page, name: string): Promise<string> {
  await page.goto('/routes');
  await page
    .getByRole('link', { name: new RegExp(name) })
    .first()
    .click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  return page.url().split('/').at(-1)!;
}

const daysAgo = (days: number) => new Date(Date.now() - days * 86_400_000);

test('a draft is compared with what runs over a year of submissions, and what differs is opened', async ({ page }) => {
  await openRoute(page, 'Price list readers');
  const contact = page.getByRole('region', { name: 'Fields of the contact' });
  await contact.getByRole('button', { name: /^Remove First name/ }).click();
  await expect(page.getByText('The draft is saved and differs from what runs')).toBeVisible();

  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await rehearsal.getByRole('tab', { name: 'Many' }).click();
  await rehearsal.getByLabel('The latest').selectOption('10,000 submissions');
  await rehearsal.getByRole('button', { name: 'Rehearse them' }).click();
  await expect(rehearsal.getByText(/\d submissions rehearsed, [\d,]+ of them differ\./)).toBeVisible({
    timeout: 60_000,
  });
  await rehearsal.getByText('The contact’s First name is another').click();
  await rehearsal.getByRole('listitem').first().getByRole('link').click();
  await rehearsal.getByRole('tab', { name: 'One sample' }).click();
  await expect(rehearsal.getByText(/1 of \d+/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await expect(page.getByText('No unpublished changes')).toBeVisible();
});

test('what a route wrote on one day is taken back, leaving what people changed since, and the act is undone', async ({
  page,
}, { retry }) => {
  const id = await openRoute(page, 'Site survey request');
  const takenBack = async () =>
    ((await (await page.request.get(`/api/v1/submissions?route=${id}&outcome=taken-back`)).json()) as { total: number })
      .total;
  // The day with the most arrivals of the last weeks is the Tuesday on which everything went wrong; a day whose records
  // people work with already has nothing to take back.
  const since = daysAgo(40).toISOString();
  const list = await page.request.get(`/api/v1/submissions?route=${id}&outcome=written&since=${since}&limit=200`);
  const { items } = (await list.json()) as { items: { receivedAt: string }[] };
  const counts = new Map<string, number>();
  for (const { receivedAt } of items) {
    const day = new Date(receivedAt).toLocaleDateString('sv');
    counts.set(day, (counts.get(day) ?? 0) + 1);
  }
  counts.delete(new Date().toLocaleDateString('sv'));
  const days: [day: string, arrived: number][] = [];
  for (const [day, arrived] of [...counts].sort((a, b) => b[1] - a[1])) {
    const from = new Date(`${day}T00:00`);
    const before = new Date(from.getTime() + 86_400_000).toISOString();
    const choice = { route: id, since: from.toISOString(), before };
    const rehearsed = await page.request.post('/api/v1/runs/take-back/rehearse', { data: choice });
    const { changed, removed } = (await rehearsed.json()) as { changed: number; removed: Record<string, number> };
    if (changed || Object.keys(removed).length) days.push([day, arrived]);
    if (days.length > retry) break;
  }
  const [day, arrived] = days[retry]!;

  await page.getByRole('button', { name: 'More about this route' }).click();
  await page.getByRole('menuitem', { name: 'Take back all it wrote…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Arrived from').fill(day);
  await dialog.getByLabel('until, with that day').fill(day);
  const act = dialog.getByRole('button', { name: `Take back ${arrived} ${arrived === 1 ? 'run' : 'runs'}` });
  await expect(act).toBeEnabled();
  await expect(dialog.getByText(/would (go back|be removed)/).first()).toBeVisible();
  const already = await takenBack();
  await act.click();
  const done = page.getByText(new RegExp(`^Took back ${arrived} runs?`));
  await expect(done).toBeVisible();
  expect(await takenBack()).toBe(already + arrived);
  await page.getByRole('listitem').filter({ has: done }).getByRole('button', { name: 'Undo' }).click();
  await expect.poll(takenBack).toBe(already);
});
