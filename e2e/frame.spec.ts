import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { landing, signIn } from './support';

const SCREENS: [string, (page: Page) => Promise<unknown>][] = [
  ['/', (page) => page.getByRole('heading', { name: 'By intake, last 24 hours' }).waitFor()],
  ['/intakes', (page) => page.getByRole('link', { name: 'Site survey request' }).waitFor()],
  ['/intakes/dealers', (page) => page.getByRole('heading', { name: 'Listening' }).waitFor()],
  ['/submissions', (page) => page.getByRole('row').nth(1).waitFor()],
  [
    '/routes',
    (page) =>
      page
        .getByRole('link', { name: /Dealer application/ })
        .first()
        .waitFor(),
  ],
  ['/records/contacts', (page) => page.getByRole('row').nth(1).waitFor()],
  ['/pipeline', (page) => page.getByRole('heading', { name: 'Enquiry' }).waitFor()],
  ['/set-up/pipelines', (page) => page.getByRole('table', { name: 'Stages of New builds' }).waitFor()],
  ['/set-up/fields', (page) => page.getByRole('table', { name: 'Fields of the contact' }).waitFor()],
];

/** What moved by itself on the page, as the browser counts it (Layout Instability, CLS). */
const shifts = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        let sum = 0;
        new PerformanceObserver((list) => {
          for (const entry of list.getEntries() as (PerformanceEntry & { value: number; hadRecentInput: boolean })[])
            if (!entry.hadRecentInput) sum += entry.value;
        }).observe({ type: 'layout-shift', buffered: true });
        requestAnimationFrame(() => requestAnimationFrame(() => resolve(sum)));
      }),
  );

for (const [path, ready] of SCREENS) {
  test(`${path} comes whole from this machine, in its own fonts, and does not jump`, async ({ page, baseURL }) => {
    const elsewhere: string[] = [];
    page.on('request', (request) => {
      if (!request.url().startsWith(baseURL!) && !request.url().startsWith('data:')) elsewhere.push(request.url());
    });
    await signIn(page);
    await page.goto(path);
    await ready(page);
    await page.evaluate(() => document.fonts.ready);
    expect(await shifts(page)).toBeLessThan(0.05);
    expect(elsewhere).toEqual([]);
    const fonts = await page.evaluate(() =>
      [...document.fonts].filter(({ status }) => status === 'loaded').map(({ family }) => family),
    );
    expect(fonts.join(' ')).toMatch(/Figtree/);
    expect(fonts.join(' ')).toMatch(/Bricolage/);
  });
}

for (const form of ['survey', 'pricelist', 'grant', 'cancel'])
  test(`the page around the form ${form} hardly moves when the form is there`, async ({ page }) => {
    await page.goto(landing(page, `/try?form=${form}`));
    const { height } = (await page.locator('iframe').boundingBox())!;
    await page.frameLocator('iframe').getByRole('button').first().waitFor();
    await expect(page.locator('iframe')).toHaveAttribute('style', /height/);
    expect(Math.abs((await page.locator('iframe').boundingBox())!.height - height)).toBeLessThan(60);
    // What counts as good for a page that is not ours (Core Web Vitals).
    expect(await shifts(page)).toBeLessThan(0.1);
  });

test('the keys of the page are shown on ?, and the page is reached past the band', async ({ page }) => {
  await signIn(page);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('find anything');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.goto('/submissions');
  await page.getByRole('row').nth(1).waitFor();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'To the page' })).toBeFocused();
});

test('a server that cannot be reached is said in words, and what is there again comes by itself', async ({ page }) => {
  await signIn(page);
  await page.route('**/api/v1/routes', (route) => route.abort());
  await page.goto('/routes');
  await expect(page.getByRole('alert')).toContainText('Hay Cart does not answer.');
  await expect(page.getByRole('button', { name: 'Try again' })).toBeVisible();
  await page.unroute('**/api/v1/routes');
  await expect(page.getByRole('link', { name: /Dealer application/ }).first()).toBeVisible();
});

test('the window is called what the page is', async ({ page }) => {
  await signIn(page);
  await page.getByRole('link', { name: /^Routes/ }).click();
  await expect(page).toHaveTitle('Routes, Hay Cart');
  await page
    .getByRole('link', { name: /Dealer application/ })
    .first()
    .click();
  await expect(page).toHaveTitle('Dealer application, Hay Cart');
});

test('a page says at once that it is offline, and goes on when it is not', async ({ page, context }) => {
  await signIn(page);
  await page.getByRole('link', { name: /^Routes/ }).click();
  await expect(page.getByRole('heading', { name: 'Routes', level: 1 })).toBeVisible();
  await context.setOffline(true);
  await page.getByRole('link', { name: /^Records/ }).click();
  await expect(page.getByRole('alert').first()).toContainText('Hay Cart does not answer.');
  await context.setOffline(false);
  await expect(page.getByRole('row').nth(1)).toBeVisible();
});

test('a stage that another person renames meanwhile changes on this screen by itself', async ({
  page,
  browser,
  baseURL,
}) => {
  await signIn(page);
  await page.goto('/set-up/pipelines/care-plans');
  await expect(page.getByLabel('Name of Call booked')).toBeVisible();
  const other = await (await browser.newContext({ baseURL: baseURL! })).newPage();
  await signIn(other);
  await other.goto('/set-up/pipelines/care-plans');
  await other.getByLabel('Name of Call booked').fill('Call planned');
  await other.keyboard.press('Enter');
  await expect(page.getByLabel('Name of Call planned')).toBeVisible();
  await other.getByLabel('Name of Call planned').fill('Call booked');
  await other.keyboard.press('Enter');
  await expect(page.getByLabel('Name of Call booked')).toBeVisible();
});

test('a narrow window names where one is, and its menu leads on by keyboard', async ({ page }) => {
  await signIn(page);
  await page.goto('/pipeline');
  const way = page.getByRole('navigation', { name: 'The way of a submission' });
  await expect(way.getByRole('link', { name: /^Pipeline/ })).toBeInViewport();
  for (const width of [320, 390, 768]) {
    await page.setViewportSize({ width, height: 844 });
    await expect(page.getByRole('button', { name: 'Menu, at Pipeline' })).toBeInViewport({ ratio: 1 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
  }
  await page.getByRole('button', { name: 'Menu, at Pipeline' }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Home');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/intakes$/);
  await page.goto('/set-up/fields');
  await expect(page.getByRole('button', { name: 'Menu, at Set up' })).toBeVisible();
});

test('no toolbar covers another, however narrow the window is', async ({ page }) => {
  await signIn(page);
  for (const path of ['/records/contacts', '/submissions', '/intakes']) {
    await page.goto(path);
    await page.getByRole('row').nth(1).waitFor();
    for (const width of [320, 390, 640, 768, 900]) {
      await page.setViewportSize({ width, height: 600 });
      const boxes = await page
        .locator('main')
        .locator('button:visible, a:visible, select:visible, input:visible')
        .evaluateAll((found) =>
          found
            .filter((one) => !one.closest('[role=table]'))
            .map(
              (one) =>
                ({ name: one.textContent, ...one.getBoundingClientRect().toJSON() }) as DOMRect & { name: string },
            ),
        );
      const covered = boxes.flatMap((one, index) =>
        boxes
          .slice(index + 1)
          .filter(
            (other) =>
              one.left + 1 < other.right &&
              other.left + 1 < one.right &&
              one.top + 1 < other.bottom &&
              other.top + 1 < one.bottom,
          )
          // A button within a field stands upon it.
          .filter((other) => !(other.left >= one.left && other.right <= one.right && one.name === ''))
          .map((other) => `${width}: ${one.name} and ${other.name}`),
      );
      expect(covered).toEqual([]);
    }
  }
});

test('a page that one comes to is announced, and a dialog gives the focus back to what opened it', async ({ page }) => {
  await signIn(page);
  await page.goto('/records/contacts');
  await expect(page.getByRole('status', { name: 'Where you are' })).toHaveText('Contacts, Hay Cart');
  const opener = page.getByRole('button', { name: 'New contact' });
  await opener.click();
  await expect(page.getByRole('dialog').locator('input, select, textarea').first()).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(opener).toBeFocused();
  await page.goto('/routes');
  await page
    .getByRole('link', { name: /Site survey request/ })
    .first()
    .click();
  await expect(page.getByRole('status', { name: 'Where you are' })).toHaveText(/^Site survey request/);
  const more = page.getByRole('button', { name: 'More about this route' });
  await more.click();
  await page.getByRole('menuitem', { name: 'Take back all it wrote…' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(more).toBeFocused();
});

test('no page does what its own content policy forbids', async ({ page }) => {
  const forbidden: string[] = [];
  page.on('console', (message) => {
    if (/content security policy|script-src/i.test(message.text())) forbidden.push(message.text());
  });
  await signIn(page);
  await page.goto('/intakes/survey');
  await expect(page.frameLocator('iframe[title="Preview of the form"]').getByRole('textbox').first()).toBeVisible();
  await page.goto('/routes');
  await page
    .getByRole('link', { name: /Dealer application/ })
    .first()
    .click();
  await expect(page.getByRole('complementary', { name: 'Rehearsal' })).toContainText(/of \d+/);
  expect(forbidden).toEqual([]);
});
