import { expect, type Page } from '@playwright/test';

/** Signs in as the demo offers it, without waiting for the page that offers it. */
export async function signIn(page: Page): Promise<void> {
  await page.request.post('/api/v1/session/demo', { data: { email: 'robin.nye@quillfern.example' } });
  await page.goto('/');
  await expect(page.getByRole('navigation', { name: 'The way of a submission' })).toBeVisible();
}

/** The landing site's address, on the port after the application's. */
export function landing(page: Page, path: string): string {
  const { hostname, port } = new URL(page.url() === 'about:blank' ? 'http://127.0.0.1:4680' : page.url());
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
