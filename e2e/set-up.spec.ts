import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { saved, signIn } from './support';

test.beforeEach(async ({ page }) => signIn(page));

const stages = (page: Page, pipeline: string) =>
  page.getByRole('table', { name: `Stages of ${pipeline}` }).getByLabel(/^Name of/);
const names = async (page: Page, pipeline: string) =>
  stages(page, pipeline).evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value));

test('a pipeline and its stages are made, named and put in order by keyboard alone', async ({ page }) => {
  await page.goto('/set-up/pipelines');
  await page.getByRole('button', { name: 'New pipeline' }).press('Enter');
  await page.keyboard.type('Repairs');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Reported\nPriced\n');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/set-up\/pipelines\/repairs/);
  await expect.poll(() => names(page, 'Repairs')).toEqual(['Reported', 'Priced', 'Won', 'Lost']);

  await page.getByLabel('Name of a new stage').focus();
  await page.keyboard.type('Visited');
  await page.keyboard.press('Enter');
  await expect.poll(() => names(page, 'Repairs')).toEqual(['Reported', 'Priced', 'Visited', 'Won', 'Lost']);
  await page.getByLabel('Name of Visited').focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(() => names(page, 'Repairs')).toEqual(['Reported', 'Visited', 'Priced', 'Won', 'Lost']);
  await page.getByRole('button', { name: 'Move Priced', exact: true }).focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('Priced is at place 1 of 5.')).toBeAttached();
  await expect.poll(() => names(page, 'Repairs')).toEqual(['Priced', 'Reported', 'Visited', 'Won', 'Lost']);

  await page.getByLabel('Name of Visited').focus();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('reported');
  await expect(page.getByRole('alert')).toHaveText('Another stage has this name');
  await page.keyboard.press('Escape');
  await page.getByLabel('Probability of Priced, percent').fill('140');
  await expect(page.getByRole('alert')).toContainText('from 0 to 100');
  await page.getByLabel('Probability of Priced, percent').fill('40');
  await saved(page, { probability: 40 }, () => page.keyboard.press('Enter'));
  await page.reload();
  await expect(page.getByLabel('Probability of Priced, percent')).toHaveValue('40');
  await expect.poll(() => names(page, 'Repairs')).toEqual(['Priced', 'Reported', 'Visited', 'Won', 'Lost']);
});

test('a stage in use is removed with its deals and its route, and all of it is taken back', async ({ page }) => {
  await page.goto('/set-up/pipelines/dealers');
  const line = page.getByRole('row').filter({ has: page.getByLabel('Name of Applied') });
  const deals = line.getByRole('cell').nth(6);
  await expect(deals).toHaveText(/^[1-9]\d*$/);
  const before = await deals.textContent();
  await page.getByRole('button', { name: 'Remove Applied' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText(`${before} deals are in it and the route Dealer application names it.`);
  await dialog.getByLabel('Deals and routes go to').selectOption('Vetting');
  await dialog.getByRole('button', { name: 'Remove Applied' }).click();
  await expect(page.getByLabel('Name of Applied')).toHaveCount(0);
  await page.getByRole('link', { name: /^Routes/ }).click();
  await page
    .getByRole('link', { name: /Dealer application/ })
    .first()
    .click();
  await page.getByRole('button', { name: /^5 Decide/ }).click();
  await page.getByRole('link', { name: 'Who takes a dealer' }).click();
  const table = page.getByRole('grid', { name: 'Who takes a dealer' });
  await expect(table).toContainText('Vetting');
  await expect(table).not.toContainText('Applied');
  await page.goto('/set-up/pipelines/dealers');

  const removed = page
    .getByRole('main')
    .getByRole('listitem')
    .filter({ hasText: 'Removed the stage Applied of Dealers' });
  await removed.getByRole('button', { name: 'Take back' }).click();
  await expect(removed).toContainText('taken back');
  await expect(page.getByLabel('Name of Applied')).toBeVisible();
  await expect(deals).toHaveText(before!);
});

test('many quick moves end where the last of them went, whatever the way to the server is like', async ({ page }) => {
  await page.goto('/set-up/pipelines/care-plans');
  const before = await (async () => {
    await expect(page.getByLabel('Name of Call booked')).toBeVisible();
    return names(page, 'Care plans');
  })();
  // The first is held up on its way; those after it must not overtake it.
  let held = false;
  await page.route('**/stages/*', async (route) => {
    if (!held && route.request().method() === 'PATCH') {
      held = true;
      await expect(page.getByText('Kept is at place 1 of 5.')).toBeAttached();
    }
    await route.continue();
  });
  await page.getByRole('button', { name: 'Move Kept', exact: true }).focus();
  for (let n = 0; n < 3; n += 1) await page.keyboard.press('ArrowUp');
  await expect.poll(() => names(page, 'Care plans')).toEqual(['Kept', ...before.filter((name) => name !== 'Kept')]);
  await expect
    .poll(() => page.evaluate(() => fetch('/api/v1/pipelines').then((r) => r.text())))
    .toMatch(/"stages":\[\{"key":"kept"/);
  for (let n = 0; n < 3; n += 1) await page.keyboard.press('ArrowDown');
  await expect.poll(() => names(page, 'Care plans')).toEqual(before);
  await expect
    .poll(() => page.evaluate(() => fetch('/api/v1/pipelines').then((r) => r.text())))
    .toMatch(/"stages":\[\{"key":"renewal-due"/);
});

test('the last open stage stays, and says why', async ({ page }) => {
  await page.goto('/set-up/pipelines');
  await page.getByRole('button', { name: 'New pipeline' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Short');
  await page.getByLabel('Open stages, one a line').fill('Only');
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.getByRole('button', { name: 'Remove Only' }).click();
  await expect(page.getByText('Short needs a stage that is open.')).toBeVisible();
  await expect(page.getByLabel('Name of Only')).toBeVisible();
});

test('fields are made by pasting a header row; one is fed, taken out of use, and brought back', async ({ page }) => {
  await page.goto('/set-up/fields/deal');
  await page.getByRole('button', { name: 'New fields' }).click();
  await page.getByLabel('CSV file').setInputFiles({
    name: 'quotes.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('\uFEFFRidge height,Delivery date,"Glazing, kind",Bays\r\n2.4,3 May,single,6\r\n'),
  });
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Type of Ridge height')).toHaveValue('decimal');
  await expect(dialog.getByLabel('Type of Delivery date')).toHaveValue('date');
  await expect(dialog.getByRole('listitem').filter({ hasText: 'Bays' })).toContainText('is there already');
  await dialog.getByLabel('Type of Glazing, kind').selectOption('one of a list');
  await dialog.getByRole('button', { name: 'Make 3 fields' }).click();
  await expect(dialog.getByRole('alert')).toContainText('needs an option to choose');
  await dialog.getByLabel('Options of Glazing, kind').fill('Single, Double');
  await dialog.getByRole('button', { name: 'Make 3 fields' }).click();
  const line = page.getByRole('row').filter({ has: page.getByLabel('Label of Glazing, kind') });
  await expect(line).toContainText('one of a list');
  await expect(line).toContainText('glazing_kind');
  await expect(line).toContainText('no route');

  await page.getByRole('button', { name: 'Options of Glazing, kind' }).click();
  await page.getByLabel('Other names of option 2').fill('twin, insulated');
  await page.getByRole('button', { name: 'Add an option' }).click();
  await page.getByLabel('Name of option 3').fill('twin');
  await page.getByRole('button', { name: 'Save the options' }).click();
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('“twin” means Double already.');
  await page.getByLabel('Name of option 3').fill('Triple');
  await page.getByRole('button', { name: 'Save the options' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);

  await page.getByLabel('Label of Delivery date').fill('ridge HEIGHT');
  await expect(page.getByRole('alert')).toHaveText('Another field has this label');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Take Delivery date out of use' }).click();
  await expect(page.getByLabel('Label of Delivery date')).toHaveCount(0);
  const retired = page.getByRole('main').getByRole('listitem').filter({ hasText: 'Delivery date' });
  await retired.getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByLabel('Label of Delivery date')).toBeVisible();

  await page.goto('/set-up/fields/deal');
  await page.getByRole('button', { name: 'Take Bays out of use' }).click();
  await expect(page.getByRole('dialog')).toContainText('Routes that no longer write it');
  await expect(page.getByRole('dialog')).toContainText('Forms that still ask for it');
  await page.getByRole('button', { name: 'Cancel' }).click();

  await page.goto('/routes');
  await page
    .getByRole('link', { name: /Site survey request/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Feed another field of the deal' }).click();
  await expect(page.getByRole('button', { name: 'Glazing, kind', exact: true })).toBeVisible();
});

test('a route that is put into a pipeline begins where that pipeline says', async ({ page }) => {
  await page.goto('/set-up/pipelines/dealers');
  const begins = (stage: string) => page.getByRole('radio', { name: `New deals begin in ${stage}` });
  // A try before this one may have left it so.
  if (!(await begins('Vetting').isChecked()))
    await saved(page, { defaultStage: 'vetting' }, () => begins('Vetting').click());
  await page.reload();
  await expect(begins('Vetting')).toBeChecked();
  await page.goto('/routes');
  await page
    .getByRole('link', { name: /Price list readers/ })
    .first()
    .click();
  await page.getByRole('button', { name: /^5 Decide/ }).click();
  await page.getByRole('button', { name: 'Write a deal too' }).click();
  await page.getByLabel('Pipeline', { exact: true }).selectOption('Dealers');
  await expect(page.getByLabel('Stage', { exact: true })).toHaveValue('vetting');
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('No unpublished changes')).toBeVisible();
  await page.goto('/set-up/pipelines/dealers');
  await saved(page, { defaultStage: 'applied' }, () => begins('Applied').click());
  await expect(begins('Applied')).toBeChecked();
});

test('the audit says who did what, is narrowed by words and taken away as a file', async ({ page }, { retry }) => {
  const name = `Watched ${retry}`;
  await page.request.post('/api/v1/tags', { data: { name } });
  await page.goto('/set-up/audit');
  const line = page.getByRole('row', { name: `Made a tag or a list: ${name}` });
  await expect(line).toContainText('Robin Nye');
  const narrow = async (by: string, to: string) => {
    await page.getByRole('button', { name: 'add a filter' }).click();
    await page.getByRole('dialog', { name: 'Add a filter' }).getByLabel(by).selectOption(to);
  };
  await narrow('where', 'Routes');
  await expect(line).toBeHidden();
  await page.getByRole('combobox', { name: /^where/ }).selectOption('Set up');
  await narrow('by', 'Robin Nye');
  await expect(line).toBeVisible();
  await expect(page).toHaveURL(/where=set-up/);
  await page.getByRole('button', { name: 'Export' }).click();
  const file = page.waitForEvent('download');
  await page.getByRole('link', { name: /CSV/ }).click();
  expect((await file).suggestedFilename()).toBe('audit.csv');
  await page.getByRole('button', { name: 'Any where' }).click();
  await expect(page).not.toHaveURL(/where=/);
});
