import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { signIn } from './support';

const SCREENS: [string, string, (page: Page) => Promise<unknown>][] = [
  ['home', '/', (page) => page.getByRole('heading', { name: 'By intake, last 24 hours' }).waitFor()],
  ['intakes', '/intakes', (page) => page.getByRole('link', { name: 'Site survey request' }).waitFor()],
  ['an endpoint', '/intakes/dealers', (page) => page.getByRole('heading', { name: 'Listening' }).waitFor()],
  ['a form', '/intakes/survey', (page) => page.frameLocator('iframe').getByRole('button', { name: 'Next' }).waitFor()],
  [
    'quick entry',
    '/intakes/survey/entry',
    (page) => page.frameLocator('iframe').getByRole('button', { name: 'Next' }).waitFor(),
  ],
  [
    'what arrives at a form',
    '/intakes/survey/arrives',
    (page) => page.getByRole('heading', { name: 'What arrives' }).waitFor(),
  ],
  ['to decide', '/decide', (page) => page.getByRole('article').getByRole('heading', { level: 1 }).waitFor()],
  ['submissions', '/submissions?outcome=failed', (page) => page.getByRole('row').nth(1).waitFor()],
  [
    'a run',
    '/submissions?outcome=written',
    async (page) => {
      await page.getByRole('row').nth(1).click();
      await page.getByText('from arrival to').waitFor();
    },
  ],
  [
    'routes',
    '/routes',
    (page) =>
      page
        .getByRole('link', { name: /Dealer application/ })
        .first()
        .waitFor(),
  ],
  [
    'a route sheet',
    '/routes',
    async (page) => {
      await page
        .getByRole('link', { name: /Site survey request/ })
        .first()
        .click();
      await page.getByText('The same in sentences').waitFor();
    },
  ],
  [
    'a decision table',
    '/routes',
    async (page) => {
      await page
        .getByRole('link', { name: /Dealer application/ })
        .first()
        .click();
      await page.getByRole('button', { name: /^5 Decide/ }).click();
      await page.getByRole('link', { name: 'Who takes a dealer' }).click();
      await page.getByText('Row 4 can never fit').waitFor();
    },
  ],
  ['channel rules', '/set-up/sources', (page) => page.getByRole('grid', { name: 'Channels' }).waitFor()],
  ['month by month', '/sources/months', (page) => page.getByRole('table', { name: /first touch/ }).waitFor()],
  ['funnel', '/sources/funnel?period=365', (page) => page.getByRole('table', { name: 'How far it came' }).waitFor()],
  ['campaigns', '/sources/campaigns', (page) => page.getByRole('link', { name: 'Spring newsletter' }).waitFor()],
  [
    'a campaign',
    '/sources/campaigns/spring-newsletter',
    (page) => page.getByRole('table', { name: 'Costs by month' }).waitFor(),
  ],
  ['value sets', '/set-up/value-sets', (page) => page.getByRole('row', { name: /Continent/ }).waitFor()],
  ['recognition', '/records/recognition', (page) => page.getByRole('heading', { name: 'Thresholds' }).waitFor()],
  ['contacts', '/records/contacts', (page) => page.getByRole('row').nth(1).waitFor()],
  [
    'a company',
    '/records/companies',
    async (page) => {
      await page.getByRole('row').nth(1).getByRole('link').first().click();
      await page.getByText('Created by').first().waitFor();
    },
  ],
  [
    'the set-up of pipelines',
    '/set-up/pipelines',
    (page) => page.getByRole('table', { name: 'Stages of New builds' }).waitFor(),
  ],
  [
    'a lead',
    '/records/leads',
    async (page) => {
      await page.getByRole('row').nth(1).getByRole('link').first().click();
      await page.getByRole('heading', { name: 'History' }).waitFor();
    },
  ],
  ['is it ready?', '/set-up/ready', (page) => page.getByRole('heading', { name: 'Is everybody in a team?' }).waitFor()],
  [
    'tokens',
    '/set-up/tokens',
    (page) =>
      page
        .getByText(/No tokens|Ends/)
        .first()
        .waitFor(),
  ],
  ['your account', '/account', (page) => page.getByText('this browser').waitFor()],
  ['a person', '/set-up/people', (page) => page.getByRole('heading', { name: 'Anneke Prins' }).waitFor()],
  ['the lists', '/set-up/lists', (page) => page.getByRole('table', { name: 'Lists' }).waitFor()],
  ['tasks', '/tasks?owner=everybody', (page) => page.getByRole('row').nth(1).waitFor()],
  ['sources', '/sources?period=365', (page) => page.getByText('Won by month and channel').waitFor()],
  ['the balance', '/balance', (page) => page.getByText('accounted for').waitFor()],
  ['who got what', '/fairness?days=365', (page) => page.getByText('The last twenty').waitFor()],
  ['channels', '/set-up/channels', (page) => page.getByText('Care desk').waitFor()],
  ['the mail server', '/set-up/mail', (page) => page.getByRole('heading', { name: 'Senders by team' }).waitFor()],
  ['a template', '/set-up/mail/leaving', (page) => page.getByText('Dear Maren').waitFor()],
  ['the outbox', '/set-up/outbox', (page) => page.getByText('warehouse.quillfern').first().waitFor()],
  ['the audit', '/set-up/audit', (page) => page.getByText('Signed in').first().waitFor()],
  ['the workspace', '/set-up/workspace', (page) => page.getByRole('heading', { name: 'Exchange rates' }).waitFor()],
  [
    'the set-up of fields',
    '/set-up/fields',
    (page) => page.getByRole('table', { name: 'Fields of the contact' }).waitFor(),
  ],
  ['the pipeline', '/pipeline', (page) => page.getByRole('heading', { name: 'Enquiry' }).waitFor()],
];

async function expectAccessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
    .analyze();
  expect(violations.map(({ id, nodes }) => [id, nodes.slice(0, 3).map(({ html }) => html.slice(0, 160))])).toEqual([]);
}

for (const colorScheme of ['light', 'dark'] as const) {
  test.describe(`in the ${colorScheme} theme`, () => {
    // They only look, so that whoever is free looks at the next.
    test.describe.configure({ mode: 'parallel' });
    test.use({ colorScheme });
    for (const [name, path, ready] of SCREENS) {
      test(`${name} has no accessibility violation`, async ({ page }) => {
        await signIn(page);
        await page.goto(path);
        await ready(page);
        await expectAccessible(page);
      });
    }
  });
}

test('signing in and the hosted form have none either', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /Robin Nye/ }).waitFor();
  await expectAccessible(page);
  await page.goto('/f/survey');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Next' }).click();
  await expectAccessible(page);
  for (const form of ['grant', 'cancel', 'pricelist']) {
    await page.goto(`/f/${form}`);
    await expectAccessible(page);
  }
});

test.describe('on a phone', () => {
  test.describe.configure({ mode: 'parallel' });
  test.use({ viewport: { width: 390, height: 844 } });
  for (const [name, path, ready] of SCREENS) {
    test(`${name} fits the width`, async ({ page }) => {
      await signIn(page);
      await page.goto(path);
      await ready(page);
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    });
  }
});

test('everything is found from anywhere, by keyboard', async ({ page }) => {
  await signIn(page);
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder(/A name, an e-mail/).fill('Dealer appl');
  await expect(page.getByRole('option', { name: /Route Dealer application/ })).toBeVisible();
  await page.getByRole('option', { name: /Intake Dealer application/ }).hover();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Dealer application' })).toBeVisible();
  await page.getByRole('link', { name: /^Submissions/ }).click();
  await expect(page.getByRole('table', { name: 'Submissions' }).getByRole('row').nth(2)).toBeVisible();
  await page.keyboard.press('j');
  await page.keyboard.press('j');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('complementary', { name: 'The submission' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('complementary', { name: 'The submission' })).toBeHidden();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
});

test('a wrong password is told, and the other firm’s people see nothing of this one', async ({ page }) => {
  await page.goto('/');
  await page.getByLabel('E-mail').fill('robin.nye@quillfern.example');
  await page.getByLabel('Password').fill('wrong');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('E-mail or password is wrong.');
  await page.getByRole('button', { name: /Wenna Sark/ }).click();
  await expect(page.getByRole('link', { name: 'Marram Boat Sheds, home' })).toBeVisible();
  await page.goto('/records/contacts');
  await expect(page.getByText('Sailor 40', { exact: true })).toBeVisible();
  await page.goto('/intakes/survey');
  await expect(page.getByRole('alert')).toContainText('There is no intake survey.');
});
