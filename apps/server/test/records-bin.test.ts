import { describe, expect, test } from '@jest/globals';
import type { DeletedRecord, DoneEdit, Page, ProblemBody, RecordShape, RecordSheet } from '@haycart/api';
import { eachInWorkspace, TestWorkspace, type TestServer } from './support/test-server';

let server: TestServer;
let workspace: TestWorkspace;
let person: TestWorkspace['call'];

eachInWorkspace(async (made) => {
  ({ server, workspace } = made);
  person = await workspace.signIn();
});

async function make(kind: string, values: object, links: string[] = [], place: object = {}): Promise<string> {
  const { status, body } = await person<DoneEdit & { id: string }>('POST', `/${kind}`, { values, links, ...place });
  expect({ status, body }).toMatchObject({ status: 201 });
  return body.id;
}
const remove = (path: string) => person<DoneEdit>('DELETE', path);
const bin = async (kind: string, query = '') =>
  workspace.get<Page<DeletedRecord>>(`/deleted-records?kind=${kind}${query}`);
const bringBack = (...ids: string[]) => person<DoneEdit & ProblemBody>('POST', '/deleted-records/bring-back', { ids });
const record = (path: string) => workspace.get<RecordShape>(path);

describe('what a person deleted', () => {
  test('is listed, and comes back with its number, links, notes, tags and lists', async () => {
    const firm = await make('companies', { name: 'Weir' });
    await person('POST', '/lists', { name: 'Readers' });
    const id = await make('contacts', { full_name: 'Ada Weir', email: 'ada@weir.example', lists: ['readers'] }, [firm]);
    await person('POST', `/contacts/${id}/notes`, { text: 'Called.' });
    const before = await record(`/contacts/${id}`);
    await remove(`/contacts/${id}`);
    expect((await bin('contact')).items).toEqual([
      {
        id,
        kind: 'contact',
        number: before.number,
        name: 'Ada Weir',
        detail: 'ada@weir.example',
        by: 'Robin Nye',
        at: expect.any(String),
      },
    ]);
    expect((await bin('company')).items).toEqual([]);
    expect((await bringBack(id)).body).toMatchObject({ records: 1, text: 'Brought back Ada Weir' });
    const sheet = await workspace.get<RecordSheet>(`/contacts/${id}/sheet`);
    expect(sheet.record).toMatchObject({ number: before.number, values: before.values });
    expect(sheet.record.links.company!.map((link) => link.id)).toEqual([firm]);
    expect(sheet.notes).toHaveLength(1);
    expect((await bin('contact')).items).toEqual([]);
    expect((await bringBack(id)).status).toBe(404);
  });

  test('comes back one by one of many, and a link once both of its ends are there', async () => {
    const firm = await make('companies', { name: 'Weir' });
    const [ada, ida] = [
      await make('contacts', { full_name: 'Ada' }, [firm]),
      await make('contacts', { full_name: 'Ida' }),
    ];
    await person('POST', '/contacts/delete', { ids: [ada, ida] });
    await remove(`/companies/${firm}`);
    expect((await bin('contact')).items.map(({ name }) => name).sort()).toEqual(['Ada', 'Ida']);
    const first = await bin('contact', '&limit=1');
    const second = await bin('contact', `&limit=1&after=${first.next}`);
    expect(new Set([...first.items, ...second.items].map(({ id }) => id))).toEqual(new Set([ada, ida]));
    await bringBack(ada);
    expect((await record(`/contacts/${ada}`)).links).toEqual({});
    expect((await bin('contact')).items.map(({ id }) => id)).toEqual([ida]);
    await remove(`/contacts/${ada}`);
    expect((await bringBack(firm, ida)).body.records).toBe(2);
  });

  test('is told why it cannot come back while another has its e-mail, and comes back when that is gone', async () => {
    const values = { full_name: 'Ada Weir', email: 'ada@weir.example' };
    const id = await make('contacts', values);
    await remove(`/contacts/${id}`);
    const other = await make('contacts', values);
    expect(await bringBack(id)).toMatchObject({ status: 409, body: { detail: expect.stringContaining('ada@weir') } });
    await remove(`/contacts/${other}`);
    expect((await bringBack(id)).status).toBe(200);
    expect((await bin('contact')).items.map((one) => one.id)).toEqual([other]);
  });

  test('begins where its pipeline begins when its stage has gone', async () => {
    const id = await make('deals', { name: 'Weir, roof' }, [], { pipeline: 'new-builds', stage: 'design' });
    await remove(`/deals/${id}`);
    await person('DELETE', '/pipelines/new-builds/stages/design');
    expect((await bringBack(id)).status).toBe(200);
    expect((await record(`/deals/${id}`)).values).toMatchObject({ stage: 'enquiry', status: 'open' });
  });

  test('does not hold what became part of another, or was taken back before it was somebody’s', async () => {
    const [one, two] = [
      await make('contacts', { full_name: 'Ada Weir' }),
      await make('contacts', { full_name: 'Ada Weir' }),
    ];
    await person('POST', '/merges', { kind: 'contact', ids: [one, two] });
    const { body } = await person<DoneEdit>('POST', '/contacts', { values: { full_name: 'Oops' } });
    await person('POST', `/edits/${body.edit}/take-back`);
    expect((await bin('contact')).items).toEqual([]);
    expect((await bringBack(two)).status).toBe(404);
  });

  test('is nobody’s in another workspace, and the doing of it can be undone', async () => {
    const id = await make('contacts', { full_name: 'Ada Weir' });
    await remove(`/contacts/${id}`);
    const other = await TestWorkspace.make(server);
    expect((await other.get<Page<DeletedRecord>>('/deleted-records?kind=contact')).items).toEqual([]);
    expect((await other.call('POST', '/deleted-records/bring-back', { ids: [id] })).status).toBe(404);
    for (const ids of [[], ['x'], Array.from({ length: 201 }, () => id)])
      expect((await person('POST', '/deleted-records/bring-back', { ids })).status).toBe(422);
    const { body } = await bringBack(id);
    await person('POST', `/edits/${body.edit}/take-back`);
    expect((await workspace.call('GET', `/contacts/${id}`)).status).toBe(404);
  });
});
