import { expect } from '@playwright/test';
import { test } from './journey';
import { addAnswer, addStep, cameTo, publish, signIn, type CameMail } from './support';

test.beforeEach(({ page }) => signIn(page));

test('on a new form a submission makes a task, tells a channel and sends a mail with a PDF; then after a yes, and one comes back', async ({
  page,
  browser,
}, { retry }) => {
  const name = `Ask us ${retry}`;
  const topic = `What it is about ${retry}`;
  await page.goto('/intakes');
  await page.getByRole('button', { name: 'New form' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.getByRole('button', { name: 'Add a question' }).click();
  await page.getByLabel('Find a field, or name a new one').fill(topic);
  await page.getByRole('button', { name: 'Make it and ask for it' }).click();
  await expect(page.frameLocator('iframe').getByLabel(topic)).toBeVisible();
  await page.getByRole('button', { name: 'Publish…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Publish version 1' }).click();
  await page.getByRole('button', { name: 'Open its route' }).click();

  // Nobody sent it yet, and the rehearsal shows all the same what it would do.
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await expect(rehearsal).toContainText('made-up answers');
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  await addStep(page, 'Task');
  await addAnswer(page, 'the title', topic);
  await addStep(page, 'Message');
  await page.getByLabel('Who is told').selectOption('care-desk');
  await addAnswer(page, 'the message', topic);
  await addStep(page, 'Document');
  await addStep(page, 'Mail');
  await page.getByLabel('By which template').selectOption('a new one that says thank you…');
  await page.getByRole('checkbox', { name: 'the document' }).check();
  await expect(rehearsal).toContainText('Message to Care desk');
  await expect(rehearsal).toContainText('We have what you sent');
  await publish(page, 2);

  const visitor = await (await browser.newContext()).newPage();
  const send = async (first: string, email: string, subject: string) => {
    await visitor.goto(new URL(`/f/ask-us-${retry}`, page.url()).href);
    await visitor.getByLabel('First name').fill(first);
    await visitor.getByLabel('Last name').fill('Weir');
    await visitor.getByLabel('E-mail').fill(email);
    await visitor.getByLabel(topic).fill(subject);
    await visitor.getByRole('button', { name: 'Send' }).click();
    await expect(visitor.getByRole('heading', { name: 'Thank you' })).toBeVisible();
  };
  const mails = async (email: string) => (await cameTo<CameMail>(page, 3)).filter(({ to }) => to.includes(email));
  const messages = async () =>
    (await cameTo<{ body: string }>(page, 5)).map(({ body }) => (JSON.parse(body) as { text: string }).text);
  const subject = `Roof of ${retry}`;
  const ida = `ida@first-day${retry}.example`;
  await send('Ida', ida, subject);
  await expect.poll(() => mails(ida)).toMatchObject([{ attachments: [{ contentType: 'application/pdf' }] }]);
  await expect.poll(messages).toContainEqual(expect.stringContaining(subject));
  await page.goto('/tasks?owner=everybody');
  await expect(page.getByText(subject)).toBeVisible();

  await page.goto('/routes');
  await page.getByRole('link', { name }).first().click();
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  await page.getByRole('button', { name: 'Ask somebody first' }).click();
  await page.getByLabel('Who is asked, approval').selectOption({ label: 'Robin Nye' });
  await publish(page, 3);
  // The stand-in for mail knows no mailbox of this name.
  const nobody = `nobody@first-day${retry}.example`;
  await send(`Nobody${retry}`, nobody, `Door of ${retry}`);
  await page.goto('/decide');
  await page.getByRole('navigation', { name: 'To decide' }).getByText(`Nobody${retry} Weir`).click();
  await expect(page.getByRole('heading', { name: `May ${name} write what Nobody${retry} Weir sent?` })).toBeVisible();
  await expect(page.getByText(/^New contact/)).toBeVisible();
  expect(await messages()).not.toContainEqual(expect.stringContaining(`Door of ${retry}`));
  await page.keyboard.press('y');
  await expect(page.getByText('It goes through the route, and is written.')).toBeVisible();
  await expect.poll(messages).toContainEqual(expect.stringContaining(`Door of ${retry}`));
  await page.goto(`/records/contacts?q=${nobody}`);
  await page
    .getByRole('link', { name: `Nobody${retry} Weir` })
    .first()
    .click();
  await expect(page.getByText('came back: We have what you sent (550 5.1.1', { exact: false })).toBeVisible();
});
