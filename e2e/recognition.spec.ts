import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { draftFor, endpoint, publish, signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

/** Family names that nobody else in the demo has, and none like another. */
const NAMES =
  'Abernathy Bickerstaffe Chivers Drummond Eccleston Fothergill Gillespie Hathersage Ibbotson Jephson Kilbride Lamplugh Micklethwait Nunnington Osbaldeston Pumphrey Quiller Rowntree Strickland Umfreville'.split(
    ' ',
  );

async function contact(page: Page, values: object): Promise<string> {
  const answer = await page.request.post('/api/v1/contacts', { data: { values } });
  expect(answer.status()).toBe(201);
  return ((await answer.json()) as { id: string }).id;
}

const list = (page: Page) => page.getByRole('navigation', { name: 'To decide' });

/** New records are looked at three seconds later, and ten later again while many submissions wait to be routed. */
const LOOKED_AT = { timeout: 45_000 };

test('twenty pairs are decided by keyboard alone', async ({ page }, { retry }) => {
  const surname = (index: number) => `${NAMES[index]}${'xyz'[retry] ?? 'w'}`;
  for (const [index] of NAMES.entries()) {
    const phone = `07700 9007${String(index).padStart(2, '0')}`;
    const one = { first_name: 'Leontien', last_name: surname(index), phone };
    await contact(page, { ...one, email: `l${index}r${retry}@${surname(index)}.example`.toLowerCase() });
    await contact(page, { ...one, first_name: 'Leontein', email: `leo${index}r${retry}@example.net` });
  }
  await page.goto('/decide');
  for (const [index] of NAMES.entries())
    await expect(list(page).getByText(surname(index)).first()).toBeVisible(LOOKED_AT);
  await list(page).getByText(surname(0)).first().click();
  const question = page.getByRole('heading', { name: 'Is this the same person?' });
  for (let decided = 0; decided < NAMES.length; decided++) {
    const own = new RegExp(`${NAMES.map((_, index) => surname(index)).join('|')}`);
    const current = list(page).locator('[aria-current="true"]');
    // Others of the demo wait too: down to the next of these, or up again from the end.
    let text = (await current.textContent()) ?? '';
    for (let way = 'j'; !own.test(text);) {
      await page.keyboard.press(way);
      const next = (await current.textContent()) ?? '';
      if (next === text) way = way === 'j' ? 'k' : 'j';
      text = next;
    }
    await expect(question).toBeVisible();
    const name = own.exec(text)![0];
    await expect(page.getByRole('article')).toContainText(name);
    await page.keyboard.press(decided % 4 === 3 ? 'd' : 's');
    await expect(list(page).getByText(name)).toHaveCount(0);
  }
  const of = async (index: number) => {
    const answer = await page.request.get(`/api/v1/contacts?phone=%2B4477009007${String(index).padStart(2, '0')}`);
    return ((await answer.json()) as { items: { values: { last_name: string } }[] }).items.filter(
      ({ values }) => values.last_name === surname(index),
    ).length;
  };
  const kept = await Promise.all(NAMES.map((_, index) => of(index)));
  expect(kept.filter((count) => count === 1)).toHaveLength(15);
  expect(kept.filter((count) => count === 2)).toHaveLength(5);
});

test('a merge is taken apart, and what arrived in between goes to whom it belongs', async ({ page }, { retry }) => {
  const firm = `Kelderhof ${retry}`;
  const send = await endpoint(page, firm);
  const at = `kelderhof${retry}.example`;
  await send({ name: 'Wilma Kelder', email: `wilma@${at}`, phone: '07700 900601' });
  await draftFor(page, firm);
  await publish(page, 1);
  await send({ name: 'Wilma Kelder', email: `wilma@${at}`, phone: '07700 900601' });
  await send({ name: 'Willem Kelder', email: `willem@${at}` });

  await page.goto(`/records/contacts?q=${at}`);
  const rows = page.getByRole('row', { name: /Kelder/ });
  await expect(rows).toHaveCount(2);
  for (const row of await rows.all()) await row.getByRole('checkbox').click();
  await page.getByRole('button', { name: 'Make one of them' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('The record that stays').selectOption({ index: 0 });
  await expect(dialog.getByText('Given name')).toBeVisible();
  await dialog.getByRole('button', { name: 'Make one of 2' }).click();
  await expect(page.getByRole('heading', { name: 'Merged', exact: true })).toBeVisible();
  const merged = page.url();

  await send({ name: 'Willem Kelder', email: `willem@${at}`, phone: '07700 900602' });
  await expect(page.getByText('+44 7700 900602').first()).toBeVisible();
  await page.getByRole('button', { name: 'Take apart' }).click();
  await expect(dialog.getByRole('list', { name: 'What came since' })).toContainText('+44 7700 900602');
  await dialog.getByRole('button', { name: 'Take apart' }).click();
  await expect(page.getByRole('heading', { name: 'Merged', exact: true })).toBeHidden();

  await page.goto(`/records/contacts?q=willem@${at}`);
  await expect(page.getByRole('row', { name: /Willem Kelder/ })).toContainText('+44 7700 900602');
  await page.goto(`/records/contacts?q=wilma@${at}`);
  await expect(page.getByRole('row', { name: /Wilma Kelder/ })).toContainText('+44 7700 900601');
  expect(merged).toContain('/records/contacts/');
});

test('a threshold is moved, and the examples on either side change', async ({ page }, { retry }) => {
  const one = { first_name: 'Saskia', last_name: `Overdonk${'xyz'[retry] ?? 'w'}`, phone: '07700 900611' };
  await contact(page, { ...one, email: `saskia${retry}@overdonk.example` });
  await contact(page, { ...one, first_name: 'Saskja', email: `so${retry}@example.net` });
  await page.goto('/decide');
  await expect(list(page).getByText(one.last_name).first()).toBeVisible(LOOKED_AT);

  await page.goto('/records/recognition');
  const over = page.getByRole('list', { name: 'Just over the line: acceptable' });
  const under = page.getByRole('list', { name: 'Just under the line: asked' });
  await page.getByLabel(/^Accept from/).fill('0.5');
  await expect(over.getByRole('link').first()).toBeVisible();
  const accepted = await over.getByRole('listitem').first().textContent();
  await page.getByLabel(/^Accept from/).fill('1');
  await expect(over).toContainText('None waiting.');
  await expect(under.getByRole('link').first()).toBeVisible();
  expect(await under.getByRole('listitem').first().textContent()).not.toBe(accepted);
  await page.getByLabel(/^Ask from/).fill('0.9');
  await page.getByLabel(/^Accept from/).fill('0.6');
  await expect(page.getByText('Nobody can be asked about what is accepted.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Set thresholds' })).toBeDisabled();
});

test('a route asks who is meant, and goes on as a person says', async ({ page }, { retry }) => {
  const name = `Oosterwijk ${retry}`;
  const send = await endpoint(page, name);
  const at = `oosterwijk${retry}.example`;
  await send({ name: 'Fenna Oosterwijk', email: `fenna@${at}`, phone: '07700 900621' });
  await draftFor(page, name);
  await page.getByRole('button', { name: /Recognise/ }).click();
  const rules = page.getByRole('list', { name: 'Rules for the contact' });
  await rules.getByLabel('another surname').check();
  await page
    .getByRole('group', { name: 'contact' })
    .getByLabel('Recognise by', { exact: true })
    .selectOption('likeness');
  await expect(rules.getByText('by likeness')).toBeVisible();
  await publish(page, 1);
  await send({ name: 'Fenna Oosterwijk', email: `fenna@${at}`, phone: '07700 900621' });
  // The rehearsal says beforehand whom a person will be asked about.
  const rehearsal = page.getByRole('complementary', { name: 'Rehearsal' });
  await rehearsal.getByRole('button', { name: 'Edit the sample by hand' }).click();
  await rehearsal
    .getByLabel('The sample, as JSON')
    .fill(JSON.stringify({ name: 'Fenna Quartermaine', email: `fenna@${at}` }));
  await expect(rehearsal.getByRole('list', { name: 'Possible matches' })).toContainText('Fenna Oosterwijk');
  await send({ name: 'Fenna Quartermaine', email: `fenna@${at}` });

  await page.goto('/decide');
  await list(page).getByText('Fenna Quartermaine').first().click();
  await expect(page.getByRole('heading', { name: 'Is this person known?' })).toBeVisible();
  await expect(page.getByRole('article')).toContainText('has another surname');
  await page.keyboard.press('s');
  await expect(list(page).getByText('Fenna Quartermaine')).toHaveCount(0);
  await page.goto(`/records/contacts?q=fenna@${at}`);
  await expect(page.getByRole('row', { name: /Fenna Quartermaine/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Fenna Oosterwijk/ })).toHaveCount(0);
});

test('sources are put in the order in which they are trusted', async ({ page }) => {
  await page.goto('/records/recognition');
  await page.getByText('Which value survives a merge, field by field').click();
  const trusted = page.getByRole('list', { name: 'Trusted sources' }).getByRole('listitem');
  await expect(trusted.first()).toContainText('What people typed here');
  await page.getByLabel('Add a trusted source').selectOption({ index: 1 });
  await expect(trusted).toHaveCount(2);
  await page.getByRole('button', { name: 'Trust What people typed here less' }).click();
  await expect(trusted.last()).toContainText('What people typed here');
  await page.reload();
  await page.getByText('Which value survives a merge, field by field').click();
  await expect(trusted.last()).toContainText('What people typed here');
  await page
    .getByRole('button', { name: /^Trust .* like any other$/ })
    .first()
    .click();
  await expect(trusted).toHaveCount(1);
});
