import { describe, expect, test } from '@jest/globals';
import type {
  ConsentShape,
  MergeRehearsal,
  MergeShape,
  ProblemBody,
  RecordShape,
  RecordSheet,
  SearchHit,
  UnmergeRehearsal,
} from '@haycart/api';
import { routeFrom } from './support/routes';
import { eachInWorkspace, type TestWorkspace } from './support/test-server';

let workspace: TestWorkspace;
let person: TestWorkspace['call'];

eachInWorkspace(async (made) => {
  ({ workspace } = made);
  person = await workspace.signIn();
});

const made = async (values: object, kind = 'contacts') =>
  (await person<RecordShape>('POST', `/${kind}`, { values })).body.id;
const contact = (id: string) => workspace.get<RecordShape>(`/contacts/${id}`);
const merge = (ids: string[], more = {}) =>
  person<{ survivor: string; merges: string[] } & ProblemBody>('POST', '/merges', { kind: 'contact', ids, ...more });
const mergesOf = (id: string) => workspace.get<MergeShape[]>(`/merges?record=${id}`);
const undo = (id: string, goes = {}) =>
  person<{ survivor: string; absorbed: string } & ProblemBody>('POST', `/merges/${id}/undo`, { goes });
/** Everything about a record that must be the same after a merge was taken apart. */
const stateOf = async (id: string) => {
  const { record, notes, tasks, files, consents, touches } = await workspace.get<RecordSheet>(`/contacts/${id}/sheet`);
  const { updatedAt: _, ...rest } = record;
  return { rest, notes, tasks, files, consents, touches };
};

async function two(): Promise<[string, string]> {
  const ada = await made({ first_name: 'Ada', last_name: 'Weir', email: 'ada@weir.example' });
  const bill = await made({
    first_name: 'A.',
    last_name: 'Weir',
    email: 'ada@fennwick.example',
    phone: '07700 900318',
  });
  return [ada, bill];
}

describe('merging', () => {
  test('is shown before, with what is the same and why', async () => {
    const [ada, other] = await two();
    const { body } = await person<MergeRehearsal>('POST', '/merges/rehearse', { kind: 'contact', ids: [ada, other] });
    expect(body).toMatchObject({ kind: 'contact', survivor: ada });
    expect(body.sides.map(({ id }) => id)).toEqual([ada, other]);
    expect(body.fields.find(({ field }) => field === 'emails')).toMatchObject({
      text: 'ada@fennwick.example, ada@weir.example',
      why: 'all are kept',
    });
    expect(body.shares.reduce((sum, { bits }) => sum + bits, 0)).toBeLessThan(40);
    expect((await contact(other)).id).toBe(other);
  });

  test('leaves one record, to which the other’s address, number, notes, tasks, files and links lead', async () => {
    const [ada, other] = await two();
    await person('POST', `/contacts/${other}/notes`, { text: 'Called.' });
    await person('POST', `/contacts/${other}/tasks`, { text: 'Call again' });
    await workspace.attach(`/contacts/${other}/files`, 'plan.txt', 'a plan');
    const { number } = await contact(other);
    const { status, body } = await merge([ada, other]);
    expect(status).toBe(201);
    expect(body.survivor).toBe(ada);
    expect(await contact(other)).toMatchObject({ id: ada, values: { phone: '+447700900318' } });
    const sheet = await workspace.get<RecordSheet>(`/contacts/${ada}/sheet`);
    expect([sheet.notes.length, sheet.tasks.length, sheet.files.length]).toEqual([1, 1, 1]);
    expect(await workspace.get(`/contacts?email=ada@fennwick.example`)).toMatchObject({ items: [{ id: ada }] });
    expect(await mergesOf(ada)).toMatchObject([{ absorbed: { id: other, number, name: 'A. Weir' }, by: 'Robin Nye' }]);
    const [hit] = await workspace.get<SearchHit[]>(`/search?q=C-${number}`);
    expect(hit).toMatchObject({ kind: 'contact', id: ada, name: 'A. Weir', detail: 'part of Ada Weir now' });
    expect(sheet.history[0]!.cause).toMatchObject({ kind: 'merge', label: 'Robin Nye' });
  });

  test('obeys what a person chose, and refuses what does not fit', async () => {
    const [ada, other] = await two();
    expect(await merge([ada, other], { values: { email: 'nonsense' } })).toMatchObject({
      status: 422,
      body: { errors: [{ at: '/values/email' }] },
    });
    await merge([ada, other], { survivor: other, values: { first_name: 'Adelheid', phone: null } });
    const { values } = await contact(ada);
    expect(values).toMatchObject({ first_name: 'Adelheid' });
    expect(values.phone).toBeUndefined();
  });

  test('of a record with itself, of one that is gone, and of one merged a moment ago is refused', async () => {
    const [ada, other] = await two();
    const third = await made({ full_name: 'Third Weir' });
    expect(await merge([ada, ada])).toMatchObject({ status: 422, body: { errors: [{ code: 'merge-with-itself' }] } });
    expect(await merge([ada, workspace.id])).toMatchObject({ status: 404 });
    await merge([ada, other]);
    expect(await merge([third, other])).toMatchObject({ status: 409 });
  });

  test('by two people at once is done once', async () => {
    const [ada, other] = await two();
    const answers = await Promise.all([merge([ada, other]), merge([other, ada])]);
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409]);
    expect(await mergesOf(ada)).toHaveLength(1);
  });

  test('never widens what somebody agreed to', async () => {
    const [ada, other] = await two();
    const say = (id: string, state: string, channel = 'email') =>
      person('POST', `/contacts/${id}/consents`, { channel, state, words: 'You may write', place: 'a form' });
    await say(other, 'withdrawn');
    await say(ada, 'given');
    await say(ada, 'given', 'phone');
    await merge([ada, other]);
    const { consents } = await workspace.get<{ consents: ConsentShape[] }>(`/contacts/${ada}/sheet`);
    const now = (channel: string) => consents.find((one) => one.channel === channel)!;
    expect(now('email').state).toBe('withdrawn');
    expect(now('phone').state).toBe('given');
    const [{ id }] = (await mergesOf(ada)) as [MergeShape];
    await undo(id);
    expect((await stateOf(ada)).consents.map(({ state }) => state)).toEqual(['given', 'given']);
  });
});

describe('taking a merge apart', () => {
  test('gives both back as they were', async () => {
    const [ada, other] = await two();
    const firm = await made({ name: 'Fennwick', domain: 'fennwick.example' }, 'companies');
    await person('PATCH', `/contacts/${other}`, { links: { add: [firm] } });
    await person('POST', `/contacts/${other}/notes`, { text: 'Called.' });
    const before = [await stateOf(ada), await stateOf(other)];
    const { body } = await merge([ada, other]);
    const [{ id }] = (await mergesOf(body.survivor)) as [MergeShape];
    expect((await undo(id)).status).toBe(200);
    expect([await stateOf(ada), await stateOf(other)]).toEqual(before);
    expect(await workspace.get(`/contacts?email=ada@fennwick.example`)).toMatchObject({ items: [{ id: other }] });
    expect(await undo(id)).toMatchObject({ status: 409 });
  });

  test('puts what arrived in between where its key says', async () => {
    const [ada, other] = await two();
    const { email: _, ...rest } = { email: '', ...routeFrom(workspace.endpoint) };
    await workspace.publish({ ...rest, name: 'Enquiries' });
    await merge([ada, other]);
    await workspace.submit({
      name: 'A. Weir',
      email: 'ada@fennwick.example',
      phone: '07700 900777',
      company: 'Fennwick',
    });
    await workspace.handled();
    expect((await contact(ada)).values.phone).toBe('+447700900777');
    const [{ id }] = (await mergesOf(ada)) as [MergeShape];
    const shown = await person<UnmergeRehearsal>('POST', `/merges/${id}/rehearse-undoing`, {});
    expect(shown.body.since).toMatchObject([{ to: other }]);
    expect((await undo(id)).status).toBe(200);
    expect((await contact(other)).values.phone).toBe('+447700900777');
    expect((await contact(ada)).values.phone).toBeUndefined();
    expect((await contact(other)).links.deals).toHaveLength(1);
    expect((await contact(ada)).links.deals ?? []).toHaveLength(0);
    expect((await stateOf(other)).touches).toHaveLength(1);
  });

  test('asks to whom something goes that a person did since', async () => {
    const [ada, other] = await two();
    await merge([ada, other]);
    await person('PATCH', `/contacts/${ada}`, { values: { job_title: 'Buyer' } });
    const [{ id }] = (await mergesOf(ada)) as [MergeShape];
    const refused = await undo(id);
    expect(refused.status).toBe(422);
    const [asked] = refused.body.errors!;
    expect(asked!.message).toContain('Job title Buyer');
    const cause = asked!.at.split('/').pop()!;
    expect((await undo(id, { [cause]: other })).status).toBe(200);
    expect((await contact(other)).values.job_title).toBe('Buyer');
    expect((await contact(ada)).values.job_title).toBeUndefined();
  });

  test('waits for a later merge to be taken apart first', async () => {
    const [ada, other] = await two();
    const third = await made({ full_name: 'Ada Weir', phone: '07700 900999' });
    await merge([ada, other]);
    const [{ id: first }] = (await mergesOf(ada)) as [MergeShape];
    await merge([third, ada], { survivor: third });
    expect((await contact(other)).id).toBe(third);
    expect(await undo(first)).toMatchObject({ status: 409 });
    const [{ id: second }] = (await mergesOf(third)) as [MergeShape];
    await undo(second, {});
    expect((await undo(first)).status).toBe(200);
    expect((await contact(other)).id).toBe(other);
  });
});
