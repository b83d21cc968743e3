import { expect, type Page } from '@playwright/test';
import { test } from './journey';
import { draftFor, endpoint, publish, signIn } from './support';

test.beforeEach(({ page }) => signIn(page));

/** Two colleagues in a team of their own, and an endpoint whose route gives what comes to that team. */
async function team(page: Page, name: string) {
  const people = [`Yves ${name}`, `Zoe ${name}`];
  const keys: string[] = [];
  for (const person of people) {
    const email = `${person.replaceAll(' ', '.').toLowerCase()}@quillfern.example`;
    const made = await page.request.post('/api/v1/people', { data: { name: person, email } });
    keys.push(((await made.json()) as { key: string }).key);
  }
  await page.request.post('/api/v1/teams', { data: { name, people: keys } });
  const send = await endpoint(page, name);
  const enquiry = (first: string) => send({ first_name: first, last_name: name, email: `${first}@${keys[0]}.example` });
  await enquiry('first');
  await draftFor(page, name);
  await page.getByRole('button', { name: /^6 Follow up/ }).click();
  await page.getByLabel('Owner of the contact').selectOption({ label: name });
  await publish(page, 1);
  return { people, enquiry };
}

test('what is promised stands before all tasks and on the record, until somebody answers; then the fairness page tells', async ({
  page,
}, { retry }) => {
  const name = `Yorkdesk ${retry}`;
  const { people, enquiry } = await team(page, name);
  await page.goto('/set-up/teams');
  await page.getByRole('link', { name: new RegExp(name) }).click();
  const minutes = page.getByLabel('Working minutes');
  await minutes.fill('none');
  await minutes.press('Enter');
  await expect(page.getByText('A whole number from 1 to 10000, or nothing')).toBeVisible();
  await minutes.fill('90');
  await minutes.press('Enter');
  await page.getByLabel('When it is not answered in time').selectOption('the next of the team gets it');
  await expect(page.getByLabel('When it is not answered in time')).toHaveValue('next');

  await enquiry('dora');
  await page.goto('/tasks?owner=everybody');
  const waiting = page.getByRole('region', { name: 'To answer' });
  await waiting.getByRole('link', { name: `Dora ${name}` }).click();
  await expect(page.getByRole('heading', { name: `Dora ${name}`, level: 1 })).toBeVisible();
  await expect(page.getByText(/^answer (by|within)/)).toBeVisible();
  await page.getByLabel('New note').fill('Called back');
  await page.getByRole('button', { name: 'Note', exact: true }).click();
  await expect(page.getByText(/^answered by Robin Nye/)).toBeVisible();
  await page.goto('/tasks?owner=everybody');
  await expect(page.getByRole('heading', { name: 'Tasks', level: 1 })).toBeVisible();
  await expect(page.getByRole('link', { name: `Dora ${name}` })).toBeHidden();

  await page.getByRole('link', { name: 'Who got what' }).click();
  await page.getByLabel('team').selectOption(name);
  const table = page.getByRole('table', { name });
  await expect(table.getByRole('row', { name: new RegExp(people[0]!) })).toContainText('100 %');
  await expect(page.getByRole('region', { name: 'The last twenty, and why' })).toContainText(`in turn in ${name}`);
});

test('somebody goes away and the next takes over; what they had goes to others, shown first, and comes back', async ({
  page,
}, { retry }) => {
  const name = `Leedsdesk ${retry}`;
  const { people, enquiry } = await team(page, name);
  const [yves, zoe] = people as [string, string];
  await enquiry('cleo');
  await page.goto('/set-up/people');
  await page.getByRole('link', { name: new RegExp(yves) }).click();
  await page.getByRole('button', { name: 'Add an absence' }).click();
  await page.getByLabel('Last day away').fill('2099-12-31');
  await page.getByRole('button', { name: `Save ${yves}` }).click();
  await expect(page.getByText(`${yves} is saved.`)).toBeVisible();
  for (const first of ['eve', 'fay']) await enquiry(first);
  await page.goto(`/records/contacts?q=${encodeURIComponent(name)}`);
  for (const first of ['Eve', 'Fay'])
    await expect(page.getByRole('row', { name: new RegExp(`${first} ${name}`) })).toContainText(zoe);

  // A task of his goes with what he had.
  const at = `/api/v1/contacts?q=${encodeURIComponent(`Cleo ${name}`)}`;
  const { items } = (await (await page.request.get(at)).json()) as { items: { id: string; owner: string }[] };
  const all = (await (await page.request.get('/api/v1/people')).json()) as { key: string; name: string }[];
  const owner = all.find((one) => one.name === yves)!.key;
  await page.request.post(`/api/v1/contacts/${items[0]!.id}/tasks`, { data: { text: `Call ${name}`, owner } });
  await page.goto(`/set-up/people/${owner}`);
  await page.getByRole('button', { name: 'Hand over…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('To').selectOption(`${name}, in turn`);
  await expect(dialog.getByRole('list', { name: 'Who gets what' })).toContainText(`${zoe}1 task`);
  await dialog.getByRole('button', { name: 'Give 1 thing away' }).click();
  await expect(dialog).toBeHidden();
  await page.goto('/tasks?owner=everybody');
  await expect(page.getByRole('row', { name: new RegExp(`Call ${name}`) })).toContainText(zoe);
});
