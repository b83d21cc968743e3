import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { addAnswer, addStep, cameTo, draftFor, endpoint, publish, signIn, standIn } from './support';

test.beforeEach(({ page }) => signIn(page));

/** The stand-in that is posted to. */
const receiver = (page: Page) => standIn(page, 9);

async function receivedAt(page: Page, path: string): Promise<{ body: string; headers: Record<string, string> }[]> {
  const all = (await (await page.request.get(`${receiver(page)}/received`)).json()) as { path: string }[];
  return all.filter((one) => one.path === path) as never;
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
  await addAnswer(page, 'the message', 'plot');
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

test('tags, lists and fields are steps too, steps change places, and the signing secret is replaced', async ({ page }, {
  retry,
}) => {
  const name = `Marking ${retry}`;
  const send = await endpoint(page, name);
  await send({ name: 'Dot Weir', email: `dot.marking${retry}@weir.example`, role: 'Gardener' });
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
  await addStep(page, 'Lists');
  await page.getByRole('listitem', { name: 'Lists, step 2' }).getByLabel('Spring newsletter').first().check();
  await addStep(page, 'Field');
  await page.getByLabel('Of which record').selectOption({ label: 'the contact' });
  await page.getByLabel('Which field').selectOption({ label: 'Job title' });
  await addAnswer(page, 'what it becomes', 'role');
  await publish(page, 1);
  const email = `dee.marking${retry}@weir.example`;
  await send({ name: 'Dee Weir', email, role: 'Head gardener' });
  const written = async () =>
    (await (await page.request.get(`/api/v1/contacts?email=${email}`)).json()).items[0]?.values;
  await expect.poll(written).toMatchObject({
    job_title: 'Head gardener',
    tags: ['wants-a-visit'],
    lists: ['spring-newsletter'],
  });

  await page.goto('/set-up/outbox');
  await page.getByRole('button', { name: 'Signing secret…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Signing secret' });
  await expect(dialog).toContainText('whsec_');
  const before = await dialog.getByLabel('The signing secret', { exact: true }).textContent();
  await dialog.getByRole('button', { name: 'Replace…' }).click();
  await dialog.getByRole('button', { name: 'Replace it' }).click();
  await expect(dialog.getByLabel('The signing secret', { exact: true })).not.toHaveText(before!);
});

test('a task with the visitor’s own subject, a note and a message are added to a new route, and somebody does the task', async ({
  page,
}, { retry }) => {
  const name = `Helping ${retry}`;
  const send = await endpoint(page, name);
  await send({ name: 'Ida Weir', email: `ida.helping${retry}@weir.example`, subject: 'Roof', words: 'It leaks.' });
  await draftFor(page, name);
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await addStep(page, 'Task');
  await expect(page.getByText('Say what the task is called.').first()).toBeVisible();
  await addAnswer(page, 'the title', 'subject');
  await page.getByLabel('Who gets the task').selectOption({ label: 'Robin Nye' });
  await page.getByLabel('When it is due').selectOption('hours');
  await expect(rehearsal).toContainText('Roof');
  await expect(rehearsal).toContainText('Robin Nye, due');
  await addStep(page, 'Note');
  await addAnswer(page, 'the text', 'words');
  await addStep(page, 'Message');
  await page.getByLabel('Who is told').selectOption('care-desk');
  await addAnswer(page, 'the message', 'words');
  await expect(rehearsal).toContainText('Message to Care desk');
  await publish(page, 1);

  const subject = `Gutter ${retry}`;
  await send({ name: 'Bo Weir', email: `bo.helping${retry}@weir.example`, subject, words: `It drips ${retry}.` });
  await page.goto('/tasks');
  await page.getByRole('link', { name: 'Bo Weir' }).first().click();
  await expect(page.getByText(`It drips ${retry}.`).first()).toBeVisible();
  await expect(page.getByText(`Message to Care desk: It drips ${retry}.`)).toBeVisible();
  const link = page.url();
  await expect
    .poll(async () => (await cameTo<{ body: string }>(page, 5)).map(({ body }) => JSON.parse(body).text as string))
    .toContain(`It drips ${retry}.\n${link}`);

  // By keyboard: down to it, choose it, done.
  await page.goto('/tasks');
  await expect(page.getByText(subject)).toBeVisible();
  await page.getByRole('checkbox', { name: new RegExp(subject) }).check();
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('d');
  await expect(page.getByText('1 task marked as done.')).toBeVisible();
  await expect(page.getByRole('table').getByText(subject)).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('table').getByText(subject)).toBeVisible();
  await page.getByRole('button', { name: /^Done/ }).click();
  await expect(page).toHaveURL(/state=done/);
});

test('a template is written, tried, and the visitor hears by mail', async ({ page }, { retry }) => {
  const name = `Writing ${retry}`;
  await page.goto('/set-up/mail/new');
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Subject').fill(`About {{ answers.subject }} ${retry}`);
  await page.getByLabel('Text', { exact: true }).fill('Dear {{ contact.first_name ');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('This is no Liquid template', { exact: false }).first()).toBeVisible();
  await page.getByLabel('Text', { exact: true }).fill('Dear {{ contact.first_name }}, we ring you.');
  await expect(page.getByText('Dear Maren, we ring you.')).toBeVisible();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(`${name} is saved.`)).toBeVisible();
  await page.getByRole('button', { name: 'Send it to me' }).click();
  await expect(page.getByText('It was taken for robin.nye@quillfern.example.')).toBeVisible();

  const send = await endpoint(page, name);
  const to = `ida.writing${retry}@weir.example`;
  await send({ name: 'Ida Weir', email: to, subject: 'roofs' });
  await draftFor(page, name);
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  await addStep(page, 'Mail');
  await page.getByLabel('By which template').selectOption({ label: name });
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await expect(rehearsal).toContainText(`About roofs ${retry}`);
  await publish(page, 1);
  await send({ name: 'Ida Weir', email: to, subject: 'gutters' });
  await expect
    .poll(async () => (await cameTo<{ to: string[]; subject: string }>(page, 3)).filter((one) => one.to.includes(to)))
    .toMatchObject([{ subject: `About gutters ${retry}` }]);
});

test('a channel is added, tried and removed, and what sends text messages is set', async ({ page }, { retry }) => {
  await page.goto('/set-up/channels');
  await page.getByRole('button', { name: 'New channel' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill(`Night watch ${retry}`);
  await dialog.getByLabel('Incoming address of the chat').fill('not an address');
  await dialog.getByRole('button', { name: 'Add' }).click();
  await expect(dialog.getByText('Type an address that begins with', { exact: false })).toBeVisible();
  await dialog.getByLabel('Incoming address of the chat').fill(`${standIn(page, 5)}/chat/night${retry}`);
  await dialog.getByRole('button', { name: 'Add' }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole('button', { name: `Send a test to Night watch ${retry}` }).click();
  await expect(page.getByText(`A test message came to Night watch ${retry}.`)).toBeVisible();
  expect((await cameTo<{ path: string }>(page, 5)).map(({ path }) => path)).toContain(`/chat/night${retry}`);
  await page.getByRole('button', { name: `Remove Night watch ${retry}` }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText(`Night watch ${retry}`)).toHaveCount(0);
});

test('a route asks a colleague first, who says yes by keyboard', async ({ page }, { retry }) => {
  const name = `Asking ${retry}`;
  const send = await endpoint(page, name);
  const at = (who: string) => `${who}.asking${retry}@weir.example`;
  await send({ name: 'Ida Weir', email: at('ida'), subject: 'Roof' });
  await draftFor(page, name);
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  await page.getByRole('button', { name: 'Ask somebody first' }).click();
  await page.getByLabel('Who is asked, approval').selectOption({ label: 'Robin Nye' });
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await expect(rehearsal).toContainText('Nothing is written until Robin Nye says yes.');
  await publish(page, 1);
  await send({ name: `Bo Asker${retry}`, email: at('bo'), subject: 'Gutter' });
  await page.goto('/decide');
  await page.getByRole('navigation', { name: 'To decide' }).getByText(`Bo Asker${retry}`).click();
  await expect(page.getByRole('heading', { name: `May ${name} write what Bo Asker${retry} sent?` })).toBeVisible();
  expect((await (await page.request.get(`/api/v1/contacts?email=${at('bo')}`)).json()).items).toEqual([]);
  await expect(page.getByText(/^New contact/)).toBeVisible();
  await page.keyboard.press('y');
  await expect(page.getByText('It goes through the route, and is written.')).toBeVisible();
  await page.goto(`/records/contacts?q=${at('bo')}`);
  await expect(page.getByRole('row', { name: new RegExp(`Bo Asker${retry}`) })).toBeVisible();
});
