import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { draftFor, endpoint, publish, signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

/** The stand-in that is posted to, on the ninth port after the application's. */
function receiver(page: Page): string {
  const { hostname, port } = new URL(page.url());
  return `http://${hostname}:${Number(port) + 9}`;
}

async function receivedAt(page: Page, path: string): Promise<{ body: string; headers: Record<string, string> }[]> {
  const all = (await (await page.request.get(`${receiver(page)}/received`)).json()) as { path: string }[];
  return all.filter((one) => one.path === path) as never;
}

/** Adds a step to the follow-ups of the route whose sheet is open. */
async function addStep(page: Page, kind: string) {
  await page.getByRole('button', { name: 'Add a follow-up' }).click();
  await page.getByRole('menuitem', { name: new RegExp(`^${kind}`) }).click();
  return page.getByRole('list').filter({ has: page.getByRole('listitem', { name: /, step \d/ }) });
}

test('a post is added, rehearsed, published, and seen to arrive', async ({ page }, { retry }) => {
  const name = `Posting ${retry}`;
  const send = await endpoint(page, name);
  await send({ name: 'Ida Weir', email: `ida.posting${retry}@weir.example`, plot: 'north' });
  await draftFor(page, name);
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  await addStep(page, 'Post');
  const address = page.getByLabel('Address to post to');
  await address.fill('warehouse');
  await expect(page.getByText('“warehouse” is no address to post to', { exact: false }).first()).toBeVisible();
  await address.fill(`${receiver(page)}/posting${retry}`);
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await expect(rehearsal).toContainText('Post to 127.0.0.1');
  await expect(rehearsal).toContainText('"event": "records.written"');

  // A message of one's own, for some submissions only.
  await page.getByLabel('What it sends').selectOption('message');
  await page.getByRole('button', { name: 'Add what feeds the message' }).click();
  await page.getByPlaceholder('Find an answer, or type a text').fill('plot');
  await page.getByRole('option', { name: /plot/ }).first().click();
  await expect(rehearsal).toContainText('"text": "north"');
  await publish(page, 1);
  await send({ name: 'Bo Weir', email: `bo.posting${retry}@weir.example`, plot: 'south' });
  await expect.poll(async () => (await receivedAt(page, `/posting${retry}`)).at(-1)?.body).toBe('{"text":"south"}');

  await page.goto('/submissions');
  await page.getByText('Bo Weir').first().click();
  const panel = page.getByRole('complementary', { name: 'The submission' });
  await expect(panel.getByRole('heading', { name: 'Sent on' })).toBeVisible();
  await expect(panel).toContainText('sent');
  await page.goto('/set-up/outbox?state=done');
  await page
    .getByText(new URL(receiver(page)).host, { exact: true })
    .first()
    .click();
  await expect(page.getByRole('dialog', { name: 'A post' })).toContainText('"text"');
});

test('what cannot be delivered waits for a person, who sends it again', async ({ page }, { retry }) => {
  const name = `Gone ${retry}`;
  const send = await endpoint(page, name);
  await send({ name: 'Ada Weir', email: `ada.gone${retry}@weir.example` });
  await draftFor(page, name);
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  await addStep(page, 'Post');
  await page.getByLabel('Address to post to').fill(`${receiver(page)}/gone${retry}`);
  await publish(page, 1);
  await page.request.put(`${receiver(page)}/behaviour`, { data: { status: 410, times: 1 } });
  await send({ name: 'Cleo Weir', email: `cleo.gone${retry}@weir.example` });
  await expect.poll(async () => (await receivedAt(page, `/gone${retry}`)).length).toBe(1);
  await page.goto('/decide');
  await page
    .getByRole('button', { name: /Not delivered/ })
    .filter({ hasText: name })
    .click();
  await expect(page.getByRole('heading', { name: `1 post of ${name} could not be delivered` })).toBeVisible();
  await expect(page.getByRole('main')).toContainText('answered 410');
  await page.getByRole('button', { name: /^Send again/ }).click();
  await expect(page.getByText(/1 post to .* is sent again/)).toBeVisible();
  await expect.poll(async () => (await receivedAt(page, `/gone${retry}`)).length).toBe(2);
  const ids = (await receivedAt(page, `/gone${retry}`)).map(({ headers }) => headers['webhook-id']);
  expect(ids[0]).toBe(ids[1]);
});

test('tags are a step too, steps change places, and the signing secret is replaced', async ({ page }, { retry }) => {
  const name = `Marking ${retry}`;
  const send = await endpoint(page, name);
  await send({ name: 'Dot Weir', email: `dot.marking${retry}@weir.example`, area: 2000 });
  await draftFor(page, name);
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  await addStep(page, 'Post');
  await page.getByLabel('Address to post to').fill(`${receiver(page)}/marking${retry}`);
  await addStep(page, 'Tags');
  const step = page.getByRole('listitem', { name: 'Tags, step 2' });
  await step.getByLabel('Wants a visit').first().check();
  await expect(page.getByRole('complementary', { name: 'Rehearsal' })).toContainText('Wants a visit');
  await page.getByRole('button', { name: 'Do step 2 earlier' }).click();
  await expect(page.getByRole('listitem', { name: 'Tags, step 1' })).toBeVisible();
  await expect(page.getByRole('listitem', { name: 'Post, step 2' })).toBeVisible();
  await page.getByRole('button', { name: 'Remove step 2' }).click();
  await expect(page.getByLabel('Address to post to')).toBeHidden();

  await page.goto('/set-up/outbox');
  await page.getByRole('button', { name: 'Signing secret…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Signing secret' });
  await expect(dialog).toContainText('whsec_');
  const before = await dialog.getByLabel('The signing secret', { exact: true }).textContent();
  await dialog.getByRole('button', { name: 'Replace…' }).click();
  await dialog.getByRole('button', { name: 'Replace it' }).click();
  await expect(dialog.getByLabel('The signing secret', { exact: true })).not.toHaveText(before!);
});
