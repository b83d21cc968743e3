import { describe, expect, test } from '@jest/globals';
import type {
  Decided,
  DecisionLine,
  DecisionList,
  DecisionShape,
  Page,
  ProblemBody,
  RecordShape,
  RouteShape,
  RunShape,
  SubmissionDetail,
  SubmissionShape,
} from '@haycart/api';
import type { JsonObject } from '@haycart/core';
import { routeFrom } from './support/routes';
import { eachInWorkspace, type TestServer, type TestWorkspace, until } from './support/test-server';
import { viewAs } from './support/decision-view';

let server: TestServer;
let workspace: TestWorkspace;

eachInWorkspace((made) => ({ server, workspace } = made));

const lines = async () => (await workspace.get<DecisionList>('/decisions')).items;
const waiting = (kind: string) =>
  until(lines, (all) => all.some((line) => line.kind === kind)).then((all) => all.find((line) => line.kind === kind)!);
const one = ({ id }: DecisionLine) => workspace.get<DecisionShape>(`/decisions/${id}`);
const decide = (ids: string[], action: string, more = {}) =>
  workspace.call<Decided & ProblemBody>('POST', '/decisions/decide', { ids, action, ...more });
const contacts = async () =>
  new Map(
    (await workspace.get<Page<RecordShape>>('/contacts?limit=50')).items.map(({ values }) => [
      values.full_name,
      values,
    ]),
  );

/** Sends one and waits until it was routed. */
async function sent(payload: JsonObject): Promise<SubmissionDetail> {
  const id = await workspace.submit(payload);
  return settled(id);
}
const settled = (id: string) =>
  until(
    () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
    ({ state }) => state !== 'waiting',
  );
const outcomeOf = async (id: string) => (await settled(id)).runs.map(({ outcome }) => outcome);

describe('a field that was renamed at the sender', () => {
  const person = (name: string, phone: string, as = 'phone') => ({ name, email: `${name}@weir.example`, [as]: phone });

  test('is told, and repaired in one act: nothing that came in between is lost', async () => {
    const route = await workspace.publish();
    await sent(person('ada', '07700 900318'));
    await sent(person('bo', '07700 900319'));
    await sent(person('cleo', '07700 900320', 'mobile'));
    const line = await waiting('renamed');
    expect(line).toMatchObject({ subject: 'Dealers', detail: 'phone → mobile' });

    const shown = await one(line);
    expect(shown).toMatchObject({
      question: 'Is “mobile” the new name of “phone”?',
      choices: [{ action: 'repair' }, { action: 'leave' }],
      things: [
        { kind: 'intake', name: 'Dealers' },
        { kind: 'route', name: 'Enquiries' },
      ],
      view: {
        fields: [
          { key: 'phone', filled: 2 },
          { key: 'mobile', filled: 1 },
        ],
        repair: { runsAgain: 0, fillsIn: 1, routes: [{ changes: ['The contact’s Phone is fed in another way.'] }] },
      },
    });
    expect(viewAs(shown, 'drift').repair!.groups[0]!.examples[0]).toMatchObject({ after: '+44 7700 900320' });
    expect((await contacts()).get('Cleo')!.phone).toBeUndefined();

    const { status, body } = await decide([line.id], 'repair');
    expect([status, body.text]).toEqual([200, 'Enquiries reads “mobile” now and blanks were filled in 1 record.']);
    expect((await contacts()).get('Cleo')!.phone).toBe('+447700900320');
    expect(await workspace.get<RouteShape>(`/routes/${route}`)).toMatchObject({ version: 2, draftDiffers: false });
    expect(await lines()).toEqual([]);

    await sent(person('dee', '07700 900321', 'mobile'));
    await sent(person('eve', '07700 900322'));
    const after = await contacts();
    expect([after.get('Dee')!.phone, after.get('Eve')!.phone]).toEqual(['+447700900321', '+447700900322']);
    expect((await decide([line.id], 'repair')).status).toBe(404);
  });

  test('lets what failed for it go again', async () => {
    await workspace.call('POST', '/fields', { record: 'contact', label: 'Crop', type: 'text', required: true });
    const definition = routeFrom(workspace.endpoint);
    definition.writes[1]!.fills.push({ field: 'crop', value: { parts: [{ answer: 'crop' }] } });
    await workspace.publish(definition);
    await sent({ ...person('ada', '07700 900318'), crop: 'figs' });
    const failed = await sent({ ...person('bo', '07700 900319'), crops: 'vines' });
    expect(failed.runs[0]!.outcome).toBe('failed');
    const line = await waiting('renamed');
    expect(await one(line)).toMatchObject({ view: { repair: { runsAgain: 1, fillsIn: 0 } } });
    await decide([line.id], 'repair');
    await until(
      () => outcomeOf(failed.id),
      ([outcome]) => outcome === 'written',
    );
    expect((await contacts()).get('Bo')!.crop).toBe('vines');
  });

  test('may be left, and is not asked again', async () => {
    await workspace.publish();
    await sent(person('ada', '07700 900318'));
    await sent(person('bo', '07700 900319', 'mobile'));
    const line = await waiting('renamed');
    expect((await decide([line.id], 'leave')).body.text).toBe('Left as it is.');
    await sent(person('cleo', '07700 900320', 'mobile'));
    expect(await lines()).toEqual([]);
  });

  test('that no route reads is nobody’s concern', async () => {
    await workspace.publish();
    await sent({ ...person('ada', '07700 900318'), note: 'a' });
    await sent({ ...person('bo', '07700 900319', 'mobile'), notes: 'b' });
    await waiting('renamed');
    expect((await lines()).map(({ detail }) => detail)).toEqual(['phone → mobile']);
  });

  test('is repaired once, though two do it at the same time', async () => {
    const route = await workspace.publish();
    await sent(person('ada', '07700 900318'));
    await sent(person('bo', '07700 900319', 'mobile'));
    const { id } = await waiting('renamed');
    const answers = await Promise.all([decide([id], 'repair'), decide([id], 'repair')]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 404]);
    expect((await workspace.get<RouteShape>(`/routes/${route}`)).version).toBe(2);
  });
});

describe('an answer that no option stands for', () => {
  async function publishWith(finishers: { use: string; with?: Record<string, unknown> }[]): Promise<string> {
    const options = [{ label: 'Moss' }, { label: 'Figs' }];
    await workspace.call('POST', '/fields', { record: 'contact', label: 'Growing', type: 'one-of', options });
    const definition = routeFrom(workspace.endpoint);
    definition.writes[1]!.fills.push({ field: 'growing', value: { parts: [{ answer: 'grow' }], finishers } });
    return workspace.publish(definition);
  }
  const grower = (name: string, grow: string) => ({ name, email: `${name}@weir.example`, grow });
  const HOLDING = [{ use: 'translate', with: { table: { mos: 'moss' } } }];

  test('gets its meaning: what was written without it is filled in, and the option knows the word from then on', async () => {
    await publishWith([]);
    await sent(grower('ada', 'Rooftop figs'));
    await sent(grower('bo', 'rooftop FIGS'));
    await sent(grower('cleo', 'ferns'));
    const [first, second] = (await until(lines, ({ length }) => length === 2)).filter(
      ({ kind }) => kind === 'new-answer',
    );
    expect([first!.count, first!.detail, second!.count]).toEqual([
      2,
      expect.stringMatching(/^Growing: “rooftop figs”$/i),
      1,
    ]);
    expect(await one(first!)).toMatchObject({
      view: { as: 'answer', label: 'Growing', options: [{ key: 'moss' }, { key: 'figs' }] },
      examples: [{ who: 'bo' }, { who: 'ada' }],
    });
    expect((await decide([first!.id], 'means')).status).toBe(422);
    await decide([first!.id], 'means', { option: 'figs' });
    const placed = await contacts();
    expect(['Ada', 'Bo', 'Cleo'].map((name) => placed.get(name)!.growing)).toEqual(['figs', 'figs', undefined]);
    await sent(grower('dee', 'ROOFTOP figs'));
    expect((await contacts()).get('Dee')!.growing).toBe('figs');
    expect((await lines()).map(({ id }) => id)).toEqual([second!.id]);
  });

  test('that holds its run becomes a line of the table, and the run goes on', async () => {
    const route = await publishWith(HOLDING);
    const held = await sent(grower('ada', 'Tree ferns'));
    expect(held.runs[0]!.outcome).toBe('held');
    const line = await waiting('new-answer');
    await decide([line.id], 'add-option');
    await until(
      () => outcomeOf(held.id),
      ([outcome]) => outcome === 'written',
    );
    expect((await contacts()).get('Ada')!.growing).toBe('tree_ferns');
    expect((await workspace.get<RouteShape>(`/routes/${route}`)).version).toBe(2);
    expect(await lines()).toEqual([]);
  });

  test('is no decision where it is longer than an option’s name can be', async () => {
    await publishWith([]);
    await sent(grower('ada', 'x'.repeat(101)));
    await sent(grower('bo', 'x'.repeat(100)));
    const line = await waiting('new-answer');
    expect((await lines()).map(({ count }) => count)).toEqual([1]);
    expect((await decide([line.id], 'add-option')).status).toBe(200);
    expect((await contacts()).get('Bo')!.growing).toMatch(/^x+$/);
  });

  test('beyond those that are listed is counted, opened and decided like any other', async () => {
    await publishWith(HOLDING);
    for (const fruit of ['figgs', 'figz', 'fihgs']) await sent(grower('ada', fruit));
    await until(lines, ({ length }) => length === 3);
    const list = (limit: number) => workspace.get<DecisionList>(`/decisions?limit=${limit}`);
    const { items, total } = await list(1);
    expect([items.length, total]).toEqual([1, 3]);
    const beyond = (await list(3)).items[2]!;
    expect((await one(beyond)).subject).toBe(beyond.subject);
    expect((await decide([beyond.id], 'leave')).status).toBe(200);
    expect((await list(1)).total).toBe(2);
    for (const limit of ['0', '1001', 'x'])
      expect((await workspace.call('GET', `/decisions?limit=${limit}`)).status).toBe(422);
  });

  test('several are decided alike', async () => {
    await publishWith(HOLDING);
    const held = [await sent(grower('ada', 'figgs')), await sent(grower('bo', 'figz'))];
    const all = await until(lines, ({ length }) => length === 2);
    expect(new Set(all.map(({ like }) => like)).size).toBe(1);
    await decide(
      all.map(({ id }) => id),
      'means',
      { option: 'figs' },
    );
    for (const { id } of held)
      await until(
        () => outcomeOf(id),
        ([outcome]) => outcome === 'written',
      );
    expect([...(await contacts()).values()].map(({ growing }) => growing)).toEqual(['figs', 'figs']);
  });
});

describe('runs that wait', () => {
  function publishNeedingPhone(): Promise<string> {
    const definition = routeFrom(workspace.endpoint);
    definition.writes[1]!.fills[2]!.ifEmpty = 'fail';
    return workspace.publish(definition);
  }

  test('failures of one reason are one decision; left ones come back when more fail', async () => {
    await publishNeedingPhone();
    await sent({ email: 'a@weir.example', name: 'ada' });
    await sent({ email: 'b@weir.example', name: 'bo' });
    const line = await waiting('failed');
    expect(line).toMatchObject({ subject: 'Enquiries', count: 2 });
    expect((await one(line)).examples.map(({ who }) => who)).toEqual(['bo', 'ada']);
    expect((await decide([line.id], 'run-again')).body.text).toBe('2 submissions go through Enquiries again.');
    await until(lines, (all) => all.some(({ count }) => count === 2));
    await decide([line.id], 'leave');
    expect(await lines()).toEqual([]);
    await sent({ email: 'c@weir.example', name: 'cleo' });
    expect(await waiting('failed')).toMatchObject({ id: line.id, count: 1 });
  });

  test('a run that failed is told though an answer of it names no option either', async () => {
    const options = [{ label: 'Moss' }];
    await workspace.call('POST', '/fields', { record: 'company', label: 'Growing', type: 'one-of', options });
    const definition = routeFrom(workspace.endpoint);
    definition.writes[0]!.fills.push({ field: 'growing', value: { parts: [{ answer: 'grow' }] } });
    definition.writes[1]!.fills[2]!.ifEmpty = 'fail';
    await workspace.publish(definition);
    await sent({ email: 'a@weir-glass.example', company: 'Weir', name: 'ada', grow: 'Ferns' });
    expect((await until(lines, ({ length }) => length > 0)).map(({ kind }) => kind)).toEqual(['failed']);
  });

  test('what waits for a paused route goes on when it is resumed', async () => {
    const route = await workspace.publish();
    await workspace.call('POST', `/routes/${route}/pause`);
    const held = await sent({ email: 'ada@weir.example', name: 'ada' });
    const line = await waiting('paused');
    await decide([line.id], 'resume');
    await until(
      () => outcomeOf(held.id),
      ([outcome]) => outcome === 'written',
    );
    expect(await lines()).toEqual([]);
  });

  test('an action that is none for it is refused, and so is one that is decided already', async () => {
    await publishNeedingPhone();
    await sent({ email: 'a@weir.example', name: 'ada' });
    const { id } = await waiting('failed');
    expect((await decide([id], 'repair')).status).toBe(422);
    expect((await decide([id, 'failed.gone'], 'run-again')).status).toBe(404);
    expect((await workspace.call('POST', '/decisions/decide', { ids: [], action: 'leave' })).status).toBe(422);
    expect((await lines()).map((line) => line.id)).toEqual([id]);
  });
});

describe('what looks as if no person had sent it', () => {
  const spam = (email: string) =>
    server.postJson(`/in/${workspace.form}`, { name: 'x', email, _leave_blank: 'http://a.example http://b.example' });

  test('is one decision for each intake: left, it comes back with the next; released, it is routed', async () => {
    await workspace.publish(routeFrom(workspace.form));
    await spam('a@weir.example');
    await spam('b@weir.example');
    const line = await waiting('set-aside');
    expect(line).toMatchObject({ subject: expect.any(String), count: 2 });
    expect((await one(line)).examples).toHaveLength(2);
    await decide([line.id], 'leave');
    expect(await lines()).toEqual([]);
    await spam('c@weir.example');
    expect(await waiting('set-aside')).toMatchObject({ id: line.id, count: 1 });
    expect((await decide([line.id], 'release')).body.text).toBe('1 submission is released.');
    await until(contacts, ({ size }) => size === 1);
    expect(await lines()).toEqual([]);
  });
});

describe('a field that nothing reads', () => {
  test('is told when it begins to come in an intake that has settled, and can be left', async () => {
    await workspace.publish();
    const person = (n: number) => ({ name: `ada${n}`, email: `ada${n}@weir.example`, phone: '', company: '', bays: 1 });
    for (let n = 0; n < 21; n += 1) await workspace.submit(person(n));
    await workspace.handled();
    expect(await lines()).toEqual([]);
    for (let n = 21; n < 25; n += 1) await sent({ ...person(n), referral: 'a friend' });
    const line = await waiting('appeared');
    expect(line).toMatchObject({ detail: 'referral', subject: 'Dealers' });
    expect(await one(line)).toMatchObject({
      choices: [{ action: 'leave' }],
      things: [{ name: 'Dealers' }, { name: 'Enquiries' }],
      view: { fields: [{ key: 'referral', examples: ['a friend'] }], repair: null },
    });
    await decide([line.id], 'leave');
    expect(await lines()).toEqual([]);
  });

  test('is read at once where a field of the records fits it, and filled in where it came already', async () => {
    await workspace.publish();
    const person = (n: number) => ({ name: `ada${n}`, email: `ada${n}@weir.example`, bays: 1 });
    for (let n = 0; n < 21; n += 1) await workspace.submit(person(n));
    await workspace.handled();
    for (let n = 21; n < 25; n += 1) await sent({ ...person(n), job_title: 'Head gardener' });
    const line = await waiting('appeared');
    expect(await one(line)).toMatchObject({
      choices: [{ action: 'repair', label: 'Read it' }, { action: 'leave' }],
      view: { repair: { fillsIn: 4, runsAgain: 0, routes: [{ changes: ['The contact’s Job title is fed.'] }] } },
    });
    expect((await decide([line.id], 'repair')).body.text).toBe(
      'Enquiries reads “job_title” now and blanks were filled in 4 records.',
    );
    const jobs = (await workspace.get<Page<RecordShape>>('/contacts?limit=50')).items.map(
      ({ values }) => values.job_title,
    );
    expect(jobs.filter((job) => job === 'Head gardener')).toHaveLength(4);
    expect(await lines()).toEqual([]);

    const [last] = (await workspace.get<Page<SubmissionShape>>('/submissions?limit=1')).items;
    const attempts = async () => (await workspace.get<RunShape>(`/runs/${last!.runs[0]!.id}`)).attempts;
    expect(await attempts()).toMatchObject([
      { why: 'fill-in', version: 2, outcome: 'written', by: expect.any(String) },
      { why: 'arrival', version: 1, outcome: 'written', by: null },
    ]);
    const [filledIn] = await workspace.query<{ id: string }>('select id from record_edit');
    await workspace.call('POST', `/edits/${filledIn!.id}/take-back`);
    expect((await attempts()).map(({ outcome }) => outcome)).toEqual(['taken-back', 'written']);
  });

  test('is told when a route reads it and it stops', async () => {
    await workspace.publish();
    const person = (n: number) => ({ name: `ada${n}`, email: `ada${n}@weir.example` });
    for (let n = 0; n < 12; n += 1) await workspace.submit({ ...person(n), bays: n, note: 'x' });
    await workspace.handled();
    for (let n = 12; n < 18; n += 1) await sent(person(n));
    const line = await waiting('stopped');
    expect((await lines()).map(({ detail }) => detail)).toEqual(['bays']);
    // It is told when it has been learnt, which is soon after it was routed.
    const told = async () => viewAs(await one(line), 'drift').told;
    await until(told, (one) => 'missed' in one && one.missed === 6);
    expect(await told()).toMatchObject({ kind: 'stopped', field: 'bays' });
  });
});

describe('what is hostile', () => {
  const HOSTILE = ['<script>alert(1)</script>', '\u202Eevil', "'; drop table run; --", '{{ 1 }}', '💚'.repeat(20)];

  test('in names and answers is shown as it came, decided, and breaks nothing', async () => {
    const options = [{ label: 'Moss' }];
    await workspace.call('POST', '/fields', { record: 'contact', label: 'Growing', type: 'one-of', options });
    const definition = routeFrom(workspace.endpoint);
    definition.writes[1]!.fills.push({ field: 'growing', value: { parts: [{ answer: 'grow' }] } });
    await workspace.publish(definition);
    for (const [n, grow] of HOSTILE.entries())
      await sent({ name: `ada${n}`, email: `ada${n}@weir.example`, grow, [`x${grow}`]: grow });
    const all = await until(lines, ({ length }) => length === HOSTILE.length);
    for (const line of all) {
      expect(HOSTILE).toContain(viewAs(await one(line), 'answer').value);
      expect((await decide([line.id], 'add-option')).status).toBe(200);
    }
    expect(new Set([...(await contacts()).values()].map(({ growing }) => growing)).size).toBe(HOSTILE.length);
    expect(await lines()).toEqual([]);
  });

  test('ids of decisions are not there', async () => {
    for (const id of [...HOSTILE, 'renamed.0', '%00', '..%2F..'])
      expect((await workspace.call('GET', `/decisions/${encodeURIComponent(id)}`)).status).toBe(404);
    expect((await decide(HOSTILE, 'leave')).status).toBe(404);
  });
});
