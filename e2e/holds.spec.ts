import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { addAnswer, addStep, cameTo, draftFor, endpoint, linkTo, publish, signIn, type CameMail } from './support';

test.beforeEach(({ page }) => signIn(page));

test('a visitor confirms by mail before anything is written', async ({ page, browser }, { retry }) => {
  const name = `Confirming ${retry}`;
  const send = await endpoint(page, name);
  const to = `ida.confirming${retry}@weir.example`;
  await send({ name: 'Ida Weir', email: `first.${to}` });
  await draftFor(page, name);
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  await page.getByRole('button', { name: 'Have the visitor confirm' }).click();
  await page.getByLabel('The mail of the confirmation').selectOption('a new one with the link…');
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await expect(rehearsal).toContainText('Please confirm that it is yours');
  await expect(rehearsal).toContainText('The run would wait');
  await page.getByLabel('Days for the confirmation').fill('2');
  await publish(page, 1);
  await send({ name: 'Ida Weir', email: to });

  const link = await linkTo(page, to, '/ask/');
  const visitor = await (await browser.newContext()).newPage();
  await visitor.goto(link);
  await expect(visitor.getByRole('heading', { name: 'Is this you?' })).toBeVisible();
  const contacts = async () =>
    ((await (await page.request.get(`/api/v1/contacts?email=${to}`)).json()) as { items: unknown[] }).items.length;
  expect(await contacts()).toBe(0);
  await visitor.getByRole('button', { name: 'Yes, it is me' }).click();
  await expect(visitor.getByRole('heading', { name: 'Thank you' })).toBeVisible();
  await expect.poll(contacts).toBe(1);
  await visitor.goto(link);
  await expect(visitor.getByRole('heading', { name: 'Thank you' })).toBeVisible();
  const { items } = (await (await page.request.get(`/api/v1/submissions?q=${to}`)).json()) as {
    items: { id: string }[];
  };
  await page.goto(`/submissions?open=${items[0]!.id}`);
  await expect(page.getByText(`${to} confirmed by mail`)).toBeVisible();
});

test('a colleague says yes by the link in a mail, without signing in', async ({ page, browser }, { retry }) => {
  const name = `Mailed ${retry}`;
  const send = await endpoint(page, name);
  await draftForApproval(page, name, send);
  await publish(page, 1);
  const email = `bo.mailed${retry}@weir.example`;
  await send({ name: `Bo Mailed${retry}`, email, subject: 'Gutter' });
  const mails = async () =>
    (await cameTo<CameMail>(page, 3)).filter(({ subject }) => subject.includes(`what Bo Mailed${retry} sent`));
  await expect.poll(async () => (await mails()).length).toBe(1);
  const { pathname } = new URL(/http\S+/.exec((await mails())[0]!.text)![0]);
  const colleague = await (await browser.newContext()).newPage();
  await colleague.goto(new URL(pathname, page.url()).href);
  await expect(
    colleague.getByRole('heading', { name: `May ${name} write what Bo Mailed${retry} sent?` }),
  ).toBeVisible();
  await expect(colleague.getByText('You answer as Robin Nye.', { exact: false })).toBeVisible();
  await expect(colleague.getByText('Gutter')).toBeVisible();
  await colleague.getByLabel('Reason', { exact: false }).fill('Known to us');
  await colleague.getByRole('button', { name: 'Yes, write it' }).click();
  await expect(colleague.getByText('Robin Nye said yes', { exact: false })).toBeVisible();
  await page.goto(`/records/contacts?q=${email}`);
  await expect(page.getByRole('row', { name: new RegExp(`Bo Mailed${retry}`) })).toBeVisible();
  await page.goto('/decide');
  await expect(page.getByText(`Bo Mailed${retry}`)).toHaveCount(0);
});

async function draftForApproval(page: Page, name: string, send: (payload: object) => Promise<void>): Promise<void> {
  await send({ name: 'Ida Weir', email: `ida.${name.replace(/ /g, '')}@weir.example`.toLowerCase(), subject: 'Roof' });
  await draftFor(page, name);
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  await page.getByRole('button', { name: 'Ask somebody first' }).click();
  await page.getByLabel('Who is asked, approval').selectOption({ label: 'Robin Nye' });
  await page.getByRole('checkbox', { name: 'also by mail' }).check();
  await expect(page.getByRole('complementary', { name: 'Rehearsal' })).toContainText('robin.nye@quillfern.example');
}

test('a PDF of what was sent is kept with the record and goes with the mail', async ({ page }, { retry }) => {
  const name = `Documents ${retry}`;
  await page.request.post('/api/v1/mail-templates', { data: { name, subject: name, text: 'It is attached.' } });
  await page.goto('/set-up/mail/files');
  await page
    .getByLabel('File to add')
    .setInputFiles({ name: `Terms ${retry}.txt`, mimeType: 'text/plain', buffer: Buffer.from('Terms') });
  await expect(page.getByRole('link', { name: `Terms ${retry}.txt` })).toBeVisible();
  const send = await endpoint(page, name);
  const to = `ida.documents${retry}@weir.example`;
  await send({ name: 'Ida Weir', email: to, subject: 'Roof' });
  await draftFor(page, name);
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  await addStep(page, 'Document');
  await page.getByLabel('Kept with which record').selectOption({ label: 'the contact' });
  await addAnswer(page, 'the title', 'subject');
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await expect(rehearsal).toContainText('Roof.pdf');
  await addStep(page, 'Mail');
  await page.getByLabel('By which template').selectOption({ label: name });
  await page.getByRole('checkbox', { name: 'the document' }).check();
  await page.getByRole('checkbox', { name: `Terms ${retry}.txt` }).check();
  await publish(page, 1);
  await send({ name: 'Ida Weir', email: to, subject: 'Gutter' });
  await expect
    .poll(async () =>
      (await cameTo<CameMail>(page, 3))
        .filter((one) => one.to.includes(to))
        .map(({ attachments }) => attachments.map(({ filename }) => filename).sort()),
    )
    .toEqual([['Gutter.pdf', `Terms ${retry}.txt`]]);
  await page.goto(`/records/contacts?q=${to}`);
  await page.getByRole('link', { name: 'Ida Weir' }).first().click();
  await expect(page.getByRole('link', { name: 'Gutter.pdf' })).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Gutter.pdf' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('Gutter.pdf');
  await page.getByRole('button', { name: 'What was sent' }).first().click();
  await expect(page.getByRole('region', { name: 'What was sent' })).toContainText('Gutter');
});

test('after sending, a form shows what its route writes the visitor, and has a confirmation put there', async ({
  page,
}) => {
  const mails = page.getByRole('region', { name: 'Mail to the visitor' });
  await page.goto('/intakes/pricelist/form');
  await page.getByRole('button', { name: /^After sending/ }).click();
  await expect(mails).toContainText(
    'The visitor confirms by the mail “Confirm for the price list” first, within 7 days.',
  );
  await expect(mails).toContainText('The visitor is written “The price list”.');
  await page.goto('/intakes/cancel/form');
  await page.getByRole('button', { name: /^After sending/ }).click();
  await expect(mails).toContainText('The visitor is written “We have your cancellation” by the team Care desk.');
  await mails.getByRole('button', { name: 'Have them confirm first' }).click();
  await expect(mails).toContainText('first, within 7 days, once the route is published.');
  await mails.getByRole('link', { name: 'Care plan cancellation' }).click();
  await expect(page.getByText('The draft is saved and differs from what runs')).toBeVisible();
  await page.getByRole('button', { name: /^6?\s*Follow up/ }).click();
  await page.getByRole('button', { name: 'Remove the confirmation' }).click();
  await expect(page.getByText('No unpublished changes')).toBeVisible();
});
