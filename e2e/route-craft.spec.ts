import { expect, type APIRequestContext, type Page } from '@playwright/test';
import { test } from './journey';
import { draftFor, endpoint, publish, signIn } from './support';

/** What a form builder elsewhere might send: the questions in a list, beside their answers. */
const messy = (name: string, email: string, more: Record<string, string> = {}) => ({
  event: {
    id: 'evt_9f2k20dk29d1',
    answers: [
      { id: 'a1', title: 'Your name', value: name },
      { id: 'a2', title: 'E-mail address', value: email },
      { id: 'a3', title: 'Company', value: 'Weir Glass' },
      { id: 'a4', title: 'Town', value: more.town ?? 'Ilkley' },
      { id: 'a5', title: 'Your message', value: 'Two bays against the south wall.\nSoon, please.' },
    ],
  },
});

async function total(request: APIRequestContext, kind: string, q: string): Promise<number> {
  return ((await (await request.get(`/api/v1/${kind}?q=${q}`)).json()) as { total: number }).total;
}

test.beforeEach(({ page }) => signIn(page));

test('a messy payload is mapped with suggestions, rehearsed, caught up on, and what it wrote is taken back', async ({
  page,
}, { retry }) => {
  const [name, site] = [`Show stand ${retry}`, `weirglass${retry}`];
  const send = await endpoint(page, name);
  await send(messy('ada van der weir', `Ada@${site}.example`));
  await send(messy('EDA LOCK', `eda@${site}.example`, { town: 'Otley' }));
  await draftFor(page, name);

  // What leaves little doubt is fed; the rest is suggested with its reasons, and taken one by one.
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await expect(rehearsal).toContainText('Eda');
  const contact = page.getByRole('region', { name: 'Fields of the contact' });
  await contact.getByRole('button', { name: 'Remove Last name' }).click();
  await expect(rehearsal).toContainText(/Last name is needed/);
  const suggested = page.getByRole('region', { name: 'Suggestions for the contact' });
  await expect(suggested).toContainText('Last name');
  await suggested.getByRole('button', { name: /for Last name$/ }).click();
  await expect(rehearsal).toContainText('Lock');

  // Only one town.
  await page.getByRole('button', { name: /^2 Only when/ }).click();
  await page.getByRole('button', { name: 'Test', exact: true }).click();
  await page.getByLabel('Field', { exact: true }).selectOption({ label: 'Town' });
  await page.getByLabel('Wanted').fill('ilk-ley');
  await expect(page.getByText('0 of the last 2 submissions would pass.')).toBeVisible();
  await expect(page.getByText(/1 differs only by spaces, punctuation or accents/)).toBeVisible();
  await page.getByLabel('Wanted').fill('ilkley');
  await expect(page.getByText('1 of the last 2 submissions would pass.')).toBeVisible();
  await expect(rehearsal).toContainText('takes this only when');
  await publish(page, 1);

  // What came before is caught up on, now or later, and leaves out whom the condition does not let through.
  await page.getByRole('button', { name: 'Process 2 earlier submissions' }).click();
  await expect(page.getByText('2 submissions not run by it yet.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'More about this route' }).click();
  await page.getByRole('menuitem', { name: 'Process missed submissions…' }).click();
  await expect(page.getByText('2 submissions not run by it yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Route 2 submissions' }).click();
  await expect(page.getByText(/2 submissions on the way/)).toBeVisible();
  await expect.poll(() => total(page.request, 'contacts', site)).toBe(1);
  await page.goto(`/records/contacts?q=${site}`);
  await page.getByRole('link', { name: 'Ada van der Weir' }).click();
  await expect(page.getByRole('button', { name: 'Edit Last name: van der Weir' })).toBeVisible();

  // And all of it is taken back, and given again.
  await page.goto('/routes');
  await page.getByRole('link', { name }).click();
  await page.getByRole('button', { name: 'More about this route' }).click();
  await page.getByRole('menuitem', { name: 'Take back all it wrote…' }).click();
  await expect(page.getByRole('dialog')).toContainText('nothing else touched them');
  await page.getByRole('button', { name: 'Take back 1 run' }).click();
  await expect.poll(() => total(page.request, 'contacts', site)).toBe(0);
  await page
    .getByRole('listitem')
    .filter({ hasText: /^Took back/ })
    .getByRole('button', { name: 'Undo' })
    .click();
  await expect.poll(() => total(page.request, 'contacts', site)).toBe(1);
});

test('a saved case holds up publishing until somebody agrees; versions are compared over what arrived', async ({
  page,
}, { retry }) => {
  const name = `Open day ${retry}`;
  const send = await endpoint(page, name);
  for (const n of [1, 2, 3])
    await send({ name: `Ada Weir ${n}`, email: `ada${n}@openday${retry}.example`, job: 'Head' });
  await draftFor(page, name);
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await expect(rehearsal).toContainText('Weir');
  await rehearsal.getByRole('button', { name: /save it as a case/ }).click();
  await rehearsal.getByLabel('Name of the case').fill('A visitor');
  await rehearsal.getByRole('button', { name: 'Save', exact: true }).click();
  await rehearsal.getByRole('tab', { name: 'Saved cases' }).click();
  await expect(rehearsal.getByText('as expected')).toBeVisible();
  await publish(page, 1);

  const contact = page.getByRole('region', { name: 'Fields of the contact' });
  await contact.getByRole('button', { name: 'Remove Job title' }).click();
  await expect(rehearsal.getByText('another result')).toBeVisible();
  await page.getByRole('button', { name: 'Publish…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('The contact’s Job title is another');
  await expect(dialog.getByRole('button', { name: 'Publish version 2' })).toBeDisabled();
  await dialog.getByLabel('Publish all the same, knowing this').click();
  await dialog.getByRole('button', { name: 'Publish version 2' }).click();
  await expect(page.getByText('live, version 2')).toBeVisible();
  await rehearsal.getByRole('button', { name: 'Agree on this instead' }).click();
  await expect(rehearsal.getByText('as expected')).toBeVisible();

  await page.getByRole('button', { name: 'More about this route' }).click();
  await page.getByRole('menuitem', { name: 'Versions' }).click();
  await dialog.getByRole('button', { name: 'Rehearse on past submissions' }).click();
  await expect(dialog.getByText('3 of them differ.')).toBeVisible();
  await dialog.getByText('The contact’s Job title is another').click();
  await expect(dialog.getByRole('link', { name: 'Ada Weir 3' })).toBeVisible();
  await dialog
    .getByRole('listitem')
    .filter({ hasText: 'Robin Nye' })
    .last()
    .getByRole('button', { name: 'Take it up again' })
    .click();
  await expect(contact.getByRole('button', { name: 'Remove Job title' })).toBeVisible();
});

test('values of a list are translated from what really came, and what is not in the table waits for a person', async ({
  page,
}, { retry }) => {
  const name = `Catalogue ${retry}`;
  const send = await endpoint(page, name);
  for (const what of ['School garden', 'school garden', 'ferns and mosses'])
    await send({ name: 'Ida Weir', email: `ida${retry}@catalogue.example`, q7: what });
  await draftFor(page, name);
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await page.getByRole('button', { name: 'Feed another field of the contact' }).click();
  await page.getByRole('button', { name: 'Growing for', exact: true }).click();
  await page.getByRole('button', { name: 'Add what feeds Growing for' }).click();
  await page.getByPlaceholder('Find an answer, or type a text').fill('q7');
  await page.getByRole('option', { name: 'q7 ferns and mosses' }).click();
  await page.getByRole('button', { name: 'Finishers of Growing for' }).click();
  await page.getByLabel('Add a finisher').selectOption('translate');
  const table = page.getByRole('region', { name: 'Translation table' });
  await expect(table).toContainText('ferns and mosses');
  await expect(rehearsal).toContainText('The run would wait');
  await table.getByLabel('What “ferns and mosses” becomes').selectOption('Ornamentals');
  await expect(rehearsal).toContainText('Ornamentals');
  await expect(page.getByText(/ferns and mosses → /)).toBeVisible();
});

test('two people on one draft see each other’s changes, and neither’s are lost', async ({ page, browser }, {
  retry,
}) => {
  const name = `Both ${retry}`;
  const send = await endpoint(page, name);
  await send({ name: 'Ada Weir', email: `ada${retry}@both.example`, job: 'Head' });
  await draftFor(page, name);
  const other = await (await browser.newContext()).newPage();
  await other.request.post('/api/v1/session/demo', { data: { email: 'sunita.kaur@quillfern.example' } });
  await other.goto(page.url());
  const lines = (at: Page) => at.getByRole('region', { name: 'Fields of the contact' });
  await expect(lines(other).getByRole('button', { name: 'Remove Job title' })).toBeVisible();
  await expect(other.getByText('Robin Nye is here too')).toBeVisible();
  await expect(page.getByText('Sunita Kaur is here too')).toBeVisible();

  await lines(page).getByRole('button', { name: 'Remove Job title' }).click();
  await expect(other.getByText(/Robin Nye changed this draft/)).toBeVisible();
  await expect(lines(other).getByRole('button', { name: 'Remove Job title' })).toHaveCount(0);

  // Both at once: each changes something else before hearing of the other.
  await page.getByRole('button', { name: /^1 Takes from/ }).click();
  await other.getByRole('button', { name: /^1 Takes from/ }).click();
  await Promise.all([
    page.getByLabel('Name of the route').fill(`${name} of Robin`),
    other.request.get('/api/v1/session').then(() => other.getByRole('button', { name: /^5 Decide/ }).click()),
  ]);
  await expect(other.getByRole('heading', { name: `${name} of Robin`, level: 1 })).toBeVisible();
  await other.getByRole('link', { name: 'Quillfern Glasshouses, home' }).click();
  await expect(page.getByText('Sunita Kaur is here too')).toBeHidden();
  await other.context().close();
});

test('a field whose sender gives only an id is named once, beside its examples, and goes by that name', async ({
  page,
}, { retry }) => {
  const name = `Ids only ${retry}`;
  const send = await endpoint(page, name);
  await send({
    data: [
      { id: 'f7', value: 'Two bays' },
      { id: 'f8', value: `ida${retry}@ids.example` },
    ],
  });
  await page.goto('/intakes');
  await page.getByRole('link', { name, exact: true }).click();
  const line = page.getByRole('row').filter({ hasText: 'data.f7' });
  await expect(line).toContainText('Two bays');
  await line.getByRole('button', { name: 'Name data.f7' }).click();
  await line.getByLabel('Name of data.f7').fill('What will you build?');
  await line.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'What will you build?' })).toContainText('data.f7');
  // The sender's definition of its form names the others.
  await page.getByRole('button', { name: 'Names from a file…' }).click();
  const dialog = page.getByRole('dialog', { name: 'Names from a file' });
  await dialog.getByLabel('The document').fill('{ "questions": [');
  await expect(dialog.getByText('This is no JSON and no table of two columns yet.')).toBeVisible();
  await dialog.getByLabel('The document').fill(JSON.stringify({ questions: [{ id: 'f8', title: 'Where to write' }] }));
  await expect(dialog.getByRole('status', { name: 'Names found' })).toContainText('1 name for 1 field without one');
  await dialog.getByRole('button', { name: 'Keep 1 name' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'Where to write' })).toContainText('data.f8');
  await draftFor(page, name);
  await expect(page.getByText('What will you build?')).toBeVisible();

  // The sample that shows best what is meant is found by what it holds.
  await send({ data: [{ id: 'f7', value: 'Ten bays' }] });
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  const finder = page.getByRole('dialog', { name: 'Find a sample' });
  const find = async (press: string, text?: string) => {
    await rehearsal.getByRole('button', { name: 'Find a sample' }).click();
    if (text) await page.getByLabel('With an answer that holds').fill(text);
    await finder.getByRole('button', { name: press }).click();
  };
  await find('Find', 'TEN bays');
  const incoming = page.getByRole('main');
  await expect(finder).toBeHidden();
  await expect(incoming).toContainText('Ten bays');
  await find('The most complete');
  await expect(finder).toBeHidden();
  await expect(incoming).toContainText(`ida${retry}@ids.example`);
  await find('Find', 'orchids');
  await expect(page.getByText('None of the latest 5,000 is like that.')).toBeVisible();
});
