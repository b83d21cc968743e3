import { describe, expect, jest, test } from '@jest/globals';
import type {
  Decided,
  DecisionLine,
  DecisionList,
  DecisionShape,
  IdentityReport,
  LookAlikeLine,
  Page,
  ProblemBody,
  RecordShape,
  ScanShape,
  SubmissionDetail,
  ThresholdExamples,
} from '@haycart/api';
import type { JsonObject, Plan } from '@haycart/core';
import { EarlyLearning } from '../src/identity/early-learning.service';
import { RecognitionService } from '../src/recognition/recognition.service';
import { RecordIndexing } from '../src/identity/record-indexing.service';
import { ScanService } from '../src/identity/scan.service';
import { LookAlikeWatch } from '../src/identity/look-alike-watch.service';
import { Jobs } from '../src/platform/jobs/jobs';
import { RecordsService } from '../src/records/records.service';
import { routeFrom } from './support/routes';
import { eachInWorkspace, type TestServer, type TestWorkspace, until } from './support/test-server';
import { viewAs } from './support/decision-view';

let server: TestServer;
let workspace: TestWorkspace;
let person: TestWorkspace['call'];

eachInWorkspace(async (made) => {
  ({ server, workspace } = made);
  person = await workspace.signIn();
});

const made = async (values: object) => (await person<RecordShape>('POST', '/contacts', { values })).body.id;
const lines = async () =>
  (await workspace.get<DecisionList>('/decisions')).items.filter(
    ({ kind }) => kind === 'look-alike' || kind === 'which-record',
  );
const decide = (id: string, action: string, more = {}) =>
  person<Decided & ProblemBody>('POST', '/decisions/decide', { ids: [id], action, ...more });
const contacts = async () => (await workspace.get<Page<RecordShape>>('/contacts?limit=50')).items;

/** A scan of all that was made: one that began by itself before that may be under way. */
async function scanned(): Promise<ScanShape> {
  const rested = () =>
    until(
      () => workspace.get<ScanShape[]>('/scans?kind=contact'),
      ([one]) => one?.state !== 'running',
    );
  await rested();
  await person('POST', '/scans', { kind: 'contact' });
  return (await rested())[0]!;
}

/** What was made so far is looked at by itself, so that nothing is looked for while a test goes on. */
async function lookedAtAll(): Promise<void> {
  await until(
    () =>
      workspace.query<{ rests: boolean }>(
        `select not exists (select 1 from look_alike_scan where state = 'running') and exists (
           select 1 from recognition where looked_until is not null and not exists (
             select 1 from record_change c where (c.transaction, c.id) > (looked_transaction, looked_until))) as rests`,
      ),
    ([row]) => row!.rests,
  );
}

const ada = { first_name: 'Ada', last_name: 'Thackeray', email: 'ada@weir.example', phone: '07700 900318' };
const wrongly = { first_name: 'Ada', last_name: 'Thackery', email: 'ada.t@example.net', phone: '07700 900318' };

describe('a scan', () => {
  test('finds those that may be the same, and leaves relatives alone', async () => {
    const [one, other] = [await made(ada), await made(wrongly)];
    await made({ first_name: 'Piers', last_name: 'Thackeray', phone: '07700 900318', email: 'piers@weir.example' });
    expect(await scanned()).toMatchObject({ state: 'done', records: 3, partsDone: 1 });
    const [line, ...more] = await lines();
    expect(more).toEqual([]);
    expect(line).toMatchObject({ kind: 'look-alike', subject: 'Ada Thackeray and Ada Thackery' });
    const pair = viewAs(await workspace.get<DecisionShape>(`/decisions/${line!.id}`), 'pair');
    expect(pair.rehearsal.sides.map(({ id }) => id)).toEqual([one, other]);
    expect(pair.group).toEqual({ others: [], complete: true });
    expect(pair.rehearsal.shares.find(({ of }) => of === 'phone')!.words).toContain('the same');
  });

  test('is decided: the same, different for ever, or later', async () => {
    await made(ada);
    await made(wrongly);
    await scanned();
    const [{ id }] = (await lines()) as [DecisionLine];
    expect((await decide(id, 'later')).body.text).toBe('Put off.');
    expect((await decide(id, 'different')).status).toBe(200);
    expect(await lines()).toEqual([]);
    await scanned();
    expect(await lines()).toEqual([]);
    expect(await decide(id, 'same')).toMatchObject({ status: 404 });
  });

  test('of a pair that is the same leaves one, with the values chosen', async () => {
    await made(ada);
    await made(wrongly);
    await scanned();
    const [{ id }] = (await lines()) as [DecisionLine];
    await decide(id, 'same', { values: { last_name: 'Thackeray', full_name: 'Ada Thackeray' } });
    const [only, ...more] = await contacts();
    expect(more).toEqual([]);
    expect(only!.values).toMatchObject({ last_name: 'Thackeray', emails: ['ada.t@example.net', 'ada@weir.example'] });
  });

  test('goes on with the part where it stopped, and stops when it is cancelled', async () => {
    await made(ada);
    await made(wrongly);
    const insert = (done: number) =>
      workspace.query<{ id: string }>(
        `insert into look_alike_scan (workspace_id, id, record_kind, state, records, parts_done, parts, pairs, found, ask, scores, by, started_at)
         values ('${workspace.id}', gen_random_uuid(), 'contact', 'running', 2, ${done}, 2, 5, 0, 0.2, '[]', 'R', now()) returning id`,
      );
    const scans = server.app.get(ScanService);
    const [stopped] = await insert(1);
    await scans.run(workspace.id, stopped!.id);
    const [scan] = await workspace.get<ScanShape[]>('/scans?kind=contact');
    // The first part, in which the pair lies, was done before.
    expect(scan).toMatchObject({ state: 'done', partsDone: 2, pairs: 5 });
    const [cancelled] = await insert(0);
    await person('POST', `/scans/${cancelled!.id}/cancel`);
    await scans.run(workspace.id, cancelled!.id);
    expect((await workspace.get<ScanShape[]>('/scans?kind=contact'))[0]).toMatchObject({
      state: 'cancelled',
      partsDone: 0,
    });
  });

  test('that runs already is not begun twice', async () => {
    const [one, two] = await Promise.all([
      person<ScanShape>('POST', '/scans', { kind: 'contact' }),
      person<ScanShape>('POST', '/scans', { kind: 'contact' }),
    ]);
    expect(one.body.id).toBe(two.body.id);
    await scanned();
  });
});

test('what arrives is compared by itself, a moment later', async () => {
  await made(ada);
  await server.app.get(LookAlikeWatch).look(workspace.id);
  await made(wrongly);
  await until(lines, (all) => all.length > 0);
  expect(await lines()).toHaveLength(1);
});

test('where very much has come, everything is looked through instead of each change by itself', async () => {
  await workspace.publish();
  await workspace.query(
    `insert into look_alike_scan (workspace_id, id, record_kind, state, records, parts_done, parts, pairs, found, ask, scores, by, started_at)
     values ('${workspace.id}', gen_random_uuid(), 'contact', 'done', 0, 1, 1, 0, 0, 0.2, '[]', 'R', now())`,
  );
  await server.app.get(LookAlikeWatch).look(workspace.id);
  const around = jest.spyOn(server.app.get(RecordsService), 'pairsAround');
  const people = Array.from({ length: 600 }, (_, n) => ({ name: `Ada ${n}`, email: `${n}@weir.example` }));
  await server.postJson(`/in/${workspace.endpoint}`, people.slice(0, 300));
  await server.postJson(`/in/${workspace.endpoint}`, [...people.slice(300), { ...wrongly, name: 'Ada 7' }]);
  await workspace.handled();
  await until(
    () => workspace.get<ScanShape[]>('/scans?kind=contact'),
    ([scan]) => scan!.by === 'Hay Cart' && scan!.records > 600 && scan!.state === 'done',
  );
  const looked = around.mock.calls.filter(([{ workspaceId }]) => workspaceId === workspace.id);
  around.mockRestore();
  expect(new Set(looked.flatMap(([, { kind, ids }]) => (kind === 'contact' ? ids : []))).size).toBeLessThan(600);
});

describe('groups', () => {
  test('are merged whole where all are like one another', async () => {
    await made(ada);
    await made(wrongly);
    await made({ ...ada, email: 'a.thackeray@example.net', last_name: 'Thackerey' });
    await scanned();
    const [{ id }] = (await lines()) as [DecisionLine];
    const pair = viewAs(await workspace.get<DecisionShape>(`/decisions/${id}`), 'pair');
    expect(pair.group).toMatchObject({ complete: true, others: [{ kind: 'contact' }] });
    expect((await decide(id, 'same', { whole: true })).body.text).toBe('3 are one record now.');
    expect(await contacts()).toHaveLength(1);
  });

  test('that hang together in a chain are never merged blindly', async () => {
    await made({ first_name: 'Ada', last_name: 'Thackeray', phone: '07700 900318', email: 'ada@weir.example' });
    await made({ first_name: 'Ada', last_name: 'Thackeray', email: 'thackeray7@example.net', phone: '07700 900318' });
    await made({ first_name: 'Ada', last_name: 'Quennell', email: 'thackeray7@other.example', phone: '07700 900555' });
    await lookedAtAll();
    await workspace.query(
      `insert into look_alike (workspace_id, record_kind, one_id, other_id, probability, pattern, found_at, checked_at)
       select a.workspace_id, 'contact', a.id, b.id, 0.96, '', now(), now() from contact a join contact b on b.id > a.id
       where not (a.email = 'ada@weir.example' and b.last_name = 'Quennell')
       on conflict (workspace_id, one_id, other_id) do update set probability = excluded.probability, pattern = ''`,
    );
    const [{ id }] = (await lines()) as [DecisionLine];
    expect(viewAs(await workspace.get<DecisionShape>(`/decisions/${id}`), 'pair').group.complete).toBe(false);
    expect(await decide(id, 'same', { whole: true })).toMatchObject({ status: 422 });
    const { body } = await person<{ merged: LookAlikeLine[]; left: LookAlikeLine[] }>(
      'POST',
      '/look-alikes/rehearse-accepting',
      { kind: 'contact', least: 0.95 },
    );
    expect([body.merged.length, body.left.length]).toEqual([0, 2]);
  });

  test('are accepted from a probability on, shown before', async () => {
    await made(ada);
    await made(wrongly);
    await scanned();
    const accept = (path: string, least: number) =>
      person<{ merged: LookAlikeLine[] & number } & ProblemBody>('POST', `/look-alikes/${path}`, {
        kind: 'contact',
        least,
      });
    expect((await accept('rehearse-accepting', 0.9)).body.merged).toHaveLength(1);
    expect((await contacts()).length).toBe(2);
    expect((await accept('accept', 0.4)).status).toBe(422);
    expect((await accept('accept', 0.9)).body.merged).toBe(1);
    expect((await contacts()).length).toBe(1);
  });
});

test('while much arrives, how many there are and what is common is learned as the records double', async () => {
  const people = (from: number, to: number) =>
    workspace.query(`
      insert into contact (workspace_id, id, number, first_name, last_name, full_name, created_at, updated_at)
      select current_workspace(), gen_random_uuid(), n, 'Person' || n, last, 'Person' || n || ' ' || last, now(), now()
      from generate_series(${from}, ${to}) n, lateral (select case when n % 4 = 0 then 'Smith' else 'Rare' || n end as last) v`);
  const learned = async () => {
    await server.database.inWorkspace(workspace.id, (tx) => server.app.get(EarlyLearning).learn(tx, 'contact'));
    const models = await server.database.inWorkspace(workspace.id, (tx) =>
      server.app.get(RecognitionService).models(tx),
    );
    return models.contact;
  };
  await people(1, 400);
  expect(await learned()).toBeUndefined();
  await people(401, 600);
  const model = (await learned())!;
  expect(model).toMatchObject({ records: 600, sampled: 600, learned: null });
  expect(model.common.family!.smith).toBeGreaterThan(0.2);
  await people(601, 1_100);
  expect((await learned())!.records).toBe(600);
  await people(1_101, 1_200);
  expect((await learned())!.records).toBe(1_200);
});

describe('a submission that may mean several', () => {
  const asking = () => {
    const route = routeFrom(workspace.endpoint);
    return workspace.publish({
      ...route,
      writes: route.writes.map((write) =>
        write.as === 'person'
          ? {
              ...write,
              match: [
                { by: 'email', askIf: ['other-surname'] },
                { by: 'likeness', accept: 0.92, ask: 0.35 },
              ],
            }
          : write,
      ),
    });
  };
  const settled = (id: string) =>
    until(
      () => workspace.get<SubmissionDetail>(`/submissions/${id}`),
      ({ state, runs }) => state === 'routed' && runs.length > 0,
    );

  test('waits, shows why, and goes on as a person said', async () => {
    const one = await made(ada);
    await asking();
    const id = await workspace.submit({ name: 'Ada Quennell', email: 'ada@weir.example', company: 'Weir' });
    expect((await settled(id)).runs[0]!.outcome).toBe('held');
    const [line] = await lines();
    expect(line).toMatchObject({ kind: 'which-record', subject: 'Ada Quennell' });
    const shown = await workspace.get<DecisionShape>(`/decisions/${line!.id}`);
    const which = viewAs(shown, 'which');
    expect(shown.choices.map(({ action }) => action)).toEqual(['same', 'new-record', 'no-record', 'leave']);
    expect(which).toMatchObject({ kind: 'contact', candidates: [{ id: one }] });
    expect(which.came).toContainEqual({ label: 'E-mail', text: 'ada@weir.example' });
    expect(await decide(line!.id, 'same')).toMatchObject({ status: 422 });
    await decide(line!.id, 'same', { record: one });
    expect(
      (
        await until(
          () => settled(id),
          ({ runs }) => runs[0]!.outcome === 'written',
        )
      ).runs[0]!.outcome,
    ).toBe('written');
    expect((await contacts()).map(({ values }) => values.full_name)).toEqual(['Ada Quennell']);
  });

  test('is a second person with the same address where a person says so, and nobody asks of the two again', async () => {
    const one = await made(ada);
    await asking();
    const couple = { name: 'Bo Quennell', email: 'ada@weir.example', phone: '07700 900777' };
    const id = await workspace.submit(couple);
    expect((await settled(id)).runs[0]!.outcome).toBe('held');
    await decide((await lines())[0]!.id, 'new-record');
    await until(
      () => settled(id),
      ({ runs }) => runs[0]!.outcome === 'written',
    );
    const people = await contacts();
    expect(people.map(({ values }) => [values.full_name, values.email]).sort()).toEqual([
      ['Ada Thackeray', 'ada@weir.example'],
      ['Bo Quennell', 'ada@weir.example'],
    ]);
    const bo = people.find((contact) => contact.id !== one)!.id;
    await scanned();
    await server.app.get(LookAlikeWatch).look(workspace.id);
    expect(await lines()).toEqual([]);

    // Each is known by the name, also after an edit and after everything was indexed anew.
    expect((await person('PATCH', `/contacts/${bo}`, { values: { job_title: 'Grower' } })).status).toBe(200);
    await workspace.query('update recognition set indexed = 0');
    await server.app.get(RecordIndexing).index(workspace.id);
    for (const [name, whose] of [
      ['Bo Quennell', bo],
      ['Ada Thackeray', one],
    ] as const) {
      const again = await settled(await workspace.submit({ ...couple, name, phone: '' }));
      const { plan } = await workspace.get<{ plan: Plan }>(`/runs/${again.runs[0]!.id}`);
      expect(plan.writes.find(({ as }) => as === 'person')!.id).toBe(whose);
    }
    expect(await contacts()).toHaveLength(2);
    expect(
      (await person('PATCH', `/contacts/${bo}`, { values: { email: 'bo@weir.example', emails: ['bo@weir.example'] } }))
        .status,
    ).toBe(200);
    expect(
      await workspace.query(
        `select key_kind from identity_key where record_id = '${bo}' and value = 'ada@weir.example'`,
      ),
    ).toEqual([]);
  });

  test('is a new one where a person says so, found by likeness', async () => {
    await made(ada);
    await asking();
    const id = await workspace.submit({ name: 'Ada Quennell', email: 'ada.q@example.net', phone: '07700 900318' });
    expect((await settled(id)).runs[0]!.outcome).toBe('held');
    const [line] = await lines();
    const which = viewAs(await workspace.get<DecisionShape>(`/decisions/${line!.id}`), 'which');
    expect(which.candidates[0]!.probability).toBeGreaterThan(0.35);
    expect(which.candidates[0]!.shares.map(({ label }) => label)).toContain('Phone');
    await decide(line!.id, 'new-record');
    await until(
      () => settled(id),
      ({ runs }) => runs[0]!.outcome === 'written',
    );
    expect(await contacts()).toHaveLength(2);
  });
});

describe('one person in many submissions at once', () => {
  test('by address, by number and by both is one contact, and no source is lost', async () => {
    const route = routeFrom(workspace.endpoint);
    await workspace.publish({
      ...route,
      writes: route.writes
        .filter(({ as }) => as === 'person')
        .map((write) => ({ ...write, links: [], match: [{ by: 'email' }, { by: 'phone' }] })),
    });
    const ways: JsonObject[] = [
      { name: 'Ada Weir', email: 'ada@weir.example' },
      { name: 'Ada Weir', phone: '07700 900318' },
      { name: 'Ada Weir', email: 'ada@weir.example', phone: '07700 900318' },
    ];
    await Promise.all(Array.from({ length: 99 }, (_, n) => workspace.submit(ways[n % 3]!)));
    await workspace.handled();
    const [only, ...more] = await contacts();
    expect(more).toEqual([]);
    expect(only!.values).toMatchObject({ email: 'ada@weir.example', phone: '+447700900318' });
    expect(await workspace.query(`select count(*)::int as n from touch where record_id = '${only!.id}'`)).toEqual([
      { n: 99 },
    ]);
  });
});

test('records that an older version wrote get the keys and blocks of this one', async () => {
  const id = await made({ ...ada, email: 'info@weir.example' });
  const keys = () =>
    workspace.query(
      `select (select count(*) from record_block where record_id = '${id}')::int as blocks,
         (select count(*) from identity_key where record_id = '${id}' and key_kind = 'shared-email')::int as shared,
         (select count(*) from identity_key where record_id = '${id}' and key_kind = 'email')::int as own`,
    );
  const before = await keys();
  await workspace.query(`delete from record_block where record_id = '${id}'`);
  await workspace.query(
    `update identity_key set key_kind = 'email' where record_id = '${id}' and key_kind = 'shared-email'`,
  );
  expect(await keys()).toEqual([{ blocks: 0, shared: 0, own: 1 }]);
  await server.app.get(RecordIndexing).index(workspace.id);
  expect(await keys()).toEqual(before);
});

test('records are not gone through again at the next start where they were all written by this version', async () => {
  const asked = jest.spyOn(server.app.get(Jobs), 'resume').mockResolvedValue();
  const isAsked = async () => {
    asked.mockClear();
    await server.app.get(RecordIndexing).onApplicationBootstrap();
    return asked.mock.calls.some(
      ([task, payload]) => task === 'index-records' && 'workspaceId' in payload && payload.workspaceId === workspace.id,
    );
  };
  await made(ada);
  await person('PUT', '/identity/settings', { thresholds: { accept: 0.9, ask: 0.3 } });
  expect(await isAsked()).toBe(false);
  await workspace.query(`update recognition set indexed = 0 where workspace_id = '${workspace.id}'`);
  expect(await isAsked()).toBe(true);
  asked.mockRestore();
});

describe('what recognition did', () => {
  test('is told: pairs, rules, decisions against the score, and merges', async () => {
    await workspace.publish();
    await made(ada);
    await made(wrongly);
    await scanned();
    const [{ id }] = (await lines()) as [DecisionLine];
    const sum = async () =>
      (await workspace.get<IdentityReport>('/identity?kind=contact')).scores.reduce((all, times) => all + times, 0);
    expect(await sum()).toBe(1);
    await decide(id, 'same');
    expect(await sum()).toBe(0);
    await workspace.submit({ name: 'Ada', email: 'ada@weir.example' });
    await workspace.handled();
    const report = await workspace.get<IdentityReport>('/identity?kind=contact');
    expect(report.rules).toContainEqual({ by: 'email', times: 1 });
    expect(report.calibration).toMatchObject([{ decided: 1, same: 1 }]);
    expect(report.merges).toMatchObject([{ absorbed: { name: 'Ada Thackery' } }]);
    expect(report.suspected).toEqual([]);
  });

  test('thresholds are moved, with examples on either side; those that cross are refused', async () => {
    await made(ada);
    await made(wrongly);
    await scanned();
    const at = (accept: number, ask: number) =>
      workspace.get<ThresholdExamples>(`/identity/examples?kind=contact&accept=${accept}&ask=${ask}`);
    expect(await at(0.9, 0.5)).toMatchObject({ accepted: 1, asked: 0, above: [{ kind: 'contact' }] });
    expect(await at(1, 0.5)).toMatchObject({ accepted: 0, asked: 1, below: [{ kind: 'contact' }] });
    const set = (thresholds: object) => person<ProblemBody>('PUT', '/identity/settings', { thresholds });
    expect(await set({ accept: 0.4, ask: 0.5 })).toMatchObject({
      status: 422,
      body: { errors: [{ code: 'thresholds-cross' }] },
    });
    expect((await set({ accept: 0.97, ask: 0.6 })).status).toBe(200);
    expect((await workspace.get<IdentityReport>('/identity')).settings.thresholds).toEqual({ accept: 0.97, ask: 0.6 });
    expect(
      await person('PUT', '/identity/settings', { merging: { fields: { phone: 'best' }, trusted: [] } }),
    ).toMatchObject({ status: 422 });
  });

  test('the counts at the thresholds are of the pairs that wait, also of those found after the last scan', async () => {
    await made(ada);
    await scanned();
    await server.app.get(LookAlikeWatch).look(workspace.id);
    await made(wrongly);
    const [waiting] = await until(lines, (all) => all.length > 0);
    const at = (accept: number, ask: number) =>
      workspace.get<ThresholdExamples>(`/identity/examples?kind=contact&accept=${accept}&ask=${ask}`);
    const scores = async () => (await workspace.get<IdentityReport>('/identity?kind=contact')).scores;
    const counts = async () => [await at(0.5, 0.2), await at(1, 0.2)].map(({ accepted, asked }) => [accepted, asked]);
    expect(await counts()).toEqual([
      [1, 0],
      [0, 1],
    ]);
    const found = await scores();
    expect(found.reduce((sum, times) => sum + times, 0)).toBe(1);
    // A scan that finds the pair again does not count it twice.
    await scanned();
    expect(await scores()).toEqual(found);
    expect(await counts()).toEqual([
      [1, 0],
      [0, 1],
    ]);
    // Decided, it is a pair still, but nobody is asked about it any more.
    await decide(waiting!.id, 'different');
    expect(await scores()).toEqual(found);
    expect(await counts()).toEqual([
      [0, 0],
      [0, 0],
    ]);
  });

  test('pairs too unlike to be kept are counted as the scan left them, where asking is to begin earlier', async () => {
    await made(ada);
    await made(wrongly);
    expect((await person('PUT', '/identity/settings', { thresholds: { accept: 1, ask: 1 } })).status).toBe(200);
    await scanned();
    expect(await lines()).toEqual([]);
    expect(await workspace.get('/identity/examples?kind=contact&accept=0.5&ask=0.2')).toEqual({
      accepted: 1,
      asked: 0,
      askedByName: 0,
      above: [],
      below: [],
    });
  });

  test('a pair over the line whose names may be those of two is counted with those asked about, and said so', async () => {
    await made(ada);
    await made({ ...ada, last_name: 'Oduya', email: 'ada.t@weir.example' });
    await person('PUT', '/identity/settings', { thresholds: { accept: 0.02, ask: 0.01 } });
    await scanned();
    const examples = await workspace.get<ThresholdExamples>('/identity/examples?kind=contact&accept=0.02&ask=0.01');
    expect(examples).toMatchObject({ accepted: 0, asked: 1, askedByName: 1, above: [], below: [{ kind: 'contact' }] });
  });

  test('examples are those nearest to the line, however many lie farther off', async () => {
    await made(ada);
    await made(wrongly);
    await scanned();
    const [one] = await workspace.query<{ one_id: string; other_id: string }>(
      `select one_id, other_id from look_alike where workspace_id = '${workspace.id}'`,
    );
    await workspace.query(
      `insert into look_alike (workspace_id, record_kind, one_id, other_id, probability, pattern, state, found_at, checked_at)
       select workspace_id, record_kind, '${one!.one_id}', gen_random_uuid(), 0.3, pattern, 'open', now(), now()
       from look_alike, generate_series(1, 6000) where workspace_id = '${workspace.id}'`,
    );
    const { accepted, asked, above } = await workspace.get<ThresholdExamples>(
      '/identity/examples?kind=contact&accept=0.5&ask=0.2',
    );
    expect({ accepted, asked }).toEqual({ accepted: 1, asked: 6_000 });
    expect(above.map(({ other }) => other.id)).toEqual([one!.other_id]);
  });
});
