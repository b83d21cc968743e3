import { expect, test, type Page } from '@playwright/test';
import { addressOf } from './servers';

/** Signs in as the demo offers it, without waiting for the page that offers it. */
export async function signIn(page: Page): Promise<void> {
  await page.request.post('/api/v1/session/demo', { data: { email: 'robin.nye@quillfern.example' } });
  await page.goto('/');
  await expect(page.getByRole('navigation', { name: 'The way of a submission' })).toBeVisible();
}

/** The landing site's address, on the port after the application's. */
export function landing(page: Page, path: string): string {
  const { hostname, port } = new URL(page.url() === 'about:blank' ? addressOf(test.info().parallelIndex) : page.url());
  return `http://${hostname}:${Number(port) % 2 ? port : Number(port) + 1}${path}`;
}

/** Fills in the survey form, which must be open: step by step, or all at once where no script runs. */
export async function fillSurvey(
  page: Page,
  answers: { first: string; last: string; email: string; organisation?: string; bays?: string },
): Promise<void> {
  await page.getByLabel('First name').fill(answers.first);
  await page.getByLabel('Last name').fill(answers.last);
  await page.getByLabel('Work e-mail').fill(answers.email);
  await page.getByLabel('School, garden or company').fill(answers.organisation ?? '');
  const next = page.getByRole('button', { name: 'Next' });
  if (await next.isVisible()) await next.click();
  await page.getByLabel('Teaching garden').check({ force: true });
  await page.getByLabel('How many bays?').fill(answers.bays ?? '');
  await page.getByLabel(/You may write to me/).check();
}

/** The page of the stand-in for domain names, on the second port after the application's. */
export function names(page: Page): string {
  const { hostname, port } = new URL(page.url());
  return `http://${hostname}:${Number(port) + 2}/`;
}

/** A new endpoint, and how to send to it. */
export async function endpoint(page: Page, name: string): Promise<(payload: object) => Promise<void>> {
  const made = await page.request.post('/api/v1/intakes', { data: { kind: 'endpoint', name } });
  const { key } = (await made.json()) as { key: string };
  expect([made.status(), key]).toEqual([201, expect.any(String)]);
  return async (payload) => expect((await page.request.post(`/in/${key}`, { data: payload })).status()).toBe(202);
}

/** A draft for a route that takes from an intake, opened. */
export async function draftFor(page: Page, name: string): Promise<void> {
  await page.goto('/routes');
  await page.getByRole('button', { name: 'New route' }).click();
  await page.getByLabel('Takes from').selectOption(name);
  await page.getByLabel('Name').fill(name);
  await page.getByRole('button', { name: 'Make the draft' }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
}

/** Publishes the route whose sheet is open. */
export async function publish(page: Page, version: number): Promise<void> {
  await page.getByRole('button', { name: 'Publish…' }).click();
  await page.getByRole('button', { name: `Publish version ${version}` }).click();
  await expect(page.getByText(`live, version ${version}`)).toBeVisible();
}

/** Does something that changes what is kept, and waits until the server has answered to just that. */
export async function saved(page: Page, change: object, act: () => Promise<void>): Promise<void> {
  // Changes made before it are sent one after the other, and may still be on their way.
  const body = JSON.stringify(change);
  const answered = page.waitForResponse(
    (response) => response.request().method() === 'PATCH' && response.request().postData() === body,
  );
  await act();
  expect((await answered).ok()).toBe(true);
}

/** A stand-in, so many ports after the application's. */
export function standIn(page: Page, after: number): string {
  const { hostname, port } = new URL(page.url());
  return `http://${hostname}:${Number(port) + after}`;
}

/** What a stand-in received. */
export async function cameTo<What>(page: Page, after: number): Promise<What[]> {
  return (await (await page.request.get(`${standIn(page, after)}/received`)).json()) as What[];
}

/** A mail that the stand-in took. */
export interface CameMail {
  to: string[];
  subject: string;
  text: string;
  headers: Record<string, string>;
  attachments: { filename: string; contentType: string }[];
}

/** The link in the mail that came to an address, once one with such a link has. */
export async function linkTo(page: Page, to: string, under: '/ask/' | '/consent/', subject = ''): Promise<string> {
  const found = async () =>
    (await cameTo<CameMail>(page, 3)).filter(
      (one) => one.to.includes(to) && one.text.includes(under) && one.subject.includes(subject),
    );
  await expect.poll(async () => (await found()).length).toBe(1);
  const { pathname } = new URL(/http\S+/.exec((await found())[0]!.text)![0]);
  return new URL(pathname, page.url()).href;
}

/** Adds a text to what is put together. */
export async function addText(page: Page, label: string, text: string): Promise<void> {
  await page.getByRole('button', { name: `Add what feeds ${label}` }).click();
  await page.getByPlaceholder('Find an answer, or type a text').fill(text);
  await page.getByRole('option', { name: `the text “${text}”` }).click();
}

/** Adds an answer, by its key, to what is put together. */
export async function addAnswer(page: Page, label: string, key: string): Promise<void> {
  await page.getByRole('button', { name: `Add what feeds ${label}` }).click();
  await page.getByPlaceholder('Find an answer, or type a text').fill(key);
  await page
    .getByRole('option', { name: new RegExp(key) })
    .first()
    .click();
}

/** Adds a step to the follow-ups of the route whose sheet is open. */
export async function addStep(page: Page, kind: string) {
  await page.getByRole('button', { name: 'Add a follow-up' }).click();
  await page.getByRole('menuitem', { name: new RegExp(`^${kind}`) }).click();
  return page.getByRole('list').filter({ has: page.getByRole('listitem', { name: /, step \d/ }) });
}
