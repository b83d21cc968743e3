import { expect, test } from '@jest/globals';
import type { Page, ProblemBody, ProfileShape, RouteShape, SubmissionShape } from '@haycart/api';
import pg from 'pg';
import { routeFrom } from './support/routes';
import { asOwner, eachInWorkspace, type TestServer, type TestWorkspace, until } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;

eachInWorkspace((made) => ({ server, workspace } = made));

const profile = () => workspace.get<ProfileShape>(`/intakes/${workspace.endpoint}/profile`);
const field = async (key: string) => (await profile()).fields.find((one) => one.key === key);
/** What is learnt from and kept is a few seconds old; here it is made so. */
async function age(): Promise<void> {
  const owner = new pg.Client({ connectionString: asOwner(server.databaseUrl) });
  await owner.connect();
  await owner.query(`update submission set received_at = received_at - interval '1 minute' where workspace_id = $1`, [
    workspace.id,
  ]);
  await owner.end();
}

test('an intake’s profile tells every field that came, from the first submission on', async () => {
  expect(await profile()).toEqual({ submissions: 0, beyond: 0, fields: [] });
  await workspace.submit({ answers: [{ id: 'q1', title: 'How many bays?', value: 4 }], 'E-Mail': 'ada@weir.example' });
  await workspace.submit({ answers: [{ id: 'q1', title: 'How many bays?', value: 6 }], email: 'eda@weir.example' });
  const { submissions, fields } = await profile();
  expect(submissions).toBe(2);
  expect(fields).toMatchObject([
    { key: 'answers.how_many_bays', label: 'How many bays?', kind: 'whole-number', filled: 2, distinct: 2 },
    { key: 'E-Mail', kind: 'email', also: ['email'], values: [{ count: 1 }, { count: 1 }] },
  ]);
});

test('it is kept, goes on where it was, and counts nothing twice', async () => {
  for (const bays of [1, 2]) await workspace.submit({ bays });
  await age();
  expect((await profile()).submissions).toBe(2);
  await workspace.submit({ bays: 3 });
  for (let look = 0; look < 3; look += 1) expect((await profile()).submissions).toBe(3);
  const [kept] = await workspace.query<{ n: number }>(`select (profile->>'submissions')::int as n from intake_profile`);
  expect(kept!.n).toBe(2);
  await age();
  expect(await field('bays')).toMatchObject({ sent: 3, values: [{ count: 1 }, { count: 1 }, { count: 1 }] });
});

test('what is set aside teaches nothing', async () => {
  await workspace.submit({ bays: 1 });
  await workspace.query(`update submission set state = 'set-aside'`);
  expect((await profile()).submissions).toBe(0);
});

test('a field whose sender gives only an id is named once by a person', async () => {
  await workspace.submit({ answers: [{ id: 'f7', value: 'Moss' }] });
  const name = (names: unknown) =>
    workspace.call<ProfileShape & ProblemBody>('PUT', `/intakes/${workspace.endpoint}/profile/names`, { names });
  expect((await name({ 'answers.f7': 'What will you grow?' })).body.fields[0]).toMatchObject({
    key: 'answers.f7',
    label: 'What will you grow?',
    named: true,
  });
  await age();
  expect(await field('answers.f7')).toMatchObject({ label: 'What will you grow?', filled: 1 });
  expect((await name({ 'answers.f7': null })).body.fields[0]).toMatchObject({
    label: 'answers.f7',
    named: false,
  });
  expect((await name({ 'answers.f7': 'x', gone: 'x' })).status).toBe(404);
  for (const wrong of [{ 'answers.f7': '' }, { 'answers.f7': 7 }, {}, [], null, 'x'])
    expect((await name(wrong)).status).toBe(422);
  expect((await field('answers.f7'))!.named).toBe(false);
  expect((await workspace.call('GET', '/intakes/nowhere/profile')).status).toBe(404);
});

test('routes read lists of answers and names that are written otherwise, and only warn of what never came', async () => {
  await workspace.submit({ answers: [{ id: 'f7', title: 'Your e-mail', value: 'ada@weir.example' }] });
  const definition = routeFrom(workspace.endpoint);
  const [, person] = definition.writes;
  person!.fills.find(({ field: key }) => key === 'email')!.value.parts = [{ answer: 'answers.your_e_mail' }];
  const { body } = await workspace.call<RouteShape>('POST', '/routes', { definition });
  const at = body.problems.filter(({ code }) => code === 'unseen-answer').map(({ text }) => text);
  expect(at.join(' ')).not.toContain('your_e_mail');
  expect(at.join(' ')).toContain('“name”');
});

test('2,000 fields are taken in, and a profile of them is told', async () => {
  await workspace.submit(Object.fromEntries(Array.from({ length: 2_100 }, (_, n) => [`k${n}`, n])));
  const { fields, beyond } = await profile();
  expect([fields.length, beyond]).toEqual([2_000, 100]);
});

test('a submission says who sent it by what people call its fields, and by what a route takes them for', async () => {
  const who = async () => {
    const { items } = await workspace.get<Page<SubmissionShape>>('/submissions?limit=1');
    return [items[0]!.who, items[0]!.email];
  };
  await workspace.submit({ name: 'Spring survey', f7: 'Ada Weir', f8: 'ada@weir.example' });
  expect(await who()).toEqual(['Spring survey', 'ada@weir.example']);
  await workspace.call('PUT', `/intakes/${workspace.endpoint}/profile/names`, { names: { f7: 'Your full name' } });
  expect(await who()).toEqual(['Ada Weir', 'ada@weir.example']);
  await workspace.call('PUT', `/intakes/${workspace.endpoint}/profile/names`, { names: { f7: null } });
  const route = routeFrom(workspace.endpoint);
  const person = route.writes.find(({ record }) => record === 'contact')!;
  person.fills = person.fills
    .filter(({ field: key }) => !key.endsWith('name'))
    .concat({ field: 'last_name', value: { parts: [{ answer: 'F7' }] } });
  await workspace.publish(route);
  expect(await who()).toEqual(['Ada Weir', 'ada@weir.example']);
  // They are sorted by what is read of them a moment after they came.
  for (const name of ['Ida Weir', 'Bo Weir'])
    await workspace.submit({ name: 'Autumn survey', f7: name, f8: 'weir@weir.example' });
  const sorted = async () =>
    (await workspace.get<Page<SubmissionShape>>('/submissions?sort=who')).items
      .map((one) => one.who)
      .filter((one) => one !== 'Ada Weir');
  expect(await until(sorted, ([first]) => first === 'Bo Weir')).toEqual(['Bo Weir', 'Ida Weir']);
});
